import { Button } from '@mantine/core'
import { useState } from 'react'
import { askingWithMarks } from '../../core/config/asked'
import { spokenOf } from '../../core/config/outcomes'
import { keyText } from '../../core/config/unit-config'
import type { Unit } from '../../core/kit/unit'
import type { Hand, Told } from '../../core/showing/window-talk'
import { readBackWords, rehearsalFaultWords, settingName, showing } from '../../words/en/showing'
import { useJob } from '../live/job-provider'
import classes from './window.module.css'

interface RehearsalProps {
  readonly unit: Unit
  readonly rehearsed: Extract<Told, { kind: 'rehearsed' }> | undefined
  readonly act: ((hand: Hand) => void) | undefined
}

/** The card of its model, tried on a unit that hands have set. */
export function Rehearsal({ unit, rehearsed, act }: RehearsalProps) {
  const { cards, asking } = useJob()
  /** What was told when it was asked for last: until something else is, it is being read. */
  const [askedAt, setAskedAt] = useState<{ told: RehearsalProps['rehearsed'] }>()
  const isRead = askedAt === undefined || askedAt.told !== rehearsed
  if (cards.get(unit.model)?.dialect.kind !== 'pages') return null
  const of = askingWithMarks(asking, unit)
  const names = new Map((of ? spokenOf(of) : []).map((each) => [keyText(each), each.name]))
  const read = rehearsed?.read ?? []
  const count = (result: (typeof read)[number]['result']): number =>
    read.filter((each) => each.result === result).length
  return (
    <div className={classes.made}>
      <p className="soft">{showing.rehearseWhy}</p>
      <div className={classes.acts}>
        <Button
          variant="default"
          disabled={!act}
          loading={!isRead}
          onClick={() => {
            setAskedAt({ told: rehearsed })
            act?.({ kind: 'rehearse' })
          }}
        >
          {showing.rehearse}
        </Button>
      </div>
      {rehearsed?.fault && <p role="alert">{rehearsalFaultWords(rehearsed.fault)}</p>}
      {read.length > 0 && (
        <>
          <p role="status">
            {(['as-asked', 'otherwise', 'not-readable'] as const)
              .map((result) => `${count(result)} ${readBackWords[result]}`)
              .join(', ')}
            .
          </p>
          <ul>
            {read
              .filter(({ result }) => result !== 'as-asked')
              .map((each) => (
                <li key={keyText(each)} data-result={each.result}>
                  {settingName(each.id)}
                  {names.get(keyText(each)) ? `, ${names.get(keyText(each))}` : ''}: {readBackWords[each.result]}
                  {each.seen ? ` (${each.seen})` : ''}
                </li>
              ))}
          </ul>
        </>
      )}
    </div>
  )
}
