import { connect } from 'node:net'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { compare } from '../../src/core/config/compare'
import { asObserved, type Clear, type Config } from '../../src/core/config/unit-config'
import type { DirectCard } from '../../src/core/kit/kit-card'
import { Lab } from '../../src/lab/lab'
import { loadRegulatory } from '../../src/store/regulatory-file'
import type { Dialect } from '../../src/wire/dialect/dialect'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'
import { dialectOf } from '../../src/wire/registry'
import { desiredFor, valuesIn } from '../support/config'
import { cardOf, demoBrief } from '../support/data'
import { mixedBrief } from '../support/whole-brief'

const mac = '02:b7:1c:00:00:01'
const model = 'Brackwater B7'
const factory = { user: 'field', password: 'field' }
const openPrompt = await dialectOf('prompt')
const kindOf = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'no error',
    (error: unknown) => (error instanceof WireError ? error.kind : String(error)),
  )

describe('the prompt dialect at the prompt of a Brackwater B7', () => {
  let lab: Lab
  let unit: Dialect
  const card = cardOf(model) as DirectCard

  const lane: Lane = {
    ...{ mac, address: '172.31.9.1', prefix: 24, source: '172.31.9.254' },
    connect: async (port) => connect(lab.plugged(mac).front.loopbackPort(port) ?? 1, '127.0.0.1'),
    datagrams: () => Promise.reject(new Error('it takes none')),
    ping: async () => true,
    close: async () => {},
  }
  const open = (): Dialect => openPrompt(lane, card, async () => {})
  /** As a muster does it: country first, then whatever differs after it. */
  const writeTo = async (desired: Config<Clear>): Promise<void> => {
    await unit.write(countryOf(desired, await unit.read('configured')), desired)
    await unit.write(compare(desired, await unit.read('configured')), desired)
  }
  const countryOf: typeof compare = (desired, observed) =>
    compare(desired, observed).filter((each) => each.kind === 'value' && each.id === 'unit.country')
  /** All but its way, which would end the session. */
  const asMuch = (brief = demoBrief): Config<Clear> => {
    const desired = desiredFor(model, brief)
    const unit = Object.entries(desired.unit).filter(([id]) => !id.startsWith('management.'))
    return { ...desired, unit: Object.fromEntries(unit) }
  }

  beforeEach(async () => {
    lab = await Lab.open({ pace: 1000, regulatory: loadRegulatory(), shelf: [{ model, mac, serial: 'B7-1' }] })
    lab.plugInAll()
    await expect.poll(() => lab.plugged(mac).unit.serviceIsUp).toBe(true)
    unit = open()
    await unit.signIn(factory)
  })
  afterEach(async () => {
    unit.close()
    await lab.close()
  })

  it('finds its radios off, and reads everything that its card says it shows', async () => {
    const found = valuesIn(await unit.read('configured'))
    expect(found.radios['5']).toMatchObject({ 'radio.enabled': false, 'radio.channel': 36, 'radio.power': 8 })
    expect(found.unit).toMatchObject({ 'management.address': '172.31.9.1', 'unit.country': 'US' })
    const shown = Object.entries(card.can).filter(([id, detail]) => detail?.readable !== 'no' && id.startsWith('unit.'))
    expect(Object.keys(found.unit)).toEqual(expect.arrayContaining(shown.map(([id]) => id)))
  })

  it('is known by what its service says of itself, and refused with a wrong password', async () => {
    expect(await unit.identify()).toMatchObject({ banner: 'SSH-2.0-Brackwater-B7' })
    expect(await kindOf(open().signIn({ user: 'field', password: 'wrong' }))).toBe('refused')
  })

  it('reads back all that it wrote, page by page; what it hides is told apart by marks', async () => {
    const desired = asMuch({
      ...mixedBrief,
      networks: mixedBrief.networks.filter(({ security }) => security === 'wpa2-personal'),
    })
    await writeTo(desired)
    const left = compare(desired, await unit.read('configured')).map((each) => each.kind === 'value' && each.id)
    expect(left).toEqual([
      ...['services.snmp-authentication', 'services.snmp-privacy'],
      ...Object.keys(desired.networks).map(() => 'network.passphrase'),
    ])
    expect(lab.air.everOpen).toEqual([])
  })

  it('takes nothing that a brief can hold for a command', async () => {
    const nasty = [
      '"; restart now',
      "it's \\",
      '$(reboot) `reboot`',
      'a ? b',
      '# | && ;',
      ' lead and trail ',
      'Ünïcödé 東京',
    ]
    for (const ssid of nasty) {
      const desired = asMuch()
      const [id = ''] = Object.keys(desired.networks)
      const passphrase = '"; keep ? \\" $(x) end'
      const network = { ...desired.networks[id], 'network.ssid': ssid, 'network.passphrase': passphrase }
      await writeTo({ ...desired, networks: { [id]: network } })
      expect(lab.plugged(mac).unit.effective.networks).toMatchObject([{ id, name: ssid, passphrase }])
      expect(valuesIn(await unit.read('configured')).networks[id]?.['network.ssid']).toBe(ssid)
    }
    expect(await unit.saving?.isSaved()).toBe(false)
  })

  it('refuses a value with a line end before anything is typed', async () => {
    const desired = asMuch()
    const named = { ...desired, unit: { ...desired.unit, 'unit.location': 'hall\nkeep' } }
    const differences = compare(named, await unit.read('configured')).filter(
      (each) => each.kind === 'value' && each.id === 'unit.location',
    )
    expect(await kindOf(unit.write(differences, named))).toBe('rejected')
    expect(lab.plugged(mac).unit.effective.location).toBe('')
  })

  it('gives the unit’s own reason for what it refuses', async () => {
    const found = valuesIn(await unit.read('configured'))
    const loud = { ...found, radios: { ...found.radios, '5': { ...found.radios['5'], 'radio.channel': 60 } } }
    const wide = {
      ...loud,
      radios: { ...loud.radios, '5': { ...loud.radios['5'], 'radio.enabled': true, 'radio.power': 9 } },
    }
    const rejection = await unit.write(compare(wide, asObserved(found)), wide).catch((error: unknown) => error)
    expect(rejection).toMatchObject({ kind: 'rejected' })
    expect(String(rejection)).toContain('9 dBm is not one of its steps')
  })

  it('takes a network away that nobody asked for', async () => {
    const desired = asMuch()
    await writeTo(desired)
    expect(lab.plugged(mac).unit.effective.networks.map(({ id }) => id)).toEqual(Object.keys(desired.networks))
  })

  it('loses what was not saved, and keeps what was', async () => {
    await writeTo(asMuch())
    lab.unplug(mac)
    lab.plugIn(mac)
    expect(lab.plugged(mac).unit.effective.name).not.toBe('hall-01')
    await expect.poll(() => lab.plugged(mac).unit.serviceIsUp).toBe(true)
    await unit.signIn(factory)
    await writeTo(asMuch())
    await unit.saving?.save()
    expect(await unit.saving?.isSaved()).toBe(true)
    lab.unplug(mac)
    lab.plugIn(mac)
    expect(lab.plugged(mac).unit.effective.name).toBe('hall-01')
  })

  it('changes the password at once, and shows no secret in its backup', async () => {
    await writeTo(asMuch())
    await unit.changePassword('field', 'A-new-passw0rd?')
    expect(await kindOf(open().signIn(factory))).toBe('refused')
    await unit.signIn({ user: 'field', password: 'A-new-passw0rd?' })
    const backup = await unit.copies?.backup()
    expect(backup).toContain('net ')
    expect(backup).not.toMatch(/A-new-passw0rd|Secret of|-- more --/)
  })

  it('answers yes where it asks back, and is gone', async () => {
    await unit.restart?.()
    await expect.poll(() => lab.plugged(mac).unit.phase).toBe('starting')
    expect(await kindOf(unit.read('configured'))).toBe('unreachable')
  })
})
