/** Files for DHCP servers, read by those servers themselves. */

import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, describe, expect, it } from 'vitest'
import { cardOf, demoBrief } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { commandsFor } from '../../words/en/laptop-commands'
import { briefSchema } from '../brief/brief'
import { unitSchema } from '../kit/unit'
import { dnsmasqConfig, type ExportInput, hostsFile, interfaceNameRule, keaConfig } from './exports'
import { isIn, laptopAddresses } from './laptop'
import { vendorOptions } from './vendor-option'

const folder = mkdtempSync(join(tmpdir(), 'air-muster-dhcp-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const controller = {
  name: 'control-01',
  mac: '02:7a:c1:00:5e:01',
  address: '10.44.8.20',
  vendor: { class: 'Tarnhelm AP', code: 7 },
}
const input: ExportInput = {
  brief: demoBrief,
  units: [controller, { name: 'Hall 1', mac: '02:4f:52:10:6a:2c', address: '10.44.8.21' }],
  controllers: [controller],
}
const checked = (command: string, args: readonly string[], file: string, text: string) => {
  const path = join(folder, file)
  writeFileSync(path, text)
  return spawnSync(command, [...args, path], { encoding: 'utf8' })
}

describe('reservations', () => {
  it('are taken by Kea, with the controller in option 138 and option 43', () => {
    const text = keaConfig(input, 'lo')
    const { status, stdout, stderr } = checked('/usr/sbin/kea-dhcp4', ['-t'], 'kea.json', text)
    expect(`${stdout}${stderr}`).not.toMatch(/ERROR|WARN/)
    expect(status).toBe(0)
    const [subnet] = JSON.parse(text).Dhcp4.subnet4
    expect(subnet.reservations).toEqual([
      { 'hw-address': '02:7a:c1:00:5e:01', 'ip-address': '10.44.8.20', hostname: 'control-01' },
      { 'hw-address': '02:4f:52:10:6a:2c', 'ip-address': '10.44.8.21', hostname: 'hall-1' },
    ])
    expect(subnet['option-data']).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 138, data: '10.44.8.20' })]),
    )
    const { Dhcp4 } = JSON.parse(text)
    // Only to clients that say whose they are: the option means something else to every maker.
    expect(subnet['option-data'].map(({ code }: { code?: number }) => code)).not.toContain(43)
    expect(Dhcp4['client-classes']).toEqual([
      expect.objectContaining({
        test: "substring(option[60].hex,0,11) == 'Tarnhelm AP'",
        'option-data': [{ name: 'vendor-encapsulated-options', data: '07040A2C0814', 'csv-format': false }],
      }),
    ])
    expect(Dhcp4['interfaces-config']).toEqual({ interfaces: ['lo'] })
    expect(Dhcp4['lease-database']).toEqual({ type: 'memfile', persist: true })
  })

  it('are taken by dnsmasq', () => {
    const text = dnsmasqConfig(input)
    const { status, stderr } = checked('/usr/sbin/dnsmasq', ['--test', '-C'], 'dnsmasq.conf', text)
    expect(stderr).toContain('syntax check OK')
    expect(status).toBe(0)
    expect(text).toContain('dhcp-host=02:4f:52:10:6a:2c,10.44.8.21,hall-1\n')
    expect(text).toContain('dhcp-option=138,10.44.8.20\n')
    expect(text).toContain('dhcp-option=vendor:Tarnhelm AP,7,10.44.8.20\n')
    expect(
      checked('/usr/sbin/dnsmasq', ['--test', '-C'], 'broken.conf', `${text}dhcp-range=nonsense\n`).status,
    ).not.toBe(0)
  })

  it('have no options for controllers where there is none, and a hosts file has a line a unit', () => {
    const without = { ...input, controllers: [] }
    expect(vendorOptions([])).toEqual([])
    expect(keaConfig(without, 'lo') + dnsmasqConfig(without)).not.toMatch(/138|option-def|vendor/)
    expect(hostsFile(input)).toBe('10.44.8.20  control-01\n10.44.8.21  hall-1\n')
  })
})

