'use client'
import { type FormEvent, useState } from 'react'
import { measuredLevelSchema, type Site } from '../../../core/radio/propagation/floor'
import { samePair } from '../../../core/radio/survey/measured'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { MeasuredTable } from './measured-table'
import { MisfitNote } from './misfit-note'

/** What one unit hears of another, measured: it stands for what places and walls would give. */
export function MeasuredLevels() {
  const { job, units } = useJob()
  const { site, live, change } = usePlan()
  const [fault, setFault] = useState<string>()
  const nameOf = (id: string): string => units.find((unit) => unit.id === id)?.name ?? id
  const besideModel = (level: Site['measured'][number]): string => {
    const residuals = live?.misfits.find(({ band }) => band === level.band)?.residuals ?? []
    const found = residuals.find((each) => samePair({ ...each, band: level.band }, level))
    return found ? `by the model ${found.modelDbm.toFixed(0)} dBm, ${found.metres.toFixed(0)} m apart` : ''
  }
  const add = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = event.currentTarget
    const fields = new FormData(form)
    const parsed = measuredLevelSchema.safeParse({
      a: fields.get('a'),
      b: fields.get('b'),
      band: fields.get('band'),
      dbm: -Math.abs(Number(fields.get('dbm'))),
    })
    if (!parsed.success || parsed.data.a === parsed.data.b) {
      setFault(
        parsed.success ? 'A unit does not hear itself: choose two.' : 'A level is a number of dBm from -120 to 0.',
      )
      return
    }
    setFault(undefined)
    change((before) => ({
      ...before,
      measured: [...before.measured.filter((each) => !samePair(each, parsed.data)), parsed.data],
    }))
    form.reset()
  }
  if (units.length < 2) return null
  return (
    <section className={classes.bandPart}>
      <h2>
        Measured levels <span className="soft">they stand for what places and walls would give</span>
      </h2>
      {site.measured.length > 0 && (
        <table className={sheet.table}>
          <tbody>
            {site.measured.map((each) => (
              <tr key={`${each.a} ${each.b} ${each.band}`}>
                <td>
                  <b>{nameOf(each.a)}</b> and <b>{nameOf(each.b)}</b>
                </td>
                <td>{each.band} GHz</td>
                <td className="mono">{each.dbm} dBm</td>
                <td className="soft">{besideModel(each)}</td>
                <td>
                  <button
                    type="button"
                    className={classes.quiet}
                    onClick={() =>
                      change((before) => ({ ...before, measured: before.measured.filter((one) => one !== each) }))
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
        {(['a', 'b'] as const).map((name) => (
          <select
            key={name}
            name={name}
            aria-label={name === 'a' ? 'One unit' : 'The other unit'}
            defaultValue={units[name === 'a' ? 0 : 1]?.id}
          >
            {units.map((unit) => (
              <option key={unit.id} value={unit.id}>
                {unit.name}
              </option>
            ))}
          </select>
        ))}
        <select name="band" aria-label="Band that was measured" defaultValue="5">
          {job.brief.radio.bands.map(({ band }) => (
            <option key={band} value={band}>
              {band} GHz
            </option>
          ))}
        </select>
        <input name="dbm" aria-label="Measured level, dBm" placeholder="-78 dBm" required size={7} />
        <button type="submit">Add it</button>
      </form>
      {fault && <p className={sheet.fault}>{fault}</p>}
      <MeasuredTable />
      <MisfitNote />
    </section>
  )
}
