'use client'
import { Button } from '@mantine/core'
import { type ReactNode, useState, useTransition } from 'react'
import { keepShownCardAction } from '../../actions/kit-actions'
import { askingWithMarks } from '../../core/config/asked'
import { spokenOf } from '../../core/config/outcomes'
import { keyText } from '../../core/config/unit-config'
import type { Unit } from '../../core/kit/unit'
import { type PressRole, pressRoles } from '../../core/showing/act'
import type { Hand, Told } from '../../core/showing/window-talk'
import { sentence } from '../../words/en/sentence'
import {
  meaningWords,
  missingWords,
  roleWords,
  settingName,
  showing,
  stateAsks,
  statesTitle,
  stateWords,
} from '../../words/en/showing'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import { Rehearsal } from './rehearsal'
import classes from './window.module.css'

type Shown = Extract<Told, { kind: 'shown' }>
type ShownAct = Shown['acts'][number]

interface ShowingPanelProps {
  readonly unit: Unit
  /** The access point whose values are put in, where they are not the unit's own. */
  readonly joined: Unit | undefined
  /** Undefined while nothing is shown. */
  readonly shown: Shown | undefined
  readonly card: Extract<Told, { kind: 'card' }> | undefined
  readonly rehearsed: Extract<Told, { kind: 'rehearsed' }> | undefined
  readonly act: ((hand: Hand) => void) | undefined
}

/** What hands have shown, what each act means, and the card that comes of it. */
export function ShowingPanel({ unit, joined, shown, card, rehearsed, act }: ShowingPanelProps) {
  if (!shown)
    return (
      <section className={`${sheet.sheet} ${classes.showing}`} aria-label={showing.title}>
        <p>{showing.why}</p>
        <Steps of="itself" />
        <div className={classes.acts}>
          <Button disabled={!act} onClick={() => act?.({ kind: 'show', on: true })}>
            {showing.begin}
          </Button>
        </div>
        <Rehearsal unit={unit} rehearsed={rehearsed} act={act} />
      </section>
    )
  const { acts, states } = shown
  const of = (each: ShownAct): Unit => (each.for === 'joined' && joined ? joined : unit)
  // What is asked of hands stands first, then what they did last.
  const asked = acts.filter(({ value }) => value?.kind === 'unknown')
  const known = acts.filter((each) => !asked.includes(each))
  return (
    <section className={`${sheet.sheet} ${classes.showing}`} aria-label={showing.title}>
      <h2>
        {showing.title} <span className="soft">{acts.length}</span>
      </h2>
      {acts.length === 0 && <p>{showing.nothing}</p>}
      {!acts.some((each) => each.for === (joined ? 'joined' : 'itself')) && <Steps of={joined ? 'joined' : 'itself'} />}
      {asked.length > 0 && (
        <ol>
          {asked.map((each) => (
            <ActLine key={each.number} unit={of(each)} each={each} act={act} />
          ))}
        </ol>
      )}
      {states.length > 0 && <States states={states} act={act} />}
      <div className={classes.acts}>
        <Button disabled={!act || acts.length === 0} onClick={() => act?.({ kind: 'make-card' })}>
          {showing.make}
        </Button>
        {acts.length > 0 && (
          <Button variant="default" disabled={!act} onClick={() => act?.({ kind: 'show', on: true, anew: true })}>
            {showing.anew}
          </Button>
        )}
      </div>
      {card && <MadeCard unit={unit} card={card} />}
      <ol reversed>
        {known.toReversed().map((each) => (
          <ActLine key={each.number} unit={of(each)} each={each} act={act} />
        ))}
      </ol>
    </section>
  )
}

/** What a showing goes through, in the order that makes a whole card. */
function Steps({ of }: { of: ShownAct['for'] }) {
  return (
    <ul className="soft">
      {showing[of === 'joined' ? 'stepsJoined' : 'steps'].map((step) => (
        <li key={step}>{step}</li>
      ))}
    </ul>
  )
}

