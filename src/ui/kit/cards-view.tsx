'use client'
import { Button } from '@mantine/core'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { removeCardAction, saveCardAction } from '../../actions/kit-actions'
import { firstCard } from '../../core/kit/bare-card'
import { modelName, readKitCard } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { asText } from '../../core/message/message'
import { sentence } from '../../words/en/sentence'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheetClasses from '../theme/sheet.module.css'
import { CardEditor } from './card-editor'
import { CardFacts } from './card-facts'
import classes from './kit.module.css'

export interface CardLine {
  readonly model: string
  readonly yaml: string
  /** `begun`: a model on the list that has no card yet; this is one to begin with. */
  readonly from: 'program' | 'installation' | 'begun'
  readonly version: number
}

const fromWords = { installation: 'ours', begun: 'not kept yet' } as const

/** Models on the list that have no card come first: each with one to begin with. */
function withBegun(kept: readonly CardLine[], units: readonly Unit[]): readonly CardLine[] {
  const known = new Set(kept.map(({ model }) => model))
  const missing = new Set(units.map(({ model }) => model).filter((model) => model !== '' && !known.has(model)))
  const begun = [...missing].map((model): CardLine => ({ model, yaml: firstCard(model), from: 'begun', version: 0 }))
  return [...begun, ...kept]
}

/** The kit cards of this installation: to read, to change, to add. */
export function CardsView({ lines: kept, chosen }: { lines: readonly CardLine[]; chosen: string | undefined }) {
  const { job, units } = useJob()
  const lines = useMemo(() => withBegun(kept, units), [kept, units])
  const router = useRouter()
  const { order, pending, fault } = useOrder()
  const line = lines.find((each) => each.model === chosen) ?? lines[0]
  const [draft, setDraft] = useState<{ model: string; yaml: string }>()
  const yaml = draft !== undefined && draft.model === line?.model ? draft.yaml : (line?.yaml ?? '')
  const reading = useMemo(() => readKitCard(yaml), [yaml])
  const faults = useMemo(() => (reading.ok ? [] : reading.faults), [reading])
  const [lineShown, setLineShown] = useState<{ number: number }>()
  const changed = yaml !== line?.yaml
  const name = reading.ok ? modelName(reading.card) : undefined
  // A card with another name is a new one; what the program brings is never written over.
  const version =
    line?.from === 'installation' && name === line.model
      ? line.version
      : (lines.find((each) => each.model === name && each.from === 'installation')?.version ?? 0)
  const show = (model: string) => router.push(`/jobs/${job.slug}/kit/cards?model=${encodeURIComponent(model)}`)
  return (
    <div className={sheetClasses.page}>
      <div className={sheetClasses.head}>
        <h1>Kit cards</h1>
        <span className="soft">
          What is particular to a model. Change one and keep it, or give it another name and it is a new one.
        </span>
        <div className={sheetClasses.headRight}>
          {line?.from === 'installation' && (
            <Button variant="default" disabled={pending} onClick={() => order(() => removeCardAction(line.model))}>
              Take ours off
            </Button>
          )}
          <Button variant="default" component={PageLink} href={`/jobs/${job.slug}/kit`}>
            Back to the list
          </Button>
          <Button
            disabled={(!changed && line?.from !== 'begun') || !reading.ok || pending}
            onClick={() =>
              order(async () => {
                const outcome = await saveCardAction(yaml, version)
                if (outcome.ok) {
                  setDraft(undefined)
                  if (outcome.value) show(outcome.value)
                }
                return outcome
              })
            }
          >
            {(changed || line?.from === 'begun') && name ? `Keep ${name}` : 'Keep the card'}
          </Button>
        </div>
      </div>
      {fault && <p className={sheetClasses.fault}>{sentence(fault.told)}</p>}
      <div className={classes.cards}>
        <nav className={`${sheetClasses.sheet} ${classes.cardList}`} aria-label="Kit cards">
          {lines.map((each) => (
            <PageLink
              key={each.model}
              href={`/jobs/${job.slug}/kit/cards?model=${encodeURIComponent(each.model)}`}
              aria-current={each.model === line?.model ? 'page' : undefined}
            >
              {each.model} {each.from !== 'program' && <span className="soft">{fromWords[each.from]}</span>}
            </PageLink>
          ))}
        </nav>
        <CardEditor
          yaml={yaml}
          faults={faults}
          line={lineShown}
          onChange={(text) => line && setDraft({ model: line.model, yaml: text })}
        />
        <aside className={`${sheetClasses.sheet} ${sheetClasses.pad}`} aria-label="What the card says">
          {reading.ok ? (
            <CardFacts card={reading.card} />
          ) : (
            <>
              <b>
                {faults.length} {faults.length === 1 ? 'fault' : 'faults'}
              </b>
              <ul className={classes.cardFaults}>
                {faults.map((each) => (
                  <li key={`${each.line} ${each.field} ${asText(each.reason)}`}>
                    <button type="button" onClick={() => setLineShown({ number: each.line })}>
                      Line {each.line}
                    </button>{' '}
                    <span className="mono">{each.field}</span> {sentence(each.reason)}
                  </li>
                ))}
              </ul>
            </>
          )}
        </aside>
      </div>
    </div>
  )
}
