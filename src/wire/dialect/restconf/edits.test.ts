import { describe, expect, it } from 'vitest'
import { compare } from '../../../core/config/compare'
import type { UnitConfig } from '../../../core/config/unit-config'
import { errorsIn, yangPatch } from '../../codec/yang-patch'
import { plainReason } from '../../wire-error'
import { editsFor } from './edits'

const wanted: UnitConfig = {
  country: 'NZ',
  clock: { timeZone: 'Pacific/Auckland', ntpServers: ['10.44.8.1', '10.44.8.2'] },
  name: 'hall-01',
  management: { method: 'static', address: '10.44.8.20', prefix: 24, gateway: '10.44.8.1', dnsServers: [] },
  networks: [
    {
      ssid: 'Crew / staff',
      enabled: true,
      hidden: false,
      security: { mode: 'wpa2-personal', passphrase: 'eight or more' },
      vlan: null,
      isolation: false,
      bands: ['5'],
    },
  ],
  radios: [{ band: '5', enabled: true, channel: 36, width: 40, powerDbm: 17 }],
  admin: { user: 'setup' },
  services: { lights: true },
}
const edits = (change: (found: UnitConfig) => void) => {
  const found = structuredClone(wanted)
  change(found)
  return editsFor(compare(wanted, found), wanted, 'uplink')
}

describe('edits', () => {
  it('are none where nothing differs', () => {
    expect(edits(() => {})).toEqual([])
  })

  it('write a network whole, with its security, however little of it differs', () => {
    const [edit, ...rest] = edits((found) => {
      for (const network of found.networks) {
        network.hidden = true
        network.isolation = true
      }
    })
    expect(rest).toEqual([])
    expect(edit).toEqual({
      operation: 'replace',
      target: '/air-muster-wireless:wireless/network=Crew%20%2F%20staff',
      value: {
        'air-muster-wireless:network': [
          {
            ssid: 'Crew / staff',
            enabled: true,
            hidden: false,
            isolation: false,
            band: ['5'],
            security: { mode: 'wpa2-personal', passphrase: 'eight or more' },
          },
        ],
      },
    })
  })

  it('take away what is not wanted, and leave alone what is no difference', () => {
    expect(
      edits((found) => {
        const [network] = found.networks
        if (network) found.networks.push({ ...network, ssid: 'Left over' })
      }),
    ).toEqual([{ operation: 'remove', target: '/air-muster-wireless:wireless/network=Left%20over' }])
  })

  it('write the address with its gateway in one piece, and servers by their addresses', () => {
    const written = edits((found) => {
      found.management.address = '192.168.77.1'
      found.clock.ntpServers = []
    })
    expect(written.map((edit) => edit.target)).toEqual([
      '/ietf-system:system/clock',
      '/ietf-system:system/ntp',
      '/ietf-interfaces:interfaces/interface=uplink/ietf-ip:ipv4',
      '/ietf-system:system/dns-resolver',
    ])
    expect(written[1]?.value).toEqual({
      'ietf-system:ntp': {
        enabled: true,
        server: [
          { name: '10.44.8.1', udp: { address: '10.44.8.1' } },
          { name: '10.44.8.2', udp: { address: '10.44.8.2' } },
        ],
      },
    })
    expect(written[2]?.value).toEqual({
      'ietf-ip:ipv4': {
        address: [{ ip: '10.44.8.20', 'prefix-length': 24 }],
        'air-muster-wireless:method': 'static',
        'air-muster-wireless:default-gateway': '10.44.8.1',
      },
    })
  })

  it('are numbered in a patch', () => {
    expect(
      yangPatch(
        'p',
        edits((found) => Object.assign(found, { country: 'US', name: 'x' })),
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
