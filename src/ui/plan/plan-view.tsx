'use client'
import { Button } from '@mantine/core'
import { planAgain } from '../../app/actions/kit-actions'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { PowerSums } from './power-sums'

/** Address, channels and power of each unit. */
export function PlanView() {
  const { job, units, plans, planFaults, countryName, regulatoryDate, selected, select } = useJob()
  const { order, pending, fault } = useOrder()
  const bands = job.brief.radio.bands.map(({ band }) => band)
  return (
    <div className={sheet.page}>
      <div className={sheet.head}>
        <h1>Addresses, channels and power</h1>
        <span className="soft">
          {countryName}, {job.brief.radio.place}. Radio rules of {regulatoryDate}
        </span>
        <div className={sheet.headRight}>
          <Button disabled={pending} onClick={() => order(() => planAgain(job.slug))}>
            Plan again
          </Button>
        </div>
      </div>
      {[...planFaults.map((each) => each.sentence), ...(fault ? [fault.sentence] : [])].map((sentence) => (
        <p key={sentence} className={sheet.fault}>
          {sentence}
        </p>
      ))}
      <div className={sheet.columns}>
        <div className={sheet.sheet}>
          <table className={sheet.table}>
            <caption className="visually-hidden">The plan</caption>
            <thead>
              <tr>
                <th scope="col">Unit</th>
                <th scope="col">Address</th>
                {bands.map((band) => (
                  <th key={band} scope="col">
                    {band} GHz
                  </th>
                ))}
                <th scope="col">Remark</th>
              </tr>
            </thead>
            <tbody>
              {units.map((unit) => {
                const plan = plans.get(unit.id)
                const radios = plan?.radios ?? []
                const remarks = radios.flatMap((radio) => [
                  ...(radio.radar ? [`channel ${radio.channel} listens for radar first, 60 s`] : []),
                  ...(radio.locked ? [`channel ${radio.channel} locked`] : []),
                ])
                return (
                  <tr
                    key={unit.id}
                    tabIndex={0}
                    data-unit={unit.id}
                    data-selected={unit.id === selected}
                    onClick={() => select(unit.id)}
                    onKeyDown={(event) => event.key === 'Enter' && select(unit.id)}
                  >
                    <td className={sheet.whole}>
                      <b>{unit.name}</b> <span className="soft">{unit.place}</span>
                    </td>
                    <td className="mono">{plan?.address ?? 'none'}</td>
                    {bands.map((band) => {
                      const radio = radios.find((each) => each.band === band)
                      return (
                        <td key={band} className={sheet.whole}>
                          {radio ? (
                            <>
                              <span className="mono">{radio.channel}</span>, {radio.width} MHz, {radio.power.set} dBm
                            </>
                          ) : (
                            'none'
                          )}
                        </td>
                      )
                    })}
                    <td className="soft">{remarks.join('; ')}</td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </div>
        <PowerSums />
      </div>
    </div>
  )
}
