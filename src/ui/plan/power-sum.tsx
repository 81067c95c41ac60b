'use client'
import type { PowerSum as Sum } from '../../core/radio/power'
import { useJob } from '../live/job-provider'
import classes from './plan.module.css'

/** Power as a sum that the installer can check. */
export function PowerSum({ power }: { power: Sum }) {
  const { countryName } = useJob()
  const lines: readonly (readonly [string, string])[] = [
    [`Limit in ${countryName}`, `${power.limit.toFixed(1)} dBm EIRP`],
    ['less antenna gain', `-${power.gain.toFixed(1)} dB`],
    ['its radio at most', `${power.most.toFixed(1)} dBm`],
    ['wanted, to match phones', `${power.target.toFixed(1)} dBm`],
  ]
  return (
    <table className={classes.sum}>
      <tbody>
        {lines.map(([words, value]) => (
          <tr key={words}>
            <td>{words}</td>
            <td className="mono">{value}</td>
          </tr>
        ))}
        <tr>
          <td>set, a step of the model</td>
          <td className="mono">
            <b>{power.set.toFixed(1)} dBm</b>
          </td>
        </tr>
      </tbody>
    </table>
  )
}
