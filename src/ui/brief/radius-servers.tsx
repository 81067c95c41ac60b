'use client'
import { secretName } from '../../core/brief/brief'
import type { WirelessNetwork } from '../../core/brief/wireless-network'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { TextField } from './fields'
import { SecretField } from './secret-field'

/** The servers that say who may join an enterprise network. */
export function RadiusServers({ path, network }: { path: string; network: WirelessNetwork }) {
  const { change } = useBrief()
  return (
    <>
      RADIUS servers:{' '}
      {network.radius.map((_, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: servers have no name but their place
        <span key={at}>
          <TextField
            path={`${path}.radius.${at}.address`}
            label={`RADIUS server ${at + 1}`}
            face="mono"
            placeholder="address"
          />{' '}
          port{' '}
          <TextField
            path={`${path}.radius.${at}.port`}
            label={`Port of RADIUS server ${at + 1}`}
            kind="number"
            face="mono"
          />{' '}
        </span>
      ))}
      {network.radius.length < 3 && (
        <button
          type="button"
          className={classes.add}
          onClick={() => change(`${path}.radius`, [...network.radius, { address: '', port: 1812 }])}
        >
          Add a server
        </button>
      )}
      {network.radius.length > 0 && (
        <button
          type="button"
          className={classes.remove}
          onClick={() => change(`${path}.radius`, network.radius.slice(0, -1))}
        >
          Take the last off
        </button>
      )}{' '}
      <SecretField name={secretName.radius(network)} label="Shared secret" /> Sessions are told to{' '}
      {network.accounting.map((_, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: servers have no name but their place
        <span key={at}>
          <TextField
            path={`${path}.accounting.${at}.address`}
            label={`Accounting server ${at + 1}`}
            face="mono"
            placeholder="address"
          />{' '}
          port{' '}
          <TextField
            path={`${path}.accounting.${at}.port`}
            label={`Port of accounting server ${at + 1}`}
            kind="number"
            face="mono"
          />{' '}
        </span>
      ))}
      {network.accounting.length === 0 && 'nobody. '}
      <button
        type="button"
        className={classes.add}
        onClick={() =>
          change(
            `${path}.accounting`,
            network.accounting.length === 0
              ? network.radius.map(({ address }) => ({ address, port: 1813 }))
              : network.accounting.slice(0, -1),
          )
        }
      >
        {network.accounting.length === 0 ? 'Tell the same servers' : 'Take the last off'}
      </button>
    </>
  )
}