describe('the laptop', () => {
  const models = ['Ostrel O-40', 'Ostrel O-20', 'Brackwater B7', 'Tarnhelm C1', 'Tarnhelm T2'].map(cardOf)
  const linesNow = () => laptopAddresses(demoBrief, models, ['10.44.8.250', '10.44.8.249', '192.168.77.250'])

  it('gets an address in each subnet, never one that somebody has or that DHCP hands out', () => {
    const lines = linesNow()
    expect(
      lines.map(({ name, models: boxes, subnet, address }) => [name || boxes.join(', '), subnet, address]),
    ).toEqual([
      ['Management', '10.44.8.0/24', '10.44.8.248'],
      ['Ostrel O-40, Ostrel O-20, Tarnhelm C1', '192.168.77.0/24', '192.168.77.249'],
      ['Brackwater B7', '172.31.9.0/24', '172.31.9.250'],
    ])
    for (const { subnet, address } of lines) expect(isIn(subnet, address)).toBe(true)
  })

  it('gets none of the pool, from its first to its last, and the highest that is left', () => {
    const addressWith = (part: Partial<ExportInput['brief']['management']>) => {
      const management = { ...demoBrief.management, dnsServers: [], gateway: null, reserved: [], ...part }
      return laptopAddresses({ ...demoBrief, management, subnets: [] }, [], [])[0]?.address
    }
    expect(addressWith({ dhcpPool: null })).toBe('10.44.8.250')
    expect(addressWith({ dhcpPool: { first: '10.44.8.240', last: '10.44.8.250' } })).toBe('10.44.8.239')
    expect(addressWith({ dhcpPool: { first: '10.44.8.250', last: '10.44.8.250' } })).toBe('10.44.8.249')
    expect(addressWith({ dhcpPool: { first: '10.44.8.10', last: '10.44.8.249' } })).toBe('10.44.8.250')
    expect(addressWith({ dhcpPool: { first: '10.44.8.2', last: '10.44.8.254' } })).toBe('10.44.8.1')
    expect(addressWith({ dhcpPool: { first: '10.44.8.1', last: '10.44.8.254' } })).toBeUndefined()
    // Of a small subnet the last, since four from its end there is none.
    expect(addressWith({ cidr: '10.44.8.0/29', dhcpPool: null })).toBe('10.44.8.2')
    expect(addressWith({ cidr: '10.44.8.0/30', dhcpPool: null })).toBe('10.44.8.2')
    expect(addressWith({ cidr: '10.44.8.0/29', dhcpPool: null, reserved: ['10.44.8.2'] })).toBe('10.44.8.1')
    expect(addressWith({ cidr: 'nonsense' })).toBeUndefined()
  })

  it('is within a subnet or not', () => {
    expect(['10.44.8.0', '10.44.8.255', '10.44.9.0'].map((address) => isIn('10.44.8.0/24', address))).toEqual([
      ...[true, true, false],
    ])
    expect(isIn('nonsense', '10.44.8.1')).toBe(false)
  })

  it('has no address that anybody has, whatever is taken, or none where none is left', () => {
    const taken = fc.array(fc.integer({ min: 1, max: 254 }), { maxLength: 254 })
    fc.assert(
      fc.property(taken, fc.integer({ min: 24, max: 30 }), (last, prefix) => {
        const inUse = last.map((each) => `10.44.8.${each}`)
        const brief = { ...demoBrief, management: { ...demoBrief.management, cidr: `10.44.8.0/${prefix}` } }
        for (const { subnet, address } of laptopAddresses(brief, [], inUse)) {
          expect(inUse).not.toContain(address)
          expect([brief.management.gateway, ...brief.management.dnsServers]).not.toContain(address)
          expect(isIn(subnet, address)).toBe(true)
        }
      }),
    )
  })

  it('is told the exact commands to list its interfaces, to set it and to undo it', () => {
    expect(commandsFor('10.44.8.248', 24)).toMatchObject([
      {
        system: 'Linux',
        list: 'ip -brief link',
        set: 'sudo ip address add 10.44.8.248/24 dev enp3s0',
        undo: 'sudo ip address del 10.44.8.248/24 dev enp3s0',
      },
      {
        system: 'Linux with NetworkManager',
        list: 'nmcli device status',
        set: 'sudo nmcli device modify enp3s0 +ipv4.addresses 10.44.8.248/24',
        undo: 'sudo nmcli device modify enp3s0 -ipv4.addresses 10.44.8.248/24',
      },
      {
        system: 'Windows',
        list: 'Get-NetAdapter -Physical | Format-Table Name, Status, MacAddress',
        set:
          "New-NetIPAddress -InterfaceAlias 'Ethernet' -IPAddress 10.44.8.248 -PrefixLength 24 -PolicyStore " +
          'ActiveStore',
        undo:
          "Remove-NetIPAddress -InterfaceAlias 'Ethernet' -IPAddress 10.44.8.248 -PolicyStore ActiveStore " +
          '-Confirm:$false',
        remark: expect.stringContaining('PowerShell, started as administrator'),
      },
      {
        system: 'macOS',
        list: 'networksetup -listallhardwareports',
        set: 'sudo ifconfig en7 inet 10.44.8.248 netmask 255.255.255.0 alias',
        undo: 'sudo ifconfig en7 inet 10.44.8.248 -alias',
      },
    ])
    for (const { remark } of commandsFor('10.44.8.248', 24)) expect(remark).toMatch(/stay\..*Gone /)
  })

  it('is told them for the interface that it names, whatever its name', () => {
    const named = (name: string) => commandsFor('10.44.8.250', 24, name).map(({ set }) => set)
    expect(named("Ethernet 2 (o'clock)")[2]).toContain("-InterfaceAlias 'Ethernet 2 (o''clock)'")
    const [linux = ''] = named("a'; reboot #")
    const words = linux.replace('sudo ip address add', 'printf "%s\\n"')
    expect(spawnSync('sh', ['-c', words], { encoding: 'utf8' }).stdout).toBe("10.44.8.250/24\ndev\na'; reboot #\n")
  })
})

