'use client'
import { type FormEvent, useState } from 'react'
import { heardNetworkSchema } from '../../../core/radio/propagation/floor'
import { blockOf } from '../../../core/regulatory/blocks'
import { sentenceOfText } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { ScanField } from './scan-field'

/** Networks of others, as heard on the site: they stay where they are, and the plan gives way. */
export function HeardNetworks() {
  const { job, units } = useJob()
  const { site, change } = usePlan()
  const [fault, setFault] = useState<string>()
  const add = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = event.currentTarget
    const fields = new FormData(form)
    const unit = String(fields.get('unit'))
    const parsed = heardNetworkSchema.safeParse({
      ssid: String(fields.get('ssid')),
      unit: unit === '' ? null : unit,
      band: fields.get('band'),
      channel: Number(fields.get('channel')),
      width: Number(fields.get('width')),
      dbm: -Math.abs(Number(fields.get('dbm'))),
    })
    if (!parsed.success) {
      setFault(`${parsed.error.issues[0]?.path.join('')}: ${sentenceOfText(parsed.error.issues[0]?.message ?? '')}`)
      return
    }
    const { band, channel, width } = parsed.data
    if (!blockOf(band, channel, width)) {
      setFault(`There is no channel ${channel} of ${width} MHz at ${band} GHz.`)
      return
    }
    setFault(undefined)
    change((before) => ({ ...before, heard: [...before.heard, parsed.data] }))
    form.reset()
  }
  return (
    <section className={classes.bandPart}>
      <h2>
        Networks of neighbours <span className="soft">they stay where they are, and the plan gives way</span>
      </h2>
      {site.heard.length > 0 && (
        <table className={sheet.table}>
          <tbody>
            {site.heard.map((each, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same network may be heard twice alike
              <tr key={index}>
                <td>{each.ssid || 'no name'}</td>
                <td>
                  {each.band} GHz, channel <span className="mono">{each.channel}</span>, {each.width} MHz
                  {each.secondary && `, second channel ${each.secondary}`}
                </td>
                <td className="mono">{each.dbm} dBm</td>
                <td className="soft">
                  {each.unit === null
                    ? 'everywhere'
                    : `at ${units.find((unit) => unit.id === each.unit)?.name ?? each.unit}`}
                </td>
                <td>
                  <button
                    type="button"
                    className={classes.quiet}
                    onClick={() =>
                      change((before) => ({ ...before, heard: before.heard.filter((_, at) => at !== index) }))
                    }
                  >
                    Take off
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form className={classes.row} onSubmit={add}>
        <input name="ssid" aria-label="Name of the network" placeholder="name" maxLength={32} />
        <select name="band" aria-label="Band of the network" defaultValue="5">
          {job.brief.radio.bands.map(({ band }) => (
            <option key={band} value={band}>
              {band} GHz
            </option>
          ))}
        </select>
        <input
          name="channel"
          aria-label="Channel of the network"
          placeholder="channel"
          inputMode="numeric"
          required
          size={6}
        />
        <select name="width" aria-label="Width of the network" defaultValue="20">
          {[20, 40, 80, 160].map((width) => (
            <option key={width} value={width}>
              {width} MHz
            </option>
          ))}
        </select>
        <input name="dbm" aria-label="Level of the network, dBm" placeholder="-75 dBm" required size={7} />
        <select name="unit" aria-label="Where it is heard" defaultValue="">
          <option value="">everywhere</option>
          {units.map((unit) => (
            <option key={unit.id} value={unit.id}>
              at {unit.name}
            </option>
          ))}
        </select>
        <button type="submit">Add it</button>
      </form>
      {fault && <p className={sheet.fault}>{fault}</p>}
      <ScanField />
    </section>
  )
}
