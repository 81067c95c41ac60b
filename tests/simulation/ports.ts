/** The ports of one process into a scene: records and host, each call of which takes time and may fail. */
import { nothingHeard } from '../../src/core/muster/events'
import type { Records } from '../../src/runner/ports/records'
import type { Controller } from '../../src/wire/dialect/managed/controller'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Host, Lane } from '../../src/wire/host/host'
import type { Sessions } from '../../src/wire/sessions'
import { managedDialect } from './managed'
import type { Scene } from './scene'
import { SimulatedSession } from './session'
import type { Process } from './world'

export function recordsOf(scene: Scene, process: Process): Records {
  const { records } = scene
  return {
    claimOrder: (owner, lease, working) =>
      scene.call(process, 'claim', async () => {
        const order = await records.claimOrder(owner, lease, working)
        if (order) scene.working.set(process.name, order)
        return order
      }),
    renewLease: (...asked) => scene.call(process, 'renew', () => records.renewLease(...asked)),
    endOrder: (...asked) => scene.call(process, 'end', () => records.endOrder(...asked)),
    orderThrew: (...asked) => scene.call(process, 'threw', () => records.orderThrew(...asked)),
    placeOrder: (order) => scene.call(process, 'place', () => records.placeOrder(order)),
    musterIsOpen: (id) => scene.call(process, 'roll', () => records.musterIsOpen(id)),
    reportRunner: () => scene.call(process, 'roll', () => records.reportRunner()),
    appendEvents: (id, events, known) =>
      scene
        .call(process, 'append', (time) => {
          scene.appending(events)
          return records.appendEvents(id, events, time === 'again' ? 'perhaps-there' : known)
        })
        .then(() => {
          for (const event of events) scene.keptEvents.add(event)
        }),
    rollOf: (id) => scene.call(process, 'roll', () => records.rollOf(id)),
    bench: (id) => scene.call(process, 'bench', () => records.bench(id)),
    job: (id) => scene.call(process, 'job', () => records.job(id)),
    secrets: (id) => scene.call(process, 'secrets', () => records.secrets(id)),
    pinOnFirstSight: (id, mac, shown) => scene.call(process, 'pin', () => records.pinOnFirstSight(id, mac, shown)),
    hasBackup: (...asked) => scene.call(process, 'copy', () => records.hasBackup(...asked)),
    keepBackup: (id, mac, copy, text) => scene.call(process, 'copy', () => records.keepBackup(id, mac, copy, text)),
    backup: (...asked) => records.backup(...asked),
    fileParts: (sha256) => records.fileParts(sha256),
  }
}

const macNumber = (mac: string): number => Number.parseInt(mac.slice(-2), 16)

export function hostOf(scene: Scene, process: Process): Host {
  const isIn = (address: string, cidrs: readonly string[]): boolean =>
    cidrs.some((cidr) => address.startsWith(cidr.slice(0, cidr.lastIndexOf('.') + 1)))
  return {
    name: 'simulated',
    interruptions: () => scene.interruptions,
    laptop: () =>
      scene.call(process, 'laptop', () => ({
        interfaceName: 'wired0',
        addresses: [],
        lanes: 0,
        vlans: [],
        silentVlans: [],
        vlanFault: null,
        pace: scene.scenario.site.pace,
      })),
    canAsk: async () => true,
    onLink: async () => undefined,
    resolve: async () => [],
    arp: (address) =>
      scene.call(
        process,
        'arp',
        () => {
          const found = scene.answering(address)
          scene.seenAt.set(`${process.name} ${address}`, found)
          return found
        },
        address,
      ),
    neighbours: (subnets) =>
      scene.call(process, 'neighbours', () =>
        scene.units.flatMap(({ mac, address, phase, isAway }) =>
          phase === 'up' && !isAway && address !== undefined && isIn(address, subnets) ? [{ mac, address }] : [],
        ),
      ),
    // What asks DHCP talks; what has a fixed address may say nothing for hours.
    heard: () =>
      scene.call(process, 'heard', () => ({
        ...nothingHeard,
        introductions: [],
        onLink: scene.units.flatMap((unit) => (unit.isHeard ? [{ mac: unit.mac, address: unit.address ?? null }] : [])),
      })),
    keepOff: () => scene.call(process, 'keep-off', () => undefined),
    lend: async () => undefined,
    reachVlans: async () => undefined,
    restore: async () => undefined,
    openLane: (target) => scene.call(process, 'lane', () => laneOf(scene, process, target), target.address),
  }
}

function laneOf(scene: Scene, process: Process, target: { mac: string; address: string; prefix: number }): Lane {
  const { mac, address } = target
  return {
    ...target,
    source: `198.18.0.${macNumber(mac)}`,
    connect: (port) =>
      scene.call(
        process,
        'connect',
        () => {
          const unit = scene.reached(mac, address)
          const { 'services.https-only': httpsOnly, 'services.ssh': ssh } = unit?.running.values.unit ?? {}
          const isOpen =
            unit !== undefined &&
            ((port === 80 && httpsOnly === false) || (port === 22 && ssh === true) || port === unit.card.factory.port)
          if (!isOpen) throw new WireError('unreachable', `${address} port ${port}`)
          return { destroy: () => undefined } as never
        },
        `${address}:${port}`,
      ),
    datagrams: () => Promise.reject(new WireError('unreachable', 'nobody takes datagrams')),
    ping: () =>
      scene.call(process, 'ping', () => {
        const unit = scene.reached(mac, address)
        return unit !== undefined && unit.traits.ping === 'answers'
      }),
    close: async () => undefined,
  }
}

export function sessionsOf(scene: Scene, process: Process): Sessions {
  const silent = { kind: 'silent' } as const
  return {
    unit: async (lane, card, pin) => new SimulatedSession(scene, process, lane, card, pin),
    controller: async (lane, card, pin) =>
      new SimulatedSession(scene, process, lane, card, pin) as unknown as Controller,
    managed: ({ mac }, use) => managedDialect(scene, process, mac, use),
    discover: async () => undefined,
    snmpAsUser: async () => silent,
    snmpInClear: async () => silent,
    wtpStanding: async () => silent,
    carriedNetworks: async () => silent,
  }
}
