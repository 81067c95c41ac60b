import { describe, expect, it } from 'vitest'
import { cardOf, cards } from '../../../tests/support/data'
import { evidenceText, modelWords } from '../../words/en/recognised'
import { type Evidence, fits, howSure, perhapsByMac, recognise } from './recognise'

const ostrel = '02:4f:52:00:00:01'
const known = (evidence: Evidence, mac = ostrel) => recognise(evidence, mac, cards.values())

describe('a unit is known', () => {
  it.each<[string, Evidence, string, string, string[]]>([
    ['its sign-in', { realm: 'Ostrel O-40' }, ostrel, 'Ostrel O-40', ['realm', 'mac']],
    ['its certificate', { certificate: 'CN=O40-1, O=Ostrel O-40' }, ostrel, 'Ostrel O-40', ['certificate', 'mac']],
    ['its SSH banner', { banner: 'SSH-2.0-Brackwater-B7' }, '02:b7:1c:00:00:01', 'Brackwater B7', ['banner', 'mac']],
    ['its page', { title: 'Pellworth P6' }, '02:50:36:00:00:01', 'Pellworth P6', ['title', 'mac']],
    ['LLDP', { lldp: 'Brackwater B7, firmware 2' }, ostrel, 'Brackwater B7', ['lldp']],
    ['SNMP', { sysObjectId: '1.3.6.1.4.1.32473.9.1' }, ostrel, 'Tarnhelm C1', ['sysObjectId']],
  ])('by %s, and by its MAC where that is of its card', (_by, evidence, mac, model, by) => {
    expect(known(evidence, mac)).toEqual({ model, by })
  })

  it('by several things that agree, and by none where one contradicts', () => {
    const agreeing = { realm: 'Ostrel O-40', certificate: 'CN=O40-1, O=Ostrel O-40', lldp: 'whatever' }
    expect(known(agreeing).by).toEqual(['realm', 'certificate', 'mac'])
    expect(known({ ...agreeing, certificate: 'CN=O20-1, O=Ostrel O-20' })).toEqual({ model: 'Ostrel O-40', by: [] })
    expect(fits({ ...agreeing, certificate: 'CN=O20-1, O=Ostrel O-20' }, cardOf('Ostrel O-40'))).toBe(false)
  })

  it('in its own words where no card knows it, and not at all where it says nothing', () => {
    expect(known({ banner: 'SSH-2.0-strange', lldp: 'a strange box' })).toEqual({ model: 'SSH-2.0-strange', by: [] })
    expect(known({})).toEqual({ model: null, by: [] })
  })
})

describe('a MAC alone', () => {
  it('is perhaps a model, or a maker’s where several of one maker have the prefix', () => {
    expect(perhapsByMac(ostrel, cards.values())).toBe('Ostrel O-40')
    expect(perhapsByMac('02:99:99:00:00:01', cards.values())).toBeUndefined()
    const one = cardOf('Ostrel O-40')
    const sister = { ...cardOf('Ostrel O-20'), recognise: one.recognise }
    expect(perhapsByMac(ostrel, [one, sister])).toBe('Ostrel')
    expect(perhapsByMac(ostrel, [one, { ...sister, maker: 'Another' }])).toBeUndefined()
  })
})

it('is sure where two things agree, and says what they are', () => {
  expect([howSure(['realm', 'mac']), howSure(['lldp'])]).toEqual(['sure', 'likely'])
  expect(evidenceText(['realm', 'certificate', 'mac'])).toBe('by sign-in, certificate and MAC')
  expect(evidenceText(['sysObjectId'])).toBe('by SNMP alone')
  expect(evidenceText([])).toBe('')
  expect(modelWords({ model: 'Ostrel O-40', by: ['realm', 'mac'] })).toBe('Ostrel O-40')
  expect(modelWords({ model: 'Brackwater B7', by: ['lldp'] })).toBe('probably Brackwater B7, by LLDP alone')
  expect(modelWords({ model: 'its own words', by: [] })).toBe('its own words')
  expect(modelWords({ model: null, by: [], perhaps: 'Ostrel' })).toBe('perhaps Ostrel, by MAC alone')
  expect(modelWords({ model: null, by: [] })).toBeUndefined()
})
