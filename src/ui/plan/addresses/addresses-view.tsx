'use client'
import { Fragment, useState } from 'react'
import { lockAddressAction } from '../../../actions/plan-actions'
import { type AddressedController, vendorOf, vendorOptions } from '../../../core/addressing/vendor-option'
import type { Unit } from '../../../core/kit/unit'
import { sentence } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import { useOrder } from '../../live/use-order'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'

const files = [
  { form: 'kea', words: 'Kea, JSON' },
  { form: 'dnsmasq', words: 'dnsmasq' },
  { form: 'hosts', words: 'Hosts file' },
] as const

/** The address of every unit, with locks, and the files that DHCP servers take. */
export function AddressesView() {
  const { job, units, cards, plans, selected, select } = useJob()
  const { management } = job.brief
  const controllers = units.flatMap((unit): AddressedController[] => {
    const card = cards.get(unit.model)
    const address = plans.get(unit.id)?.address
    return card?.role === 'controller' && address
      ? [{ name: unit.name, mac: unit.mac, address, vendor: vendorOf(card) }]
      : []
  })
  const [serverInterface, setServerInterface] = useState('')
  return (
    <div className={sheet.columns}>
      <div className={sheet.sheet}>
        <table className={sheet.table}>
          <caption className="visually-hidden">Addresses</caption>
          <thead>
            <tr>
              <th scope="col">Unit</th>
              <th scope="col">MAC</th>
              <th scope="col">Address</th>
              <th scope="col">Lock</th>
            </tr>
          </thead>
          <tbody>
            {units.map((unit) => (
              <AddressRow key={unit.id} unit={unit} selected={unit.id === selected} onSelect={() => select(unit.id)} />
            ))}
          </tbody>
        </table>
      </div>
      <aside className={`${sheet.sheet} ${sheet.pad}`} aria-label="Files for DHCP servers">
        <p>
          <b>{management.name}</b> <span className="mono">{management.cidr}</span>
          {management.vlan !== null && `, VLAN ${management.vlan}`}
        </p>
        <p className="soft">
          Addresses are given in the order of the list, controllers first, outside of the DHCP pool. A unit keeps its
          own when the list changes.
        </p>
        <b>Reservations, where the site prefers those</b>
        <p className={classes.row}>
          <label>
            Kea serves on{' '}
            <input
              className="mono"
              size={8}
              placeholder="eth0"
              value={serverInterface}
              onChange={(event) => setServerInterface(event.currentTarget.value.trim())}
            />
          </label>
        </p>
        <ul className={classes.files}>
          {files.map(({ form, words }) => (
            <li key={form}>
              {form === 'kea' && serverInterface === '' ? (
                <span className="soft">{words}: name the interface of its server first</span>
              ) : (
                <a href={`/api/jobs/${job.slug}/addresses/${form}?interface=${encodeURIComponent(serverInterface)}`}>
                  {words}
                </a>
              )}
            </li>
          ))}
        </ul>
        {controllers.length > 0 && (
          <>
            <p className="soft">
              Both also tell access points where their controller is. For another server, the values:
            </p>
            <dl className={classes.options}>
              <dt>Option 138</dt>
              <dd className="mono">{controllers.map((controller) => controller.address).join(', ')}</dd>
              {vendorOptions(controllers).map(({ vendorClass, hex }) => (
                <Fragment key={vendorClass}>
                  <dt>Option 43</dt>
                  <dd className="mono">{hex}</dd>
                  <dt>to option 60</dt>
                  <dd className="mono">{vendorClass}…</dd>
                </Fragment>
              ))}
            </dl>
          </>
        )}
      </aside>
    </div>
  )
}

function AddressRow({ unit, selected, onSelect }: { unit: Unit; selected: boolean; onSelect: () => void }) {
  const { job, plans, before } = useJob()
  const { order, pending, fault } = useOrder()
  const address = plans.get(unit.id)?.address ?? ''
  const locked = before.get(unit.id)?.addressLocked ?? false
  const [typed, setTyped] = useState<string>()
  const lock = (wanted: string | null) =>
    order(async () => {
      const outcome = await lockAddressAction(job.slug, unit.id, wanted)
      if (outcome.ok) setTyped(undefined)
      return outcome
    })
  return (
    <tr data-unit={unit.id} data-selected={selected} onClick={onSelect}>
      <td>
        <b>{unit.name}</b> <span className="soft">{unit.location}</span>
      </td>
      <td className="mono">{unit.mac}</td>
      <td>
        <form
          className={classes.inline}
          onSubmit={(event) => {
            event.preventDefault()
            if (typed !== undefined) lock(typed)
          }}
        >
          <input
            className="mono"
            aria-label={`Address of ${unit.name}`}
            size={15}
            value={typed ?? address}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
          {typed !== undefined && typed !== address && (
            <button type="submit" disabled={pending}>
              Lock it
            </button>
          )}
        </form>
        {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
      </td>
      <td>
        <button
          type="button"
          className={classes.quiet}
          disabled={pending || address === ''}
          onClick={() => lock(locked ? null : address)}
        >
          {locked ? 'locked, let it go' : 'lock'}
        </button>
      </td>
    </tr>
  )
}
