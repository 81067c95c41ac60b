'use client'
import { Button, Select, TextInput } from '@mantine/core'
import { useState } from 'react'
import { saveBriefAction } from '../../app/actions/brief-actions'
import type { Brief } from '../../core/brief/brief'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './brief.module.css'
import { BriefFaults } from './brief-faults'
import { ListField } from './list-field'
import { NetworkFields } from './network-fields'
import { SecretField } from './secret-field'
import { VlanField } from './vlan-field'

/** What the site is to have, written like a page for the client. */
export function BriefView({ countries, meaning }: { countries: readonly { value: string; label: string }[]; meaning: readonly string[] }) {
  const { job } = useJob()
  const { order, pending, fault } = useOrder()
  const [brief, setBrief] = useState<Brief>(job.brief)
  const [passphrases, setPassphrases] = useState<Readonly<Record<string, string>>>({})
  /** Counted up by every undo, so that fields which hold their own text begin anew. */
  const [round, setRound] = useState(0)
  const undo = () => {
    setBrief(job.brief)
    setPassphrases({})
    setRound(round + 1)
  }
  const change = (part: Partial<Brief>) => setBrief((before) => ({ ...before, ...part }))
  const changeManagement = (part: Partial<Brief['management']>) => setBrief((before) => ({ ...before, management: { ...before.management, ...part } }))
  const changed = JSON.stringify(brief) !== JSON.stringify(job.brief) || Object.keys(passphrases).length > 0
  const { management } = brief
  const at = (field: string) => (fault?.field === field ? fault.sentence : undefined)

  const save = () =>
    order(async () => {
      const outcome = await saveBriefAction({ slug: job.slug, version: job.version, brief, passphrases: { ...passphrases } })
      if (outcome.ok) setPassphrases({})
      return outcome
    })

  return (
    <form
      className={classes.view}
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      <div className={sheet.head}>
        <h1>What the site is to have</h1>
        <div className={sheet.headRight}>
          {changed && (
            <Button variant="default" onClick={undo}>
              Undo changes
            </Button>
          )}
          <Button type="submit" disabled={!changed || pending}>
            {changed ? 'Save the brief' : 'Saved'}
          </Button>
        </div>
      </div>
      {fault && (
        <p className={sheet.fault} role="alert">
          {fault.sentence}
        </p>
      )}
      <div key={round} className={classes.columns}>
        <div className={classes.paper}>
          <h2>The site</h2>
          <div className={classes.fields}>
            <TextInput label="Site" value={brief.site} error={at('brief.site')} onChange={(event) => change({ site: event.currentTarget.value })} />
            <Select
              label="Country"
              description="It decides which channels, widths and powers are legal."
              searchable
              allowDeselect={false}
              data={[...countries]}
              value={brief.country}
              onChange={(country) => country && change({ country })}
            />
            <TextInput label="Time zone" value={brief.timeZone} error={at('brief.timeZone')} onChange={(event) => change({ timeZone: event.currentTarget.value })} />
            <ListField label="Time servers" value={brief.ntpServers} onChange={(ntpServers) => change({ ntpServers })} />
          </div>
          <h2>The management network</h2>
          <div className={classes.fields}>
            <TextInput
              classNames={{ input: 'mono' }}
              label="Subnet"
              value={management.cidr}
              error={at('brief.management.cidr')}
              onChange={(event) => changeManagement({ cidr: event.currentTarget.value })}
            />
            <TextInput
              classNames={{ input: 'mono' }}
              label="Gateway"
              value={management.gateway ?? ''}
              error={at('brief.management.gateway')}
              onChange={(event) => changeManagement({ gateway: event.currentTarget.value || null })}
            />
            <VlanField value={management.vlan} error={at('brief.management.vlan')} onChange={(vlan) => changeManagement({ vlan })} />
            <ListField label="DNS servers" value={management.dnsServers} onChange={(dnsServers) => changeManagement({ dnsServers })} />
            <TextInput
              classNames={{ input: 'mono' }}
              label="DHCP hands out from"
              value={management.dhcpPool?.first ?? ''}
              error={at('brief.management.dhcpPool.first')}
              onChange={(event) => changeManagement({ dhcpPool: { first: event.currentTarget.value, last: management.dhcpPool?.last ?? '' } })}
            />
            <TextInput
              classNames={{ input: 'mono' }}
              label="to"
              description="Units get addresses outside of this range."
              value={management.dhcpPool?.last ?? ''}
              error={at('brief.management.dhcpPool.last')}
              onChange={(event) => changeManagement({ dhcpPool: { first: management.dhcpPool?.first ?? '', last: event.currentTarget.value } })}
            />
          </div>
          <h2>{brief.networks.length === 1 ? 'The wireless network' : 'The wireless networks'}</h2>
          {brief.networks.map((network, index) => (
            <NetworkFields
              key={network.id}
              network={network}
              fault={fault}
              path={`brief.networks.${index}`}
              passphrase={passphrases[network.id]}
              onPassphrase={(text) => setPassphrases((before) => ({ ...before, [network.id]: text }))}
              onChange={(next) => change({ networks: brief.networks.map((each) => (each.id === network.id ? next : each)) })}
            />
          ))}
          <h2>Signing in to the units</h2>
          <SecretField name="admin/password" label="Admin password of every unit" />
        </div>
        <aside className={classes.meaning}>
          <b>What it means</b>
          <ul>
            {meaning.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
          <BriefFaults />
        </aside>
      </div>
    </form>
  )
}
