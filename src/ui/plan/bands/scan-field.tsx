'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { asText } from '../../../core/message/message'
import { readScan, type Scan } from '../../../core/radio/survey/scan'
import { sentence } from '../../../words/en/sentence'
import { PastedText } from '../../frame/pasted-text'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'

const scanHelp =
  'Paste what iw dev wlan0 scan -u prints (-u tells the widths at 6 GHz), or a table with ssid, band, ' +
  'channel, width, secondary, dbm; or drop the file here.'

/** Networks of others out of a scan that was pasted or dropped: read at once, and added when somebody says yes. */
export function ScanField() {
  const { job, units } = useJob()
  const { change } = usePlan()
  const [text, setText] = useState('')
  const [unit, setUnit] = useState('')
  const own = new Set(job.brief.networks.map(({ ssid }) => ssid))
  const scan: Scan | undefined = text.trim() === '' ? undefined : readScan(text, unit === '' ? null : unit)
  // What the job itself puts on air is nobody else's.
  const fresh = scan?.networks.filter(({ ssid }) => !own.has(ssid)) ?? []
  const add = () => {
    const key = (each: (typeof fresh)[number]): string =>
      JSON.stringify([each.ssid, each.unit, each.band, each.channel, each.width])
    const keys = new Set(fresh.map(key))
    change((before) => ({ ...before, heard: [...before.heard.filter((each) => !keys.has(key(each))), ...fresh] }))
    setText('')
  }
  return (
    <div>
      <PastedText label="A scan" description={scanHelp} text={text} onText={setText} />
      {scan && (
        <p className={classes.row}>
          <span>
            {fresh.length} {fresh.length === 1 ? 'network' : 'networks'} of others
            {scan.faint > 0 && `, ${scan.faint} too faint to matter`}
          </span>
          <select
            aria-label="Where the scan was made"
            value={unit}
            onChange={(event) => setUnit(event.currentTarget.value)}
          >
            <option value="">heard everywhere</option>
            {units.map((each) => (
              <option key={each.id} value={each.id}>
                heard at {each.name}
              </option>
            ))}
          </select>
          <Button size="compact-sm" disabled={fresh.length === 0} onClick={add}>
            Add {fresh.length === 1 ? 'it' : 'them'}
          </Button>
        </p>
      )}
      {scan?.faults.slice(0, 5).map((fault) => (
        <p key={asText(fault)} className={sheet.fault}>
          {sentence(fault)}
        </p>
      ))}
    </div>
  )
}
