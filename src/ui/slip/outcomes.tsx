'use client'
import { Button, TextInput } from '@mantine/core'
import { useLocalStorage } from '@mantine/hooks'
import { useMemo } from 'react'
import { seeToByHand } from '../../actions/muster-actions'
import { askingWithMarks } from '../../core/config/asked'
import { expectedOf, type SettingOutcome } from '../../core/config/outcomes'
import { keyText } from '../../core/config/unit-config'
import { type ByHand as ByHandDone, doneByHand, outcomesNow } from '../../core/handover/as-built'
import type { Unit } from '../../core/kit/unit'
import { outcomeNames, settingWords } from '../../words/en/outcomes'
import { sentence } from '../../words/en/sentence'
import { outcomeKinds } from '../../words/sheet-words'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { OutcomeMark } from './outcome-mark'
import classes from './outcomes.module.css'

/** What became of each setting of one unit; before it is mustered, what can be foreseen. */
export function Outcomes({ unit }: { unit: Unit }) {
  const { asking, roll } = useJob()
  const row = roll.rows.get(unit.id)
  const outcomes = useMemo(() => {
    const of = askingWithMarks(asking, unit)
    return of ? outcomesNow(expectedOf(of), row) : []
  }, [asking, unit, row])
  if (outcomes.length === 0) return null
  return (
    <div>
      <b>Settings</b>
      {outcomeKinds.map((kind) => {
        const those = outcomes.filter(({ outcome }) => outcome.kind === kind)
        if (those.length === 0) return null
        return (
          <details key={kind} className={classes.group} open={kind === 'by-hand' || undefined}>
            <summary>
              {those.length} {outcomeNames[kind]}
            </summary>
            {kind === 'by-hand' ? (
              <ByHand unit={unit.id} settings={those} />
            ) : (
              <ul className={classes.list}>
                {those.map((each) => (
                  <li key={keyText(each)}>
                    <OutcomeMark kind={kind} />
                    <span>
                      {settingWords(each)} <span className="soft">{detail(each)}</span>
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </details>
        )
      })}
    </div>
  )
}

function detail({ outcome, asked }: SettingOutcome): string {
  if (outcome.kind === 'proven') return outcome.value
  return outcome.kind === 'not-for-it' || outcome.kind === 'by-hand' ? sentence(outcome.why) : asked
}

const whyByHand = ({ outcome }: SettingOutcome): string => (outcome.kind === 'by-hand' ? sentence(outcome.why) : '')

/** What somebody's hands have to set, ticked off by a person with a name. */
function ByHand({ unit, settings }: { unit: string; settings: readonly SettingOutcome[] }) {
  const { job, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const [who, setWho] = useLocalStorage({ key: 'air-muster-name', defaultValue: '' })
  const row = roll.rows.get(unit)
  const left = settings.filter((each) => !doneByHand(each, row))
  // Where all of them have one reason, it is said once.
  const reasons = new Set(settings.map(whyByHand))
  const shared = settings.length > 1 && reasons.size === 1 ? [...reasons][0] : undefined
  const see = (those: readonly SettingOutcome[], done: 'yes' | 'no', name: string): void => {
    order(() =>
      seeToByHand(job.slug, { unit, settings: those.map(({ id, of, asked }) => ({ id, of, asked })), who: name, done }),
    )
  }
  return (
    <>
      {shared !== undefined && <p className="soft">{shared}</p>}
      <TextInput
        className={classes.who ?? ''}
        label="Your name, beside what you see to"
        value={who}
        maxLength={60}
        onChange={(event) => setWho(event.currentTarget.value)}
      />
      {left.length > 1 && (
        <Button
          size="compact-sm"
          variant="default"
          disabled={pending || who.trim() === ''}
          onClick={() => see(left, 'yes', who.trim())}
        >
          All {left.length} are done
        </Button>
      )}
      <ul className={classes.list}>
        {settings.map((each) => (
          <ByHandLine
            key={keyText(each)}
            setting={each}
            why={shared === undefined ? whyByHand(each) : ''}
            done={doneByHand(each, row)}
            disabled={pending || (!doneByHand(each, row) && who.trim() === '')}
            press={(done) => see([each], done, who.trim() || 'somebody')}
          />
        ))}
      </ul>
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
    </>
  )
}

interface LineProps {
  readonly setting: SettingOutcome
  /** Why it is set by hand; empty where that is said elsewhere. */
  readonly why: string
  readonly done: ByHandDone | undefined
  readonly disabled: boolean
  readonly press: (done: 'yes' | 'no') => void
}

function ByHandLine({ setting, why, done, disabled, press }: LineProps) {
  const { outcome } = setting
  return (
    <li>
      <OutcomeMark kind={done ? 'proven' : 'by-hand'} />
      <span>
        {settingWords(setting)}
        {outcome.kind === 'by-hand' && (
          <p>
            {sentence(outcome.hands)} {why}
          </p>
        )}
        {done && (
          <p suppressHydrationWarning>
            Seen to by {done.who},{' '}
            {new Date(done.at).toLocaleString('en-GB', { timeStyle: 'short', dateStyle: 'medium' })}
          </p>
        )}
        <Button size="compact-xs" variant="default" disabled={disabled} onClick={() => press(done ? 'no' : 'yes')}>
          {done ? 'Not done after all' : 'Done'}
        </Button>
      </span>
    </li>
  )
}
