'use client'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { valueAt } from './brief-path'
import { Faults } from './faults'
import { Choice, TextField } from './fields'

/** Sentences of one subnet, management or another. */
export function SubnetText({ path }: { path: string }) {
  const { brief } = useBrief()
  const pool = valueAt(brief, `${path}.dhcpPool`)
  const range = valueAt(brief, `${path}.staticRange`)
  return (
    <>
      <p>
        It is <TextField path={`${path}.cidr`} label="Subnet" face="mono" /> on VLAN{' '}
        <TextField path={`${path}.vlan`} label="VLAN" kind="number" face="mono" placeholder="none, untagged" />, with
        the gateway{' '}
        <TextField path={`${path}.gateway`} label="Gateway" kind="optional" face="mono" placeholder="none" /> and the
        DNS servers{' '}
        <TextField path={`${path}.dnsServers`} label="DNS servers" kind="list" face="mono" placeholder="none" />.
      </p>
      <Faults under={[`${path}.cidr`, `${path}.vlan`, `${path}.gateway`, `${path}.dnsServers`, `${path}.name`]} />
      <p>
        DHCP{' '}
        <Choice
          path={`${path}.dhcpPool`}
          label="DHCP"
          options={[
            { value: 'pool', words: 'hands out' },
            { value: 'none', words: 'hands out nothing' },
          ]}
          read={(value) => (value === 'pool' ? { first: '', last: '' } : null)}
          write={(value) => (value ? 'pool' : 'none')}
        />
        {pool !== null && (
          <>
            {' '}
            <TextField path={`${path}.dhcpPool.first`} label="DHCP hands out from" face="mono" placeholder="from" />
            {' to '}
            <TextField path={`${path}.dhcpPool.last`} label="DHCP hands out to" face="mono" placeholder="to" />
          </>
        )}
        . Static addresses come from{' '}
        <Choice
          path={`${path}.staticRange`}
          label="Static addresses"
          options={[
            { value: 'any', words: 'what is left' },
            { value: 'range', words: 'a range of their own' },
          ]}
          read={(value) => (value === 'range' ? { first: '', last: '' } : null)}
          write={(value) => (value ? 'range' : 'any')}
        />
        {range !== null && (
          <>
            {' '}
            <TextField
              path={`${path}.staticRange.first`}
              label="Static addresses from"
              face="mono"
              placeholder="from"
            />{' '}
            to <TextField path={`${path}.staticRange.last`} label="Static addresses to" face="mono" placeholder="to" />
          </>
        )}
        ; <TextField path={`${path}.reserved`} label="Reserved addresses" kind="list" face="mono" placeholder="none" />
        <span className={classes.count}>{' kept free for something else'}</span>.
      </p>
      <Faults under={[`${path}.dhcpPool`, `${path}.staticRange`, `${path}.reserved`]} />
    </>
  )
}
