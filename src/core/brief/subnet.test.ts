import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoBrief } from '../../../tests/support/data'
import { formatIpv4, parseCidr } from '../address/ipv4'
import { applyMend } from '../review/fault'
import { briefSchema, neededSecrets } from './brief'
import { moveSubnet, nextFreeCidr, overlap, subnetSchema } from './subnet'
import { newNetwork } from './wireless-network'

describe('a subnet that is moved', () => {
  it('takes all of its own addresses along, and leaves those of others', () => {
    const subnet = subnetSchema.parse({
      name: 'Guests',
      cidr: '10.44.8.0/24',
      vlan: 47,
      gateway: '10.44.8.1',
      dnsServers: ['10.44.8.2', '192.0.2.53'],
      dhcpPool: { first: '10.44.8.20', last: '10.44.8.250' },
      staticRange: { first: '10.44.8.5', last: '10.44.8.9' },
      reserved: ['10.44.8.3'],
    })
    expect(moveSubnet(subnet, '10.44.9.0/24')).toMatchObject({
      cidr: '10.44.9.0/24',
      gateway: '10.44.9.1',
      dnsServers: ['10.44.9.2', '192.0.2.53'],
      dhcpPool: { first: '10.44.9.20', last: '10.44.9.250' },
      staticRange: { first: '10.44.9.5', last: '10.44.9.9' },
      reserved: ['10.44.9.3'],
    })
  })

  it('finds the next place that overlaps nobody', () => {
    const cidr = fc
      .tuple(fc.nat(3), fc.nat(255), fc.integer({ min: 20, max: 29 }))
      .map(([a, b, prefix]) => `10.${a}.${b}.0/${prefix}`)
    fc.assert(
      fc.property(cidr, fc.array(cidr, { maxLength: 12 }), (from, taken) => {
        const found = parseCidr(nextFreeCidr(from, taken) ?? '')
        if (!found) throw new Error('there is room')
        expect(found.prefix).toBe(parseCidr(from)?.prefix)
        for (const other of taken) {
          const parsed = parseCidr(other)
          if (parsed)
            expect(overlap(found, parsed), `${formatIpv4(found.network)}/${found.prefix} and ${other}`).toBe(false)
        }
      }),
    )
  })
})

it('mends a copy: the brief that was there stays as it was', () => {
  const before = structuredClone(demoBrief)
  expect(applyMend(demoBrief, [{ path: 'networks.0.hidden', value: true }]).networks[0]?.hidden).toBe(true)
  expect(demoBrief).toEqual(before)
})

it('needs secrets for what it has, and for nothing else', () => {
  const brief = briefSchema.parse({
    ...demoBrief,
    networks: [
      newNetwork('a', 'A'),
      { ...newNetwork('b', 'B'), security: 'wpa2-enterprise' },
      { ...newNetwork('c', 'C'), security: 'open' },
    ],
    admin: { ...demoBrief.admin, passwords: 'one-per-unit', pushedLogin: 'own' },
    aftercare: { snmp: { user: 'watch' } },
  })
  expect(neededSecrets(brief, ['hall-01'])).toEqual([
    'network/a/passphrase',
    'network/b/radius',
    'admin/password',
    'admin/password/hall-01',
    'admin/pushed-password',
    'snmp/authentication',
    'snmp/privacy',
  ])
  expect(neededSecrets(demoBrief, ['hall-01'])).toEqual(['network/crew/passphrase', 'admin/password'])
})
