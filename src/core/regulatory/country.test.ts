import { describe, expect, it } from 'vitest'
import { regulatory } from '../../../tests/support/data'
import { countriesByName, countryName, nearCountries } from './country'

const codes = [...regulatory.keys()]
const near = (typed: string): string[] => nearCountries(typed, codes).map(({ code }) => code)

describe('countries', () => {
  it('have their names, the world default its own, and an unknown code names itself', () => {
    expect(countryName('NZ')).toBe('New Zealand')
    expect(countryName('00')).toBe('World default')
    expect(countryName('QQ')).toBe('QQ')
  })

  it('are listed by name', () => {
    expect(countriesByName(['US', 'DE', '00', 'NZ']).map(({ code, name }) => `${code} ${name}`)).toEqual([
      'DE Germany',
      'NZ New Zealand',
      'US United States',
      '00 World default',
    ])
  })
})

describe('what somebody typed', () => {
  it.each([
    ['uk', 'GB'],
    ['England', 'GB'],
    ['usa', 'US'],
    ['Holland', 'NL'],
    ['world', '00'],
    ['New Zealand', 'NZ'],
    ['  germany ', 'DE'],
    ['Germny', 'DE'],
    ['Zealand', 'NZ'],
    ['ZN', 'NZ'],
  ])('%s is nearest to %s', (typed, code) => {
    expect(near(typed)[0]).toBe(code)
  })

  it('is named by its beginning before what holds it, and that before what is spelt nearly so', () => {
    const among = (typed: string, of: string[]): string[] => nearCountries(typed, of).map(({ code }) => code)
    expect(among('niger', ['NG', 'NE'])).toEqual(['NE', 'NG'])
    expect(among('guinea', ['GQ', 'GN', 'GW', 'PG'])).toEqual(['GN', 'GW', 'GQ', 'PG'])
    expect(among('irak', ['IR', 'IQ'])).toEqual(['IR', 'IQ'])
    expect(among('iraq', ['IR', 'IQ'])).toEqual(['IQ', 'IR'])
  })

  it('of two letters is near to those that share one at its place, the first counting more', () => {
    expect(nearCountries('NX', ['NZ', 'AX', 'DE'])).toEqual([
      { code: 'NZ', name: 'New Zealand' },
      { code: 'AX', name: 'Åland Islands' },
    ])
    expect(nearCountries('ED', ['DE', 'EC', 'AD']).map(({ code }) => code)).toEqual(['DE', 'EC', 'AD'])
  })

  it('has five near ones at the most, and none where nothing is near or nothing was typed', () => {
    expect(near('N')).toHaveLength(5)
    expect(near('Xyzzyplugh')).toEqual([])
    expect(near('   ')).toEqual([])
  })
})
