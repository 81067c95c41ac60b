import { describe, expect, it } from 'vitest'
import { demoBrief } from '../../../tests/support/data'
import { sentence } from '../../words/en/sentence'
import { type Brief, briefSchema } from '../brief/brief'
import { reviewReach } from './reach'

const { management, networks } = demoBrief
const brief = (part: object): Brief => briefSchema.parse({ ...demoBrief, ...part })
const within = (part: object): Brief => brief({ management: { ...management, ...part } })
const said = (of: Brief): [string, string][] => reviewReach(of).map((fault) => [fault.field, sentence(fault)])

it('has nothing to say of the demo', () => expect(said(demoBrief)).toEqual([]))

describe('an address that no host has', () => {
  it.each<[string, Brief, string, string]>([
    [
      'gateway',
      within({ gateway: '127.0.0.1' }),
      'management.gateway',
      'The gateway 127.0.0.1 cannot be: it is loopback',
    ],
    [
      'DNS server',
      within({ dnsServers: ['224.0.0.5'] }),
      'management.dnsServers',
      'The DNS server 224.0.0.5 cannot be: it is a multicast',
    ],
    [
      'time server',
      brief({ ntpServers: ['0.0.0.9'] }),
      'ntpServers',
      'The time server 0.0.0.9 cannot be: it stands for this host',
    ],
    [
      'reserved',
      within({ reserved: ['255.255.255.255'] }),
      'management.reserved',
      'The reserved address 255.255.255.255 cannot be: it is kept',
    ],
    [
      'subnet',
      within({ cidr: '239.1.1.0/24', gateway: null }),
      'management.cidr',
      'The subnet 239.1.1.0 cannot be: it is a multicast',
    ],
    [
      'pool',
      within({ dhcpPool: { first: '10.44.8.100', last: '127.1.2.3' } }),
      'management.dhcpPool',
      'An end of the DHCP pool 127.1.2.3',
    ],
    [
      'syslog',
      brief({ aftercare: { ...demoBrief.aftercare, syslog: '127.0.0.1' } }),
      'aftercare.syslog',
      'The syslog server 127.0.0.1',
    ],
  ])('is refused as %s', (_what, of, field, sentence) => {
    expect(said(of)).toContainEqual([field, expect.stringContaining(sentence)])
  })

  it('is told apart from its neighbours that hosts may have', () => {
    for (const address of ['1.0.0.0', '126.255.255.255', '128.0.0.0', '223.255.255.255'])
      expect(said(brief({ ntpServers: [address] })), address).toEqual([])
    for (const address of [
      '0.255.255.255',
      '127.0.0.0',
      '127.255.255.255',
      '224.0.0.0',
      '239.255.255.255',
      '240.0.0.0',
    ])
      expect(said(brief({ ntpServers: [address] })), address).toHaveLength(1)
  })
})

describe('a server outside every subnet, where management has no gateway', () => {
  const alone = { gateway: null, dnsServers: [] }
  const radius = networks.map((network, index) =>
    index === 0
      ? {
          ...network,
          security: 'wpa2-enterprise',
          radius: [{ address: '192.0.2.7' }],
          accounting: [{ address: '192.0.2.8' }],
        }
      : network,
  )

  it('is a fault: DNS, time, RADIUS and its accounting', () => {
    const of = brief({
      management: { ...management, ...alone, dnsServers: ['192.0.2.1'] },
      ntpServers: ['192.0.2.2', 'time.example'],
      networks: radius,
    })
    expect(said(of).map(([field, sentence]) => [field, sentence.slice(0, 45)])).toEqual([
      ['management.dnsServers', 'The DNS server 192.0.2.1 is outside every sub'],
      ['ntpServers', 'The time server 192.0.2.2 is outside every su'],
      ['networks.0.radius', 'The RADIUS server 192.0.2.7 is outside every '],
      ['networks.0.accounting', 'The RADIUS accounting server 192.0.2.8 is out'],
    ])
  })

  it('is none with a gateway, or inside', () => {
    expect(said(brief({ networks: radius }))).toEqual([])
    expect(said(brief({ management: { ...management, ...alone }, ntpServers: ['10.44.8.5'] }))).toEqual([])
  })
})
