'use client'
import { Checkbox, Select, TextInput } from '@mantine/core'
import type { Outcome } from '../../app/actions/outcome'
import type { WirelessNetwork } from '../../core/brief/brief'
import { ssidBytes } from '../../core/brief/ssid'
import { passphraseFault } from '../../core/secrets/passphrase'
import classes from './brief.module.css'
import { SecretField } from './secret-field'
import { VlanField } from './vlan-field'

const purposes = [
  { value: 'staff', label: 'Staff' },
  { value: 'guests', label: 'Guests' },
  { value: 'voice', label: 'Voice' },
  { value: 'things', label: 'Things' },
]

interface Props {
  readonly network: WirelessNetwork
  readonly fault: Extract<Outcome, { ok: false }> | undefined
  /** Path of this network in the brief. */
  readonly path: string
  /** A passphrase that was typed and is not saved yet. */
  readonly passphrase: string | undefined
  readonly onPassphrase: (text: string) => void
  readonly onChange: (network: WirelessNetwork) => void
}

/** One wireless network. Its security is WPA2-Personal with AES; nothing else can be chosen here. */
export function NetworkFields({ network, fault, path, passphrase, onPassphrase, onChange }: Props) {
  const at = (field: string) => (fault?.field === `${path}.${field}` ? fault.sentence : undefined)
  const typedFault = passphrase === undefined ? undefined : passphraseFault(passphrase)
  return (
    <div className={classes.fields}>
      <TextInput
        label="Name (SSID)"
        description={`${ssidBytes(network.ssid)} of 32 bytes`}
        value={network.ssid}
        error={at('ssid')}
        onChange={(event) => onChange({ ...network, ssid: event.currentTarget.value })}
      />
      <Select
        label="For"
        description="WPA2-Personal, AES-CCMP"
        allowDeselect={false}
        data={purposes}
        value={network.purpose}
        onChange={(purpose) => purpose && onChange({ ...network, purpose: purpose as WirelessNetwork['purpose'] })}
      />
      <SecretField name={`network/${network.id}/passphrase`} label="Passphrase" />
      <TextInput
        classNames={{ input: 'mono' }}
        label="Another passphrase"
        description="Leave empty to keep the one there is."
        autoComplete="off"
        value={passphrase ?? ''}
        error={typedFault}
        onChange={(event) => onPassphrase(event.currentTarget.value)}
      />
      <VlanField value={network.vlan} error={at('vlan')} onChange={(vlan) => onChange({ ...network, vlan })} />
      <div className={classes.checks}>
        <Checkbox label="Hidden: phones must be told its name" checked={network.hidden} onChange={(event) => onChange({ ...network, hidden: event.currentTarget.checked })} />
        <Checkbox label="Keep its clients from each other" checked={network.isolation} onChange={(event) => onChange({ ...network, isolation: event.currentTarget.checked })} />
      </div>
    </div>
  )
}
