/** What a unit with a command line tells of itself. */
import type { Device } from '../../device/device'
import type { DeviceNetwork } from '../../device/device-settings'
import type { RadioNow } from '../../device/radio-now'
import { shown } from './words'

/** Names of the radios, by band. */
export const radioNames: ReadonlyMap<string, string> = new Map([
  ['2.4', 'radio0'],
  ['5', 'radio1'],
])

type Teller = (device: Device) => string[]

/** By what is asked after `tell`. */
export const tellers: Readonly<Record<string, Teller>> = {
  box: tellBox,
  nets: (device) => device.effective.networks.flatMap(tellNetwork),
  air: tellAir,
  'air now': (device) => device.air().flatMap(tellRadioNow),
  kept: (device) => [device.changes.saved ? 'kept' : 'not kept'],
  all: (device) => [...tellBox(device), ...device.effective.networks.flatMap(tellNetwork), ...tellAir(device)],
}

function tellBox(device: Device): string[] {
  const { effective: set, identity, wired } = device
  const { wired: asked } = set
  return [
    `mac ${identity.mac}`,
    `serial ${identity.serial}`,
    `firmware ${device.firmware}`,
    `call ${shown(set.name)}`,
    `stands ${shown(set.location)}`,
    `regdom ${set.country ?? '--'}`,
    `clock now ${Math.floor(device.time.getTime() / 1000)}`,
    `clock zone ${shown(set.zoneName ?? '')}`,
    ...(set.timeServers.length > 0 ? [`clock source ${set.timeServers.join(' ')}`] : []),
    asked.method === 'static' ? 'own fixed' : 'own asks',
    ...(wired.address === null ? [] : [`own address ${wired.address}/${wired.prefix}`]),
    ...(wired.gateway === null ? [] : [`own gateway ${wired.gateway}`]),
    ...(set.nameServers.length > 0 ? [`own resolvers ${set.nameServers.join(' ')}`] : []),
    ...(asked.vlan === null ? [] : [`own lan ${asked.vlan}`]),
    `web ${set.httpsOnly ? 'only' : 'also-plain'}`,
    `old-shell ${set.telnet ? 'on' : 'off'}`,
    ...(set.syslog === null ? [] : [`reports to ${set.syslog}`]),
    ...(set.snmp === null ? [] : [`watcher ${shown(set.snmp.user)}`]),
    ...set.users.map((user) => `login ${shown(user)}`),
  ]
}

function tellNetwork(net: DeviceNetwork): string[] {
  return [
    `net ${net.id}`,
    ` name ${shown(net.name)}`,
    ` ${net.on ? 'up' : 'down'}`,
    ` on ${net.bands.join(' ')}`,
    ` guard ${net.mode === 'open' ? 'none' : 'shared-key'}`,
    ` cipher ${net.cipher}`,
    ` frames ${net.frames === 'required' ? 'must' : net.frames === 'optional' ? 'may' : 'off'}`,
    ...(net.vlan === null ? [] : [` lan ${net.vlan}`]),
    ` name-is ${net.hidden ? 'hidden' : 'shown'}`,
    ` clients ${net.isolated ? 'apart' : 'together'}`,
    ` groups ${net.multicastToUnicast ? 'each' : 'once'}`,
    ...(net.clientLimit === null ? [] : [` most ${net.clientLimit}`]),
  ]
}

function tellAir(device: Device): string[] {
  return device.effective.radios.flatMap((radio) => [
    `air ${radioNames.get(radio.band)}`,
    ` ${radio.on ? 'up' : 'down'}`,
    ` at ${radio.channel} wide ${radio.width}`,
    ` strength ${radio.power}`,
    ` rates ${radio.lowRates === 'kept' ? 'all' : 'fast'}`,
    ` beacon ${radio.beacon}`,
  ])
}

function tellRadioNow({ radio, condition, listensFor, networks, left }: RadioNow): string[] {
  return [
    `air ${radioNames.get(radio.band)}`,
    condition === 'on-air' ? ' on air' : condition === 'listening' ? ` listens ${listensFor} more` : ' silent',
    ` at ${radio.channel} wide ${radio.width}`,
    ...(left === undefined ? [] : [` left ${left} for radar`]),
    ...networks.flatMap(({ id, name, mode, bssid }) => [
      ` net ${id}`,
      `  name ${shown(name)}`,
      `  guard ${mode === 'open' ? 'none' : 'shared-key'}`,
      `  cell ${bssid}`,
    ]),
  ]
}
