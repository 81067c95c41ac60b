'use client'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'

/** Power as a sum that the installer can check, for each radio of the selected unit. */
export function PowerSums() {
  const { units, plans, countryName, selected } = useJob()
  const unit = units.find((each) => each.id === selected)
  const plan = unit && plans.get(unit.id)
  return (
    <aside id="slip" tabIndex={-1} className={`${sheet.sheet} ${sheet.pad}`} aria-label="Slip">
      {!plan && <p className="soft">Select a unit to see how its power is worked out.</p>}
      {plan?.radios.map(({ band, power, channel }) => {
        const lines: readonly (readonly [string, string])[] = [
          [`EIRP limit, ${countryName}`, `${power.limit.toFixed(1)} dBm`],
          ['less antenna gain', `-${power.gain.toFixed(1)} dB`],
          ['its radio at most', `${power.most.toFixed(1)} dBm`],
          ['wanted, to match phones', `${power.target.toFixed(1)} dBm`],
          ['set, a step of the model', `${power.set.toFixed(1)} dBm`],
        ]
        return (
          <section key={band}>
            <b>
              {unit?.name}, {band} GHz, channel {channel}
            </b>
            <table className={sheet.table}>
              <tbody>
                {lines.map(([words, value]) => (
                  <tr key={words}>
                    <td>{words}</td>
                    <td className={`mono ${sheet.number}`}>{value}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )
      })}
    </aside>
  )
}
