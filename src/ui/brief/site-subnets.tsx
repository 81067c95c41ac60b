'use client'
import { managementId, nextFreeCidr, type SiteSubnet } from '../../core/brief/subnet'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { TextField } from './fields'
import { SubnetText } from './subnet-text'

/** The site's other VLANs, and who may reach whom. */
export function SiteSubnets() {
  const { brief, change } = useBrief()
  const { subnets } = brief
  const remove = (index: number) =>
    change(
      'subnets',
      subnets.filter((_, at) => at !== index),
    )
  return (
    <>
      {subnets.length === 0 && (
        <p className="soft">None: networks without a subnet here are served by somebody else.</p>
      )}
      {subnets.map((subnet, index) => (
        <article key={subnet.id} className={classes.network} aria-label={`Subnet ${subnet.name}`}>
          <p>
            <TextField path={`subnets.${index}.name`} label="Name of the subnet" placeholder="name" />
            <button type="button" className={classes.remove} onClick={() => remove(index)}>
              Take it off
            </button>
          </p>
          <SubnetText path={`subnets.${index}`} />
        </article>
      ))}
      {subnets.length > 0 && <Talks />}
    </>
  )
}

/** A new subnet beside those that there are. */
export function newSubnet(brief: ReturnType<typeof useBrief>['brief']): SiteSubnet {
  const taken = new Set([brief.management.vlan, ...brief.subnets.map((subnet) => subnet.vlan)])
  const wanted = brief.networks.map((network) => network.vlan).find((vlan) => vlan !== null && !taken.has(vlan))
  const vlan =
    wanted ??
    Array.from({ length: 4094 }, (_, at) => at + 1).find(
      (each) => each > (brief.management.vlan ?? 9) && !taken.has(each),
    ) ??
    null
  const cidr =
    nextFreeCidr(brief.management.cidr, [brief.management.cidr, ...brief.subnets.map((subnet) => subnet.cidr)]) ??
    '10.30.0.0/24'
  const base = cidr.split('/')[0]?.split('.').slice(0, 3).join('.') ?? '10.30.0'
  const small = Number(cidr.split('/')[1]) > 24
  const names = brief.networks.filter((network) => network.vlan === vlan).map((network) => network.ssid)
  let id = 'subnet-1'
  for (let number = 1; brief.subnets.some((subnet) => subnet.id === id); number += 1) id = `subnet-${number + 1}`
  return {
    id,
    name: names[0] ?? `VLAN ${vlan}`,
    cidr,
    vlan,
    gateway: small ? null : `${base}.1`,
    dnsServers: brief.management.dnsServers,
    dhcpPool: small ? null : { first: `${base}.20`, last: `${base}.250` },
    staticRange: null,
    reserved: [],
  }
}

/** Who may open connections to whom: rows to columns. */
function Talks() {
  const { brief, change } = useBrief()
  const all = [
    { id: managementId, name: brief.management.name },
    ...brief.subnets.map(({ id, name }) => ({ id, name })),
  ]
  const may = (from: string, to: string): boolean => brief.talks.some((rule) => rule.from === from && rule.to === to)
  const set = (from: string, to: string, allowed: boolean) =>
    change(
      'talks',
      allowed ? [...brief.talks, { from, to }] : brief.talks.filter((rule) => !(rule.from === from && rule.to === to)),
    )
  return (
    <>
      <p>Who may reach whom; what is not ticked is kept apart.</p>
      <div className={classes.scroll}>
        <table className={classes.talks}>
          <thead>
            <tr>
              <th scope="col">from</th>
              {all.map(({ id, name }) => (
                <th key={id} scope="col">
                  to {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {all.map((from) => (
              <tr key={from.id}>
                <th scope="row">{from.name}</th>
                {all.map((to) => (
                  <td key={to.id}>
                    {from.id === to.id ? (
                      <span className="soft">·</span>
                    ) : (
                      <input
                        type="checkbox"
                        aria-label={`${from.name} may reach ${to.name}`}
                        checked={may(from.id, to.id)}
                        onChange={(event) => set(from.id, to.id, event.currentTarget.checked)}
                      />
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Faults under={['talks']} />
    </>
  )
}
