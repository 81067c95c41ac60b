'use client'
import { CopyButton } from '@mantine/core'
import { useLocalStorage } from '@mantine/hooks'
import { useEffect, useMemo, useRef, useState } from 'react'
import { seeToByHand } from '../../actions/muster-actions'
import { secretName } from '../../core/brief/brief'
import { settingOf } from '../../core/catalogue/catalogue'
import { askingWithMarks } from '../../core/config/asked'
import { valueWords } from '../../core/config/compare'
import { expectedOf, type SettingOutcome, type Spoken, spokenOf } from '../../core/config/outcomes'
import { keyText } from '../../core/config/unit-config'
import { type ByHand, doneByHand, outcomesNow } from '../../core/handover/as-built'
import { isManaged } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { inWorkingOrder, typedText } from '../../core/showing/put-in'
import type { Hand, Told } from '../../core/showing/window-talk'
import { outcomeNames, settingWords } from '../../words/en/outcomes'
import { sentence } from '../../words/en/sentence'
import { shownOf, wasShown } from '../../words/en/showing'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import { OutcomeMark } from '../slip/outcome-mark'
import sheet from '../theme/sheet.module.css'
import classes from './window.module.css'

interface ToBeProps {
  readonly unit: Unit
  /** Settings that were shown so far; undefined while nothing is shown. */
  readonly shownSoFar: ReadonlySet<string> | undefined
  /** What the field that was entered last is likely to be of. */
  readonly likely: Extract<Told, { kind: 'likely' }> | undefined
  readonly act: ((hand: Hand) => void) | undefined
}

/** All that a unit is to be, in the order that keeps an installer out of trouble; each value goes into its field. */
export function ToBe({ unit, shownSoFar, likely, act }: ToBeProps) {
  const { asking, roll } = useJob()
  const row = roll.rows.get(unit.id)
  const [at, setAt] = useState<string>()
  const [followed, setFollowed] = useState(likely)
  // Each field that is entered opens its value; hands may open another.
  if (likely !== followed) {
    setFollowed(likely)
    setAt(likely && keyText(likely))
  }
  const settings = useMemo(() => {
    const of = askingWithMarks(asking, unit)
    if (!of) return []
    const outcomes = new Map(outcomesNow(expectedOf(of), row).map((each) => [keyText(each), each]))
    return inWorkingOrder(spokenOf(of)).flatMap((spoken) => {
      const setting = outcomes.get(keyText(spoken))
      return setting && setting.outcome.kind !== 'not-for-it' ? [{ spoken, setting }] : []
    })
  }, [asking, unit, row])
  const isSeenTo = ({ setting }: (typeof settings)[number]): boolean =>
    setting.outcome.kind === 'proven' || doneByHand(setting, row) !== undefined
  return (
    <section className={`${sheet.sheet} ${classes.toBe}`} aria-label="What it is to be">
      <h2>
        What it is to be{' '}
        <span className="soft">
          {shownSoFar
            ? shownOf(settings.filter(({ spoken }) => shownSoFar.has(keyText(spoken))).length, settings.length)
            : `${settings.filter(isSeenTo).length} of ${settings.length}`}
        </span>
      </h2>
      <FactoryLogin unit={unit} act={act} />
      {settings.length === 0 && <p className="soft">Nothing is planned for it yet.</p>}
      <ol>
        {settings.map(({ spoken, setting }) => (
          <Item
            key={keyText(spoken)}
            unit={unit.id}
            each={spoken}
            setting={setting}
            done={doneByHand(setting, row)}
            isShown={shownSoFar?.has(keyText(spoken)) === true}
            isHere={at === keyText(spoken)}
            here={() => setAt(keyText(spoken))}
            act={act}
          />
        ))}
      </ol>
    </section>
  )
}

/** What it lets in out of its box, where its card says so. */
function FactoryLogin({ unit, act }: { unit: Unit; act: ((hand: Hand) => void) | undefined }) {
  const { cards, secretTimes } = useJob()
  const card = cards.get(unit.model)
  const isOnLabel = secretTimes.has(secretName.labelPassword(unit.mac))
  if (!card || isManaged(card)) return null
  const { user, password } = card.factory.login
  if (user === '' && password === '' && !isOnLabel) return null
  const putIn = (text: string) => () => act?.({ kind: 'text', text })
  return (
    <div className={classes.acts}>
      <span>
        Out of its box <b className="mono">{user}</b>, <b className="mono">{isOnLabel ? '••••••••' : password}</b>
      </span>
      <button type="button" disabled={!act} onClick={putIn(user)}>
        Put in the name
      </button>
      <button
        type="button"
        disabled={!act}
        onClick={isOnLabel ? () => act?.({ kind: 'put-in-label' }) : putIn(password)}
      >
        Put in the password
      </button>
    </div>
  )
}

interface ItemProps {
  readonly unit: string
  readonly each: Spoken
  readonly setting: SettingOutcome
  readonly done: ByHand | undefined
  readonly isShown: boolean
  readonly isHere: boolean
  readonly here: () => void
  readonly act: ((hand: Hand) => void) | undefined
}

function Item({ unit, each, setting, done, isShown, isHere, here, act }: ItemProps) {
  const { id, of } = each
  const isSecret = settingOf(id).secret === true
  const text = typedText(each)
  const line = useRef<HTMLLIElement>(null)
  useEffect(() => {
    if (isHere) line.current?.scrollIntoView({ block: 'nearest' })
  }, [isHere])
  return (
    <li ref={line} data-here={isHere} data-setting={id}>
      <button type="button" className={classes.setting} aria-expanded={isHere} onClick={here}>
        <OutcomeMark kind={done ? 'proven' : setting.outcome.kind} />{' '}
        <span className="visually-hidden">{done ? 'seen to' : outcomeNames[setting.outcome.kind]}: </span>
        {settingWords(each)} <b className={text === undefined || isSecret ? '' : 'mono'}>{shown(each, isSecret)}</b>
        {isShown && <span className="soft"> {wasShown}</span>}
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
          {setting.outcome.kind === 'by-hand' && <SeenTo unit={unit} setting={setting} done={done} />}
          <span className="soft">
            {text === undefined ? 'chosen or ticked on its page' : 'goes into the field that has the focus'}
          </span>
        </div>
      )}
    </li>
  )
}

/** What no muster sets is ticked off by a person with a name. */
function SeenTo({ unit, setting, done }: { unit: string; setting: SettingOutcome; done: ByHand | undefined }) {
  const { job } = useJob()
  const { order, pending, fault } = useOrder()
  const [who, setWho] = useLocalStorage({ key: 'air-muster-name', defaultValue: '' })
  const { id, of, asked } = setting
  const see = (is: 'yes' | 'no'): void =>
    order(() => seeToByHand(job.slug, { unit, settings: [{ id, of, asked }], who: who.trim() || 'somebody', done: is }))
  return (
    <>
      {!done && (
        <input
          aria-label="Your name"
          placeholder="your name"
          size={10}
          maxLength={60}
          value={who}
          onChange={(event) => setWho(event.currentTarget.value)}
        />
      )}
      <button type="button" disabled={pending || (!done && who.trim() === '')} onClick={() => see(done ? 'no' : 'yes')}>
        {done ? 'Not done after all' : 'Done'}
      </button>
      {done && <span>seen to by {done.who}</span>}
      {fault && <span className={sheet.fault}>{sentence(fault.told)}</span>}
    </>
  )
}

function shown({ id, value }: Spoken, isSecret: boolean): string {
  if (isSecret) return '••••••••'
  return valueWords(id, value)
}
