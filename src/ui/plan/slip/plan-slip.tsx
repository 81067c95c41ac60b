'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { lockChannelAction } from '../../../actions/plan-actions'
import type { Unit } from '../../../core/kit/unit'
import type { RadioPlan } from '../../../core/radio/channels/radio-plan'
import { radioId } from '../../../core/radio/channels/radio-request'
import type { Band } from '../../../core/regulatory/blocks'
import { reasonSentences } from '../../../words/en/explained'
import { sentence } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import { useOrder } from '../../live/use-order'
import { ChangedNote } from '../../slip/changed-note'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { PlaceFields } from './place-fields'
import { PowerSum } from './power-sum'

/** The selected unit: why it has its channels, how its power is worked out, where it hangs. */
export function PlanSlip({ unit }: { unit: Unit }) {
  const { plans, site } = usePlan()
  const plan = plans.get(unit.id)
  const placed = site.placements.some((placement) => placement.unit === unit.id)
  return (
    <aside
      id="slip"
      tabIndex={-1}
      className={`${sheet.sheet} ${sheet.pad} ${classes.slip}`}
      aria-label={`Slip of ${unit.name}`}
    >
      <div>
        <b className={classes.slipName}>{unit.name}</b> <span className="soft">{unit.location}</span>
        <div className="soft">
          {unit.model}, <span className="mono">{plan?.address ?? 'no address'}</span>
        </div>
      </div>
      <ChangedNote unit={unit.id} />
      <PlaceFields unit={unit.id} />
      {!placed && <p className="soft">It hangs on no floor yet: whom it hears is taken from the order of the list.</p>}
      {plan?.radios.map((radio) => (
        <RadioReasons key={radio.band} unit={unit} radio={radio} />
      ))}
      {!plan && <Unplanned unit={unit} />}
      {plan && plan.radios.length === 0 && <p className="soft">It has no radio to plan.</p>}
    </aside>
  )
}

/** No plan: what is wrong, and the locks that may be the cause. */
function Unplanned({ unit }: { unit: Unit }) {
  const { job, before, planFaults } = useJob()
  const own = planFaults.find((each) => each.unit === unit.id)
  const { order, pending } = useOrder()
  const locks = Object.entries(before.get(unit.id)?.locks ?? {}) as [Band, number][]
  return (
    <div>
      <p className={sheet.fault}>It has no plan. {own ? sentence(own) : 'What is wrong stands above.'}</p>
      {locks.map(([band, channel]) => (
        <Button
          key={band}
          variant="default"
          size="compact-sm"
          disabled={pending}
          onClick={() => order(() => lockChannelAction(job.slug, unit.id, band, null))}
        >
          Let {channel} go at {band} GHz
        </Button>
      ))}
    </div>
  )
}

function RadioReasons({ unit, radio }: { unit: Unit; radio: RadioPlan }) {
  const { job, units, before } = useJob()
  const { live } = usePlan()
  const { order, pending, fault } = useOrder()
  const [typed, setTyped] = useState('')
  const reason = live?.reasons.get(radioId(unit.id, radio.band))
  const names = new Map(units.map((each) => [radioId(each.id, radio.band), each.name]))
  const lock = (channel: number | null) => order(() => lockChannelAction(job.slug, unit.id, radio.band, channel))
  const locked = before.get(unit.id)?.locks[radio.band]
  const quiet = reason?.withoutRadar
  return (
    <section className={classes.radio}>
      <b>
        {radio.band} GHz: channel {radio.channel}, {radio.width} MHz, {radio.power.set} dBm
      </b>
      {radio.narrowedFrom !== null && (
        <p>
          Narrowed from {radio.narrowedFrom} to {radio.width} MHz: at full width it would share the air with more of
          those whom it hears.
        </p>
      )}
      {reason &&
        reasonSentences(reason, radio.channel, (id) => names.get(id) ?? id).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      <div className={classes.acts}>
        {locked === undefined ? (
          <Button variant="default" size="compact-sm" disabled={pending} onClick={() => lock(radio.channel)}>
            Lock {radio.channel}
          </Button>
        ) : (
          <Button variant="default" size="compact-sm" disabled={pending} onClick={() => lock(null)}>
            Let {locked} go
          </Button>
        )}
        {quiet && (
          <Button variant="default" size="compact-sm" disabled={pending} onClick={() => lock(quiet.option.channel)}>
            Use {quiet.option.channel}
          </Button>
        )}
        <form
          className={classes.inline}
          onSubmit={(event) => {
            event.preventDefault()
            if (/^\d+$/.test(typed)) lock(Number(typed))
            setTyped('')
          }}
        >
          <input
            className="mono"
            aria-label={`Another channel at ${radio.band} GHz`}
            placeholder="other"
            inputMode="numeric"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
        </form>
      </div>
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
      <PowerSum power={radio.power} />
    </section>
  )
}
