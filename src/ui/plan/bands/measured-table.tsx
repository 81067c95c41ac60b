'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { asText } from '../../../core/message/message'
import { readMeasured, samePair } from '../../../core/radio/survey/measured'
import { sentence } from '../../../words/en/sentence'
import { PastedText } from '../../frame/pasted-text'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'

/** Measured levels out of a table that was pasted or dropped: read at once, and taken when somebody says yes. */
export function MeasuredTable() {
  const { units } = useJob()
  const { change } = usePlan()
  const [text, setText] = useState('')
  const read = text.trim() === '' ? undefined : readMeasured(text, units)
  const take = () => {
    const fresh = read?.levels ?? []
    change((before) => ({
      ...before,
      measured: [...before.measured.filter((each) => !fresh.some((one) => samePair(one, each))), ...fresh],
    }))
    setText('')
  }
  return (
    <div>
      <PastedText
        label="A table of levels"
        description="Paste lines with unit, heard, band, dbm, by name or MAC; or drop the file here."
        text={text}
        onText={setText}
      />
      {read && (
        <p className={classes.row}>
          <span>
            {read.levels.length} {read.levels.length === 1 ? 'pair' : 'pairs'}
          </span>
          <Button size="compact-sm" disabled={read.levels.length === 0} onClick={take}>
            Take {read.levels.length === 1 ? 'it' : 'them'}
          </Button>
        </p>
      )}
      {read?.faults.slice(0, 5).map((fault) => (
        <p key={asText(fault)} className={sheet.fault}>
          {sentence(fault)}
        </p>
      ))}
    </div>
  )
}
