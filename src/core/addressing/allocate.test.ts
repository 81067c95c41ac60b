import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { parseCidr, parseIpv4, sameSubnet } from '../address/ipv4'
import type { Subnet } from '../brief/subnet'
import { allocate } from './allocate'

const subnet: Subnet = {
  name: 'Management',
  cidr: '10.44.8.0/24',
  vlan: 44,
  gateway: '10.44.8.1',
  dnsServers: ['10.44.8.2'],
  dhcpPool: { first: '10.44.8.100', last: '10.44.8.199' },
  staticRange: null,
  reserved: [],
}
const named = (...units: string[]) => units.map((unit) => ({ unit }))

describe('allocation', () => {
  it('gives addresses in list order, away from the servers', () => {
    const given = allocate(subnet, named('a', 'b'), [])
    expect(given.ok && [...given.addresses]).toEqual([
      ['a', '10.44.8.20'],
      ['b', '10.44.8.21'],
    ])
  })

  it('passes over an address that answers on the wire', () => {
    const given = allocate(subnet, named('a', 'b'), ['10.44.8.20'])
    expect(given.ok && given.addresses.get('a')).toBe('10.44.8.21')
  })

  it('keeps the address a unit already has when the list is sorted another way', () => {
    const given = allocate(
      subnet,
      [{ unit: 'c' }, { unit: 'b', reserved: '10.44.8.21' }, { unit: 'a', reserved: '10.44.8.20' }],
      [],
    )
    expect(given.ok && [...given.addresses]).toEqual([
      ['c', '10.44.8.22'],
      ['b', '10.44.8.21'],
      ['a', '10.44.8.20'],
    ])
  })

  it('moves a unit whose address has come into the pool', () => {
    const given = allocate(subnet, [{ unit: 'a', reserved: '10.44.8.150' }], [])
    expect(given.ok && given.addresses.get('a')).toBe('10.44.8.20')
  })

  it('says plainly when no address is left', () => {
    const small: Subnet = { ...subnet, cidr: '10.0.0.0/30', gateway: '10.0.0.1', dnsServers: [], dhcpPool: null }
    expect(allocate(small, named('a'), []).ok).toBe(true)
    expect(english(allocate(small, named('a', 'b'), []))).toMatchObject({
      ok: false,
      reason: expect.stringContaining('has no address left for b'),
      addresses: new Map([['a', '10.0.0.2']]),
    })
  })

  it('gives the last address of a subnet and of a range too, and none of the pool from its first to its last', () => {
    const small: Subnet = { ...subnet, cidr: '10.0.0.0/29', gateway: null, dnsServers: [], dhcpPool: null }
    const all = allocate(small, named('a', 'b', 'c', 'd', 'e', 'f'), [])
    expect(all.ok && [...all.addresses.values()]).toEqual([
      '10.0.0.6',
      ...[1, 2, 3, 4, 5].map((last) => `10.0.0.${last}`),
    ])
    const pooled = { ...small, dhcpPool: { first: '10.0.0.2', last: '10.0.0.5' } }
    const rest = allocate(pooled, named('a', 'b'), [])
    expect(rest.ok && [...rest.addresses.values()]).toEqual(['10.0.0.6', '10.0.0.1'])
    // A pool that reaches beyond the subnet keeps what is within it.
    const beyond = { ...small, dhcpPool: { first: '9.0.0.0', last: '10.0.0.3' } }
    expect([...allocate(beyond, named('a', 'b', 'c', 'd'), []).addresses.values()]).toEqual([
      ...['10.0.0.6', '10.0.0.4', '10.0.0.5'],
    ])
    const above = { ...small, dhcpPool: { first: '10.0.0.5', last: '11.0.0.0' } }
    expect([...allocate(above, named('a', 'b', 'c', 'd', 'e'), []).addresses.values()]).toEqual(
      [1, 2, 3, 4].map((last) => `10.0.0.${last}`),
    )
  })

  it('says what to do where addresses run out, and that a subnet is none', () => {
    const full: Subnet = { ...subnet, cidr: '10.0.0.0/30', gateway: '10.0.0.1', dnsServers: [], dhcpPool: null }
    const reasonOf = (of: Subnet) => {
      const given = allocate(of, named('a', 'b'), [])
      return given.ok ? undefined : given.reason
    }
    expect(english(reasonOf(full))).toBe(
      '10.0.0.0/30 has no address left for b: 1 units have one, and the rest is the DHCP pool, the gateway, ' +
        'reserved or in use. Make the pool smaller or the subnet larger.',
    )
    expect(english(reasonOf({ ...full, staticRange: { first: '10.0.0.2', last: '10.0.0.2' } }))).toMatch(
      /in use\. Widen the static range\.$/,
    )
    expect(english(allocate({ ...full, cidr: 'nonsense' }, named('a'), []))).toEqual({
      ok: false,
      reason: 'nonsense is not a subnet.',
      addresses: new Map(),
    })
  })

  it('gives two who were given one address before one each, the locked one first wherever it stands', () => {
    const both = [
      { unit: 'a', reserved: '10.44.8.40', locked: false },
      { unit: 'b', reserved: '10.44.8.40' },
      { unit: 'c', reserved: 'nonsense' },
      { unit: 'd', rank: 0 },
    ]
    expect([...allocate(subnet, both, []).addresses]).toEqual([
      ...[
        ['a', '10.44.8.40'],
        ['b', '10.44.8.21'],
        ['c', '10.44.8.22'],
        ['d', '10.44.8.20'],
      ],
    ])
  })

  it('keeps a range within its subnet, and begins at its first address', () => {
    const ranged: Subnet = { ...subnet, cidr: '10.0.0.0/29', gateway: null, dnsServers: [], dhcpPool: null }
    const wide = { ...ranged, staticRange: { first: '9.0.0.0', last: '11.0.0.0' } }
    expect([...allocate(wide, named('a', 'b'), []).addresses.values()]).toEqual(['10.0.0.1', '10.0.0.2'])
  })

  it('gives units of one rank their addresses in list order', () => {
    const units = ['z', 'y', 'x', 'w'].map((unit) => ({ unit, rank: 1 }))
    expect([
      ...allocate(subnet, [...units, { unit: 'low', rank: 0 }, { unit: 'last', rank: 2 }], []).addresses,
    ]).toEqual([
      ...[
        ['z', '10.44.8.21'],
        ['y', '10.44.8.22'],
        ['x', '10.44.8.23'],
        ['w', '10.44.8.24'],
      ],
      ...[
        ['low', '10.44.8.20'],
        ['last', '10.44.8.25'],
      ],
    ])
  })

  it('gives controllers the lowest addresses, wherever they stand on the list', () => {
    const given = allocate(subnet, [{ unit: 'a' }, { unit: 'b' }, { unit: 'controller', rank: 0 }], [])
    expect(given.ok && given.addresses.get('controller')).toBe('10.44.8.20')
    expect(given.ok && given.addresses.get('a')).toBe('10.44.8.21')
  })

  it('stays within the static range and off reserved addresses, and says when the range is full', () => {
    const ranged: Subnet = {
      ...subnet,
      staticRange: { first: '10.44.8.30', last: '10.44.8.32' },
      reserved: ['10.44.8.31'],
    }
    const given = allocate(ranged, named('a', 'b'), [])
    expect(given.ok && [...given.addresses.values()]).toEqual(['10.44.8.30', '10.44.8.32'])
    expect(english(allocate(ranged, named('a', 'b', 'c'), []))).toMatchObject({
      ok: false,
      reason: expect.stringContaining('The static range 10.44.8.30 to 10.44.8.32 has no address left for c'),
    })
  })

  it('gives a locked address to its unit before one that another merely had', () => {
    const given = allocate(
      subnet,
      [
        { unit: 'a', reserved: '10.44.8.40' },
        { unit: 'b', reserved: '10.44.8.40', locked: true },
      ],
      [],
    )
    expect(given.ok && [...given.addresses.values()]).toEqual(['10.44.8.20', '10.44.8.40'])
  })

  it('moves nobody when rows are sorted, inserted or removed', () => {
    const edits = fc.record({ remove: fc.array(fc.nat(19), { maxLength: 6 }), add: fc.nat(6), shuffle: fc.nat(1000) })
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), edits, (count, { remove, add, shuffle }) => {
        const first = allocate(subnet, named(...Array.from({ length: count }, (_, index) => `u${index}`)), [])
        if (!first.ok) return
        const kept = [...first.addresses]
          .filter((_, index) => !remove.includes(index))
          .map(([unit, reserved]) => ({ unit, reserved }))
        const turned = [
          ...kept.slice(shuffle % (kept.length + 1)),
          ...named(...Array.from({ length: add }, (_, index) => `new${index}`)),
          ...kept.slice(0, shuffle % (kept.length + 1)),
        ]
        const second = allocate(subnet, turned, [])
        expect(second.ok).toBe(true)
        for (const { unit, reserved } of kept) expect(second.ok && second.addresses.get(unit)).toBe(reserved)
      }),
    )
  })

  it('gives no address twice, none outside the subnet, none that is to be avoided; and the same ones again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 24, max: 28 }),
        fc.integer({ min: 0, max: 12 }),
        fc.array(fc.integer({ min: 1, max: 254 }), { maxLength: 20 }),
        (prefix, count, used) => {
          const wanted: Subnet = {
            ...subnet,
            cidr: `10.44.8.0/${prefix}`,
            dhcpPool: { first: '10.44.8.4', last: '10.44.8.6' },
          }
          const inUse = used.map((last) => `10.44.8.${last}`)
          const units = Array.from({ length: count }, (_, index) => ({ unit: `u${index}` }))
          const given = allocate(wanted, units, inUse)
          if (!given.ok) return
          const addresses = [...given.addresses.values()]
          const cidr = parseCidr(wanted.cidr)
          expect(new Set(addresses).size).toBe(count)
          for (const address of addresses) {
            const number = parseIpv4(address) ?? 0
            expect(cidr && number >= cidr.firstHost && number <= cidr.lastHost).toBe(true)
            expect(['10.44.8.1', '10.44.8.2', '10.44.8.4', '10.44.8.5', '10.44.8.6', ...inUse]).not.toContain(address)
          }
          const again = allocate(
            wanted,
            units.toReversed().map(({ unit }) => ({ unit, reserved: given.addresses.get(unit) })),
            inUse,
          )
          expect(again.ok && new Map([...again.addresses].sort())).toEqual(new Map([...given.addresses].sort()))
        },
      ),
    )
  })
})

it('reads addresses strictly', () => {
  expect(parseIpv4('10.44.8.1')).toBe(0x0a2c0801)
  for (const text of ['10.44.8', '010.44.8.1', '10.44.8.256', '0x0a.1.1.1', '', '10.44.8.1 '])
    expect(parseIpv4(text)).toBeUndefined()
  expect(parseCidr('10.44.8.7/24')).toMatchObject({ prefix: 24, firstHost: 0x0a2c0801, lastHost: 0x0a2c08fe })
  for (const text of ['10.44.8.0', '10.44.8.0/33', '10.44.8.0/31', '10.44.8.0/24/1'])
    expect(parseCidr(text)).toBeUndefined()
  expect(sameSubnet('192.168.77.254', '192.168.77.1', 24)).toBe(true)
  expect(sameSubnet('192.168.78.254', '192.168.77.1', 24)).toBe(false)
})
