'use client'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import { usePlan } from '../state/plan-context'

/** Every unit with what is planned for it, where there is no floor to show it on. */
export function PlanList() {
  const { job, units, selected, select } = useJob()
  const { plans } = usePlan()
  const bands = job.brief.radio.bands.map(({ band }) => band)
  if (units.length === 0) return null
  return (
    <table className={sheet.table}>
      <thead>
        <tr>
          <th scope="col">Unit</th>
          <th scope="col">Address</th>
          {bands.map((band) => (
            <th key={band} scope="col">
              {band} GHz
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {units.map((unit) => {
          const plan = plans.get(unit.id)
          return (
            <tr
              key={unit.id}
              tabIndex={0}
              data-unit={unit.id}
              data-selected={unit.id === selected}
              aria-selected={unit.id === selected}
              onClick={() => select(unit.id)}
              onKeyDown={(event) => event.key === 'Enter' && select(unit.id)}
            >
              <td>
                <b>{unit.name}</b> <span className="soft">{unit.location}</span>
              </td>
              <td className="mono">{plan?.address ?? 'none yet'}</td>
              {bands.map((band) => {
                const radio = plan?.radios.find((each) => each.band === band)
                return <td key={band}>{radio ? `channel ${radio.channel}, ${radio.width} MHz` : '–'}</td>
              })}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