function ActLine({ unit, each, act }: { unit: Unit; each: ShownAct; act: ShowingPanelProps['act'] }) {
  const { asking } = useJob()
  const { number, label, does, role, value, stood } = each
  const says = (meant: Extract<Hand, { kind: 'means' }>['value']) => act?.({ kind: 'means', act: number, value: meant })
  if (does === 'press')
    return (
      <Line
        {...{ label, kind: role ?? 'way', value: role, disabled: !act }}
        words={showing.pressed}
        asks={`What ${label} is for`}
        choose={(chosen) => says(chosen as PressRole)}
      >
        {pressRoles.map((one) => (
          <option key={one} value={one}>
            {roleWords[one]}
          </option>
        ))}
      </Line>
    )
  const kind = value?.kind ?? 'unknown'
  const of = askingWithMarks(asking, unit)
  const spoken = of ? spokenOf(of) : []
  return (
    <Line
      {...{ label, kind, disabled: !act }}
      value={value?.id === undefined ? kind : keyText({ id: value.id, of: value.of ?? '' })}
      words={stood ? showing.stood : showing.put}
      asks={`What was put into ${label}`}
      choose={(chosen) => {
        const setting = spoken.find((one) => keyText(one) === chosen)
        if (setting) says({ kind: 'setting', id: setting.id, of: setting.of, how: {} })
        else says(chosen === 'always' ? 'always' : { kind: 'left-out' })
      }}
    >
      {kind === 'unknown' && <option value="unknown">{meaningWords.unknown}</option>}
      {(kind === 'factory' || kind === 'ticked') && <option value={kind}>{meaningWords[kind]}</option>}
      <option value="always">{meaningWords.always}</option>
      <option value="left-out">{meaningWords['left-out']}</option>
      {spoken.map((one) => (
        <option key={keyText(one)} value={keyText(one)}>
          {settingName(one.id)}
          {one.name === '' ? '' : `, ${one.name}`}
        </option>
      ))}
    </Line>
  )
}

/** What stood in the row of an access point, and what each of it means. */
function States({ states, act }: { states: Shown['states']; act: ShowingPanelProps['act'] }) {
  return (
    <>
      <h3>{statesTitle}</h3>
      <ol>
        {states.map(({ words, state }) => (
          <li key={words} data-kind={state ?? 'unknown'}>
            <span>
              <b>{words}</b>
            </span>
            <select
              aria-label={stateAsks(words)}
              value={state ?? ''}
              disabled={!act}
              onChange={(event) => {
                const said = event.currentTarget.value
                if (said in stateWords) act?.({ kind: 'state-means', words, state: said as keyof typeof stateWords })
              }}
            >
              {state === undefined && <option value="">{meaningWords.unknown}</option>}
              {Object.entries(stateWords).map(([one, said]) => (
                <option key={one} value={one}>
                  {said}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ol>
    </>
  )
}

interface LineProps {
  readonly words: string
  readonly label: string
  readonly kind: string
  /** What is asked of the act, for those who hear the page. */
  readonly asks: string
  readonly value: string | undefined
  readonly disabled: boolean
  readonly choose: (chosen: string) => void
  readonly children: ReactNode
}

/** One act, and what it is said to be. */
function Line({ words, label, kind, asks, value, disabled, choose, children }: LineProps) {
  return (
    <li data-kind={kind}>
      <span>
        {words} <b>{label}</b>
      </span>
      <select
        aria-label={asks}
        value={value}
        disabled={disabled}
        onChange={(event) => choose(event.currentTarget.value)}
      >
        {children}
      </select>
    </li>
  )
}

function MadeCard({ unit, card: { yaml, missing, joined } }: { unit: Unit; card: Extract<Told, { kind: 'card' }> }) {
  const { job, cards } = useJob()
  const isAdded = cards.get(unit.model)?.dialect.kind === 'pages'
  const [pending, begin] = useTransition()
  const [outcome, setOutcome] = useState<string>()
  const [isKept, setKept] = useState(false)
  return (
    <div className={classes.made}>
      {missing.length > 0 && (
        <ul role="alert">
          {missing.map((part) => (
            <li key={JSON.stringify(part)}>{missingWords(part)}</li>
          ))}
        </ul>
      )}
      {outcome && <p role="alert">{outcome}</p>}
      {isKept ? (
        <p role="status">
          {showing.kept}{' '}
          <PageLink href={`/jobs/${job.slug}/kit/cards?model=${encodeURIComponent(unit.model)}`}>
            {showing.read}
          </PageLink>
        </p>
      ) : (
        <Button
          variant={missing.length > 0 ? 'default' : 'filled'}
          loading={pending}
          onClick={() =>
            begin(async () => {
              const own = await keepShownCardAction(yaml)
              const kept = own.ok && joined !== undefined ? await keepShownCardAction(joined) : own
              setKept(kept.ok)
              setOutcome(kept.ok ? undefined : sentence(kept.told))
            })
          }
        >
          {isAdded ? showing.add : showing.keep}
        </Button>
      )}
      <details>
        <summary>YAML</summary>
        <pre className="mono">{yaml}</pre>
        {joined !== undefined && <pre className="mono">{joined}</pre>}
      </details>
    </div>
  )
}
