'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { removeUnitAction } from '../../app/actions/kit-actions'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './kit.module.css'
import { UnitForm } from './unit-form'

/** What is in the boxes. */
export function KitView() {
  const { job, units, cards, roll, rosterFaults, selected, select } = useJob()
  const { order, pending, fault } = useOrder()
  const [adding, setAdding] = useState<'adding' | 'not'>('not')
  const unit = units.find((each) => each.id === selected)
  const watts = units.reduce((sum, each) => sum + (cards.get(each.model)?.power.watts ?? 0), 0)
  return (
    <div className={sheet.page}>
      <div className={sheet.head}>
        <h1>
          {units.length} {units.length === 1 ? 'unit' : 'units'} on the list
        </h1>
        <span className="soft">{watts.toFixed(1)} W over Ethernet at the most</span>
        <div className={sheet.headRight}>
          <Button
            onClick={() => {
              select(undefined)
              setAdding('adding')
            }}
          >
            Add a unit
          </Button>
        </div>
      </div>
      {rosterFaults.map((each) => (
        <p key={`${each.unit} ${each.field}`} className={sheet.fault}>
          {each.sentence}
        </p>
      ))}
      {fault && <p className={sheet.fault}>{fault.sentence}</p>}
      <div className={sheet.columns}>
        <div className={sheet.sheet}>
          {units.length === 0 && <p className={sheet.pad}>Add the units one by one, with the MAC from each label.</p>}
          {units.length > 0 && (
            <table className={sheet.table}>
              <caption className="visually-hidden">The kit list</caption>
              <thead>
                <tr>
                  <th scope="col">Unit</th>
                  <th scope="col">Place</th>
                  <th scope="col">Model</th>
                  <th scope="col">MAC</th>
                  <th scope="col">Serial</th>
                  <th scope="col">Port</th>
                </tr>
              </thead>
              <tbody>
                {units.map((each) => (
                  <tr
                    key={each.id}
                    tabIndex={0}
                    data-unit={each.id}
                    data-selected={each.id === selected}
                    onClick={() => select(each.id)}
                    onKeyDown={(event) => event.key === 'Enter' && select(each.id)}
                  >
                    <td className={classes.name}>
                      <b>{each.name}</b>
                    </td>
                    <td>{each.place}</td>
                    <td>{each.model}</td>
                    <td className="mono">{each.mac}</td>
                    <td className="mono">{each.serial}</td>
                    <td className="mono">{each.port ?? ''}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
        <aside id="slip" tabIndex={-1} className={`${sheet.sheet} ${sheet.pad}`} aria-label="Slip">
          {unit && (
            <>
              <UnitForm key={`${unit.id} ${unit.version}`} unit={unit} models={[...cards.keys()]} onSaved={() => {}} />
              <Button
                className={classes.remove ?? ''}
                variant="default"
                disabled={pending || roll.muster !== 'idle'}
                onClick={() =>
                  order(async () => {
                    const outcome = await removeUnitAction(job.slug, unit.id)
                    if (outcome.ok) select(undefined)
                    return outcome
                  })
                }
              >
                Take it off the list
              </Button>
            </>
          )}
          {!unit && adding === 'adding' && <UnitForm key="new" models={[...cards.keys()]} onSaved={() => setAdding('not')} />}
          {!unit && adding === 'not' && <p className="soft">Select a unit to change it. Two units may not share a MAC, a name, a serial number or a port.</p>}
        </aside>
      </div>
    </div>
  )
}
