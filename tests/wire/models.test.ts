/** Our YANG module, and the data that goes over the wire, judged by yanglint. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { compare } from '../../src/core/config/compare'
import { LabClock } from '../../src/lab/clock'
import { AccessPoint } from '../../src/lab/stand-in/access-point'
import { operationalData } from '../../src/lab/stand-in/operational'
import { ostrelO40 } from '../../src/lab/stand-in/sheet'
import { loadRegulatory } from '../../src/store/regulatory-file'
import { toUnitConfig } from '../../src/wire/codec/yang-data'
import { yangPatch } from '../../src/wire/codec/yang-patch'
import { editsFor } from '../../src/wire/dialect/restconf/edits'

const model = join(import.meta.dirname, '../../models/air-muster-wireless.yang')
const ietf = '/usr/share/yuma/modules/ietf'
const nmda = '/usr/share/yuma/nmda-modules/ietf'
const modules = [
  `${ietf}/ietf-system@2014-08-06.yang`,
  `${nmda}/ietf-interfaces@2018-02-20.yang`,
  `${nmda}/ietf-ip@2018-02-22.yang`,
  `${ietf}/iana-if-type@2014-05-08.yang`,
  model,
]
const features = ['-F', 'ietf-system:ntp,local-users,authentication,timezone-name']
const folder = mkdtempSync(join(tmpdir(), 'air-muster-yang-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function yanglint(...args: string[]): { good: boolean; words: string } {
  const result = spawnSync('yanglint', ['-p', nmda, '-p', ietf, ...features, ...args], { encoding: 'utf8' })
  return { good: result.status === 0, words: result.stdout + result.stderr }
}

function judge(type: 'config' | 'data' | 'edit', data: unknown): { good: boolean; words: string } {
  const file = join(folder, `${type}.json`)
  writeFileSync(file, JSON.stringify(data))
  return yanglint('-t', type, ...modules, file)
}

const boxed = (): AccessPoint =>
  new AccessPoint(ostrelO40, { mac: '02:4f:52:00:00:01', serial: 'S-1' }, new LabClock(1000), loadRegulatory())

describe('yanglint', () => {
  it('accepts our module with the IETF modules that it needs, without a warning', () => {
    expect(yanglint(...modules)).toEqual({ good: true, words: '' })
  })

  it('accepts what a boxed unit serves as its configuration', () => {
    expect(judge('config', boxed().configuration)).toMatchObject({ good: true })
  })

  it('accepts what a unit serves as its state', () => {
    const unit = boxed()
    unit.powerOn()
    expect(judge('data', operationalData(unit))).toEqual({ good: true, words: '' })
  })

  it('accepts every change that we send, and what a unit has after it', () => {
    const unit = boxed()
    const found = toUnitConfig(unit.configuration, 'uplink')
    const wanted = {
      ...found,
      country: 'NZ',
      name: 'hall-01',
      clock: { timeZone: 'Pacific/Auckland', ntpServers: ['10.44.8.1'] },
      networks: [
        {
          ssid: 'Ellery Crew',
          enabled: true,
          hidden: false,
          security: { mode: 'wpa2-personal' as const, passphrase: 'eight or more' },
          vlan: 46,
          isolation: false,
          bands: ['2.4' as const, '5' as const],
        },
      ],
      radios: found.radios.map((radio) => ({ ...radio, powerDbm: 14, width: 20 })),
      management: {
        method: 'static' as const,
        address: '10.44.8.20',
        prefix: 24,
        gateway: '10.44.8.1',
        dnsServers: ['10.44.8.1'],
      },
      services: { lights: false },
    }
    const edits = editsFor(compare(wanted, found), wanted, 'uplink')
    expect(edits.length).toBeGreaterThan(8)
    unit.edit(yangPatch('p', edits)['ietf-yang-patch:yang-patch'].edit)
    expect(judge('config', unit.configuration)).toMatchObject({ good: true })
    for (const edit of edits.filter((each) => each.target.startsWith('/air-muster-wireless:wireless/') && each.value)) {
      expect(
        judge('edit', {
          'air-muster-wireless:wireless': Object.fromEntries(
            Object.entries(edit.value ?? {}).map(([name, value]) => [name.split(':')[1], value]),
          ),
        }),
      ).toMatchObject({ good: true })
    }
  })

  it('rejects data with a channel width that there is not: the judge can say no', () => {
    const unit = boxed()
    const wireless = unit.configuration['air-muster-wireless:wireless']
    const faulty = {
      ...unit.configuration,
      'air-muster-wireless:wireless': { ...wireless, radio: wireless.radio.map((radio) => ({ ...radio, width: 30 })) },
    }
    const verdict = judge('config', faulty)
    expect(verdict.good).toBe(false)
    expect(verdict.words).toMatch(/range/)
  })
})
