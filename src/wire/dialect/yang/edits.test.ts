import { describe, expect, it } from 'vitest'
import { compare } from '../../../core/config/compare'
import { asObserved, type Clear, type Config, type ObservedConfig } from '../../../core/config/unit-config'
import { errorsIn, yangPatch } from '../../codec/yang-patch'
import { plainReason } from '../../errors/wire-error'
import { editsFor } from './edits'

const desired: Config<Clear> = {
  unit: {
    'unit.country': 'NZ',
    'clock.time-zone': 'Pacific/Auckland',
    'clock.ntp-servers': ['10.44.8.1', '10.44.8.2'],
    'unit.name': 'hall-01',
    'management.method': 'static',
    'management.address': '10.44.8.20',
    'management.prefix': 24,
    'management.gateway': '10.44.8.1',
    'management.dns-servers': [],
    'services.lights': true,
    'services.mail': { server: 'mail.example', to: 'site@client.example' },
  },
  networks: {
    crew: {
      'network.ssid': 'Crew / staff',
      'network.enabled': true,
      'network.security': 'wpa2-personal',
      'network.passphrase': 'eight or more',
      'network.hidden': false,
      'network.isolation': false,
      'network.bands': ['5'],
      'network.hours': { days: ['mon'], from: '08:00', to: '18:00' },
    },
  },
  radios: { '5': { 'radio.enabled': true, 'radio.channel': 36, 'radio.width': 40, 'radio.power': 17 } },
}
type Values = Record<string, { kind: 'value'; value: unknown }>
const edits = (change: (found: { unit: Values; networks: Record<string, Values> }) => void, to = desired) => {
  const found = structuredClone(asObserved(to)) as unknown as Parameters<typeof change>[0]
  change(found)
  return editsFor(compare(to, found as unknown as ObservedConfig), to, {
    managementInterface: 'uplink',
    admin: 'setup',
  })
}
const is = (value: unknown) => ({ kind: 'value' as const, value })

describe('edits', () => {
  it('are none where nothing differs', () => {
    expect(edits(() => {})).toEqual([])
  })

  it('write a network whole, with its security, however little of it differs', () => {
    const [edit, ...rest] = edits(({ networks }) => {
      Object.assign(networks.crew ?? {}, { 'network.hidden': is(true), 'network.isolation': is(true) })
    })
    expect(rest).toEqual([])
    expect(edit).toEqual({
      operation: 'replace',
      target: '/air-muster-wireless:wireless/network=crew',
      value: {
        'air-muster-wireless:network': [
          {
            id: 'crew',
            ssid: Buffer.from('Crew / staff').toString('base64'),
            enabled: true,
            hidden: false,
            isolation: false,
            band: ['5'],
            hours: { day: ['mon'], from: '08:00', to: '18:00' },
            security: { mode: 'wpa2-personal', passphrase: 'eight or more' },
          },
        ],
      },
    })
  })

  it('say an open network twice', () => {
    const { 'network.passphrase': _none, ...crew } = desired.networks.crew ?? {}
    const open = { ...desired, networks: { crew: { ...crew, 'network.security': 'open' as const } } }
    const [edit] = edits(({ networks }) => Object.assign(networks.crew ?? {}, { 'network.hidden': is(true) }), open)
    expect(edit?.value).toMatchObject({
      'air-muster-wireless:network': [{ security: { mode: 'open', 'open-confirmed': true } }],
    })
  })

  it('take away what is not desired, and leave alone what is no difference', () => {
    const found = edits(({ networks }) => Object.assign(networks, { 'left/over': networks.crew }))
    expect(found).toEqual([{ operation: 'remove', target: '/air-muster-wireless:wireless/network=left%2Fover' }])
  })

  it('write the address with its gateway in one piece and last of all, and servers by their addresses', () => {
    const written = edits(({ unit }) =>
      Object.assign(unit, { 'management.address': is('192.168.77.1'), 'clock.ntp-servers': is([]) }),
    )
    expect(written.map((edit) => edit.target)).toEqual([
      '/ietf-system:system/ntp',
      '/ietf-system:system/dns-resolver',
      '/ietf-routing:routing/control-plane-protocols/control-plane-protocol=ietf-routing%3Astatic,management',
      '/ietf-interfaces:interfaces/interface=uplink/air-muster-wireless:management-vlan',
      '/ietf-interfaces:interfaces/interface=uplink/ietf-ip:ipv4',
    ])
    expect(written[0]?.value).toEqual({
      'ietf-system:ntp': {
        enabled: true,
        server: [
          { name: '10.44.8.1', udp: { address: '10.44.8.1' } },
          { name: '10.44.8.2', udp: { address: '10.44.8.2' } },
        ],
      },
    })
    expect(written[3]?.operation).toBe('remove')
    expect(written[4]?.value).toEqual({
      'ietf-ip:ipv4': {
        address: [{ ip: '10.44.8.20', 'prefix-length': 24 }],
        'air-muster-wireless:method': 'static',
      },
    })
  })

  it('write a time zone by its name or by its rule, as the model takes it', () => {
    const zone = (value: string) =>
      edits(({ unit }) => Object.assign(unit, { 'clock.time-zone': is('Etc/UTC') }), {
        ...desired,
        unit: { ...desired.unit, 'clock.time-zone': value },
      }).map(({ target }) => target)
    expect(zone('Pacific/Auckland')).toEqual(['/ietf-system:system/clock'])
    expect(zone('<+12>-12')).toEqual(['/air-muster-wireless:services/time-zone-rule'])
  })

  it('are numbered in a patch', () => {
    expect(
      yangPatch(
        'p',
        edits(({ unit }) => Object.assign(unit, { 'unit.country': is('US'), 'unit.name': is('x') })),
      )['ietf-yang-patch:yang-patch'].edit.map((edit) => edit['edit-id']),
    ).toEqual(['edit-1', 'edit-2'])
  })
})

it('finds the errors of a reply wherever they stand', () => {
  const error = { 'error-type': 'application', 'error-tag': 'invalid-value', 'error-message': 'no' }
  expect(errorsIn({ 'ietf-restconf:errors': { error: [error] } })).toEqual([error])
  expect(errorsIn({ 'ietf-yang-patch:yang-patch-status': { 'patch-id': 'p', errors: { error: [error] } } })).toEqual([
    error,
  ])
  expect(
    errorsIn({
      'ietf-yang-patch:yang-patch-status': {
        'patch-id': 'p',
        'edit-status': { edit: [{ 'edit-id': 'e', errors: { error: [error] } }] },
      },
    }),
  ).toEqual([error])
  expect(errorsIn('no')).toEqual([])
})

it('takes no control characters and no novels from a device', () => {
  expect(plainReason('\u001b[31mno\r\nway\u0000')).toBe('[31mno way')
  expect(plainReason('x'.repeat(1000))).toHaveLength(300)
})
