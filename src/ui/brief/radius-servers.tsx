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
      <SecretField name={secretName.radius(network)} label="Shared secret" />
    </>
  )
}
