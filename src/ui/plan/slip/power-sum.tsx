'use client'
import type { PowerSum as Sum } from '../../../core/radio/channels/power'
import { useJob } from '../../live/job-provider'
import classes from '../state/plan.module.css'

/** Power as a sum that the installer can check. */
export function PowerSum({ power }: { power: Sum }) {
  const { countryName } = useJob()
  const isEirp = power.limitOf === 'eirp'
  const chains = power.chainsDb > 0
  const left = power.limit - power.off - power.chainsDb
  const lines: readonly (readonly [string, string])[] = [
    [`Limit in ${countryName}`, `${power.limit.toFixed(1)} dBm ${isEirp ? 'EIRP' : 'conducted'}`],
    [
      isEirp ? 'less antenna gain' : `less what its ${power.gain.toFixed(1)} dBi are above the allowance`,
      `-${power.off.toFixed(1)} dB`,
    ],
    ...(chains ? [['less its chains together', `-${power.chainsDb.toFixed(1)} dB`] as const] : []),
    ['leaves', `${left.toFixed(1)} dBm`],
    ['its radio at most', `${power.most.toFixed(1)} dBm`],
    ['wanted, to match phones', `${(power.target - power.chainsDb).toFixed(1)} dBm`],
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
          <td>set, a step of the model{chains ? ', each chain' : ''}</td>
          <td className="mono">
            <b>{power.set.toFixed(1)} dBm</b>
          </td>
        </tr>
      </tbody>
    </table>
  )
}
