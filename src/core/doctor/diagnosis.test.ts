import { describe, expect, it } from 'vitest'
import { findingWords } from '../../words/en/diagnosis'
import { diagnose } from './diagnosis'
import type { LaptopFacts } from './laptop-facts'

const well: LaptopFacts = {
  system: 'linux',
  interfaces: [
    { name: 'eth0', kind: 'wired', link: 'up', addresses: ['10.44.8.250/24'] },
    { name: 'wlan0', kind: 'wireless', link: 'up', addresses: ['172.20.1.7/24'] },
  ],
  chosen: 'eth0',
  defaultRoutes: [{ via: '172.20.1.1', dev: 'wlan0' }],
  privilege: 'sudo',
  missingPrograms: [],
  networkManager: 'leaves-alone',
  firewall: 'accepts',
  taggedVlans: 'there',
  clock: 'right',
  dhcpServers: [{ address: '10.44.8.1', offered: '10.44.8.120', vlan: null }],
  factorySubnets: [{ model: 'Ostrel O-40', address: '192.168.77.1', prefix: 24 }],
}
/** Codes of what is wrong; each comes with a cure. */
const wrong = (facts: Partial<LaptopFacts>): string[] =>
  diagnose({ ...well, ...facts }).flatMap((finding) => {
    const { code, weight } = finding
    if (weight === 'good') return []
    const { cure, sentence } = findingWords(finding)
    expect(cure).toMatch(/\.$/)
    expect(sentence).toMatch(/\.$/)
    return [code]
  })
const wireless = well.interfaces[1] as LaptopFacts['interfaces'][number]

describe('a laptop', () => {
  it('that is well has nothing to be cured', () => expect(wrong({})).toEqual([]))

  it('without an interface to the bench is told which it lacks', () => {
    expect(wrong({ interfaces: [wireless], chosen: undefined })).toEqual(['no-wired-interface'])
    expect(wrong({ chosen: 'eth7' })).toEqual(['no-such-interface'])
    expect(wrong({ chosen: 'wlan0' })).toEqual(['is-wireless'])
    expect(wrong({ chosen: undefined })).toEqual(['several-interfaces'])
    expect(wrong({ interfaces: [{ name: 'eth0', kind: 'wired', link: 'down', addresses: [] }] })).toEqual(['no-link'])
  })

  it('that has a unit’s factory address, or a router there, is told so', () => {
    const own = { name: 'eth0', kind: 'wired', link: 'up', addresses: ['192.168.77.1/24'] } as const
    expect(wrong({ interfaces: [own] })).toEqual(['has-a-factory-address'])
    const home = { ...wireless, addresses: ['192.168.77.23/24'] }
    const router = [{ via: '192.168.77.1', dev: 'wlan0' }]
    const interfaces = [...well.interfaces.slice(0, 1), home]
    expect(wrong({ interfaces, defaultRoutes: router })).toEqual([
      'factory-subnet-elsewhere',
      'router-at-a-factory-address',
    ])
  })

  it('is told what hinders it, the gravest first', () => {
    const second = { address: '192.168.1.1', offered: '192.168.1.50', vlan: null }
    expect(
      wrong({
        privilege: 'none',
        missingPrograms: ['socat'],
        networkManager: 'manages',
        firewall: 'drops',
        taggedVlans: 'missing',
        clock: 'not-set',
        dhcpServers: [...(well.dhcpServers ?? []), second],
        system: 'other',
      }),
    ).toEqual([
      'not-linux',
      'missing-program',
      'no-privilege',
      'network-manager',
      'firewall',
      'no-tagged-vlans',
      'clock',
      'two-dhcp-servers',
    ])
  })
})