it('an interface of a server has a name that is one', () => {
  for (const name of ['eth0', 'br-lan', 'enp3s0.44', 'lo']) expect(interfaceNameRule.test(name)).toBe(true)
  for (const name of ['', '-x', 'a b', 'eth0"]', 'a'.repeat(16)]) expect(interfaceNameRule.test(name)).toBe(false)
})

describe('names that would be more than a name', () => {
  const hostile = 'm\ndhcp-script=/tmp/x\u2028dhcp-option=6,10.0.0.66'
  const bad = {
    ...input,
    brief: { ...demoBrief, management: { ...demoBrief.management, name: hostile } },
    units: [{ name: 'a\n10.0.0.66 bank.example', mac: controller.mac, address: controller.address }],
  }

  it('stay in their comment and their line, in every form', () => {
    const lines = dnsmasqConfig(bad)
      .trimEnd()
      .split(/[\n\u2028]/)
    expect(lines[0]).toBe('# m dhcp-script=/tmp/x dhcp-option=6,10.0.0.66, 10.44.8.0/24: made by Air Muster')
    expect(lines.filter((line) => /^dhcp-(script|option=6)/.test(line))).toEqual([])
    expect(hostsFile(bad).trimEnd().split('\n')).toEqual(['10.44.8.20  a-10-0-0-66-bank-example'])
    expect(checked('/usr/sbin/dnsmasq', ['--test', '-C'], 'bad.conf', dnsmasqConfig(bad)).status).toBe(0)
    expect(JSON.parse(keaConfig(bad, 'lo')).Dhcp4.subnet4[0].reservations[0].hostname).toBe('a-10-0-0-66-bank-example')
  })

  it('are refused before, where they are typed or come in with a file', () => {
    const reading = briefSchema.safeParse(bad.brief)
    expect(english(reading.error?.issues)).toMatchObject([
      { path: ['management', 'name'], message: 'this stands on one line, without tabs or other control characters' },
    ])
    expect(
      unitSchema.safeParse({ id: 'a', place: '', model: 'x', serial: '', port: null, ...bad.units[0] }).success,
    ).toBe(false)
  })
})
