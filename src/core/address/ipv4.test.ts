import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import {
  cidrSchema,
  formatIpv4,
  hostsOf,
  ipv4Schema,
  isHostOf,
  maskOf,
  parseCidr,
  parseIpv4,
  prefixOfMask,
  sameSubnet,
  whyNoHost,
} from './ipv4'

const subnet = (text: string) => {
  const parsed = parseCidr(text)
  if (!parsed) throw new Error(`${text} is no subnet`)
  return parsed
}

describe('a subnet', () => {
  it('has its network, its broadcast, and hosts between them', () => {
    const { network, firstHost, lastHost, broadcast } = subnet('10.44.8.77/26')
    expect([network, firstHost, lastHost, broadcast].map(formatIpv4)).toEqual([
      '10.44.8.64',
      '10.44.8.65',
      '10.44.8.126',
      '10.44.8.127',
    ])
    expect(formatIpv4(subnet('200.1.2.3/0').broadcast)).toBe('255.255.255.255')
  })

  it('has hosts from the first to the last, neither network nor broadcast', () => {
    const small = subnet('10.44.8.64/29')
    const at = (text: string): boolean => isHostOf(small, parseIpv4(text) ?? 0)
    expect(['10.44.8.64', '10.44.8.65', '10.44.8.70', '10.44.8.71'].map(at)).toEqual([false, true, true, false])
    expect(hostsOf(small)).toEqual([65, 66, 67, 68, 69, 70].map((last) => `10.44.8.${last}`))
  })

  it('is read from whole text alone, up to two hosts', () => {
    expect(parseCidr('10.44.8.0/30')?.prefix).toBe(30)
    for (const text of ['10.44.8.0/31', '10.44.8.0/ 24', '10.44.8.0/24x', '10.44.8.0/024', 'x/24', '10.44.8/24', '/24'])
      expect(parseCidr(text)).toBeUndefined()
  })

  it('is shared by two addresses from its network to its broadcast, and by no text that is none', () => {
    const inIt = (b: string) => sameSubnet('10.44.8.9', b, 24)
    expect(['10.44.8.0', '10.44.8.255', '10.44.7.255', '10.44.9.0'].map(inIt)).toEqual([true, true, false, false])
    expect(sameSubnet('10.44.8.9', 'nonsense', 24)).toBe(false)
    expect(sameSubnet('nonsense', '10.44.8.9', 24)).toBe(false)
    expect(sameSubnet('nonsense', '0.0.0.0', 24)).toBe(false)
  })
})

describe('a netmask', () => {
  it('is a prefix length and back, where its ones come first', () => {
    expect([0, 1, 8, 23, 24, 30, 32].map((prefix) => formatIpv4(maskOf(prefix)))).toEqual([
      ...['0.0.0.0', '128.0.0.0', '255.0.0.0', '255.255.254.0'],
      ...['255.255.255.0', '255.255.255.252', '255.255.255.255'],
    ])
    for (let prefix = 0; prefix <= 32; prefix += 1) expect(prefixOfMask(formatIpv4(maskOf(prefix)))).toBe(prefix)
    expect(prefixOfMask('255.0.255.0')).toBeUndefined()
    expect(prefixOfMask('24')).toBeUndefined()
  })
})

describe('an address that no host has', () => {
  it.each([
    ['0.0.0.0', 'this host itself'],
    ['0.255.255.255', 'this host itself'],
    ['127.0.0.1', 'loopback'],
    ['127.255.255.255', 'loopback'],
    ['224.0.0.0', 'multicast'],
    ['239.255.255.255', 'multicast'],
    ['240.0.0.0', 'broadcast'],
    ['255.255.255.255', 'broadcast'],
  ])('%s is %s', (address, why) => {
    expect(english(whyNoHost(address))).toContain(why)
  })

  it.each(['1.0.0.0', '126.255.255.255', '128.0.0.0', '223.255.255.255', 'nonsense'])('%s is none', (address) => {
    expect(whyNoHost(address)).toBeUndefined()
  })
})

it('refuses what is none with an example of what is', () => {
  expect(ipv4Schema.safeParse('10.44.8.1').success).toBe(true)
  expect(english(ipv4Schema.safeParse('10.44.8').error?.issues[0]?.message)).toBe(
    '"10.44.8" is not an IPv4 address such as 10.44.8.1',
  )
  expect(cidrSchema.safeParse('10.44.8.0/24').success).toBe(true)
  expect(english(cidrSchema.safeParse('10.44.8.0').error?.issues[0]?.message)).toBe(
    '"10.44.8.0" is not a subnet such as 10.44.8.0/24',
  )
})
