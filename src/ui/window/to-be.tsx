'use client'
import { CopyButton } from '@mantine/core'
import { useMemo, useState } from 'react'
import { askingWithMarks } from '../../core/config/asked'
import { valueWords } from '../../core/config/compare'
import { type Spoken, spokenOf } from '../../core/config/outcomes'
import { settingOf } from '../../core/config/settings/settings'
import { keyText } from '../../core/config/unit-config'
import { settingWords } from '../../core/handover/outcome-words'
import { isManaged } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { inWorkingOrder, typedText } from '../../core/showing/put-in'
import type { Hand } from '../../core/showing/window-talk'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import classes from './window.module.css'

/** All that a unit is to be, in the order that keeps an installer out of trouble; each value can be put into its field. */
export function ToBe({ unit, act }: { unit: Unit; act: ((hand: Hand) => void) | undefined }) {
  const { asking } = useJob()
  const [at, setAt] = useState<string>()
  const settings = useMemo(() => {
    const of = askingWithMarks(asking, unit)
    return of ? inWorkingOrder(spokenOf(of)).filter(({ outcome }) => outcome.kind !== 'not-for-it') : []
  }, [asking, unit])
  return (
    <section className={`${sheet.sheet} ${classes.toBe}`} aria-label="What it is to be">
      <h2>
        What it is to be <span className="soft">{settings.length} settings</span>
      </h2>
      <FactoryLogin unit={unit} act={act} />
      {settings.length === 0 && <p className="soft">Nothing is planned for it yet.</p>}
      <ol>
        {settings.map((each) => (
          <Item
            key={keyText(each)}
            each={each}
            isHere={at === keyText(each)}
            here={() => setAt(keyText(each))}
            act={act}
          />
        ))}
      </ol>
    </section>
  )
}

/** What it lets in out of its box, where its card says so. */
function FactoryLogin({ unit, act }: { unit: Unit; act: ((hand: Hand) => void) | undefined }) {
  const card = useJob().cards.get(unit.model)
  if (!card || isManaged(card)) return null
  const { user, password } = card.factory.login
  const putIn = (text: string) => () => act?.({ kind: 'text', text })
  return (
    <div className={classes.acts}>
      <span>
        Out of its box <b className="mono">{user}</b>, <b className="mono">{password}</b>
      </span>
      <button type="button" disabled={!act} onClick={putIn(user)}>
        Put in the name
      </button>
      <button type="button" disabled={!act} onClick={putIn(password)}>
        Put in the password
      </button>
    </div>
  )
}

interface ItemProps {
  readonly each: Spoken
  readonly isHere: boolean
  readonly here: () => void
  readonly act: ((hand: Hand) => void) | undefined
}

function Item({ each, isHere, here, act }: ItemProps) {
  const { id, of } = each
  const isSecret = settingOf(id).secret === true
  const text = typedText(each)
  return (
    <li data-here={isHere} data-setting={id}>
      <button type="button" className={classes.setting} aria-expanded={isHere} onClick={here}>
        {settingWords(each)} <b className={text === undefined || isSecret ? '' : 'mono'}>{shown(each, isSecret)}</b>
      </button>
      {isHere && (
        <div className={classes.acts}>
          {text !== undefined && (
            <button type="button" disabled={!act} onClick={() => act?.({ kind: 'put-in', id, of })}>
              Put in
            </button>
          )}
          {text !== undefined && !isSecret && (
            <CopyButton value={text}>
              {({ copied, copy }) => (
                <button type="button" onClick={copy}>
                  {copied ? 'Copied' : 'Copy'}
                </button>
              )}
            </CopyButton>
          )}
          <span className="soft">
            {text === undefined ? 'chosen or ticked on its page' : 'goes into the field that has the focus'}
          </span>
        </div>
      )}
    </li>
  )
}

function shown({ id, value }: Spoken, isSecret: boolean): string {
  if (isSecret) return '••••••••'
  return valueWords(id, value)
}
