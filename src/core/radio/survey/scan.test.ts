import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { english } from '../../../../tests/support/english'
import { readScan } from './scan'

const iw = `BSS 02:aa:00:00:00:01(on wlan0)
	TSF: 1234567 usec (0d, 00:00:01)
	freq: 5180.0
	beacon interval: 100 TUs
	signal: -61.00 dBm
	last seen: 12 ms ago
	SSID: Caf\\xc3\\xa9 next door
	HT operation:
		 * primary channel: 36
		 * secondary channel offset: above
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 42
		 * center freq segment 2: 0
BSS 02:aa:00:00:00:02(on wlan0)
	freq: 5180
	signal: -70.00 dBm
	SSID: Caf\\xc3\\xa9 next door
	HT operation:
		 * secondary channel offset: above
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 42
		 * center freq segment 2: 0
BSS 02:aa:00:00:00:03(on wlan0) -- associated
	freq: 2437
	signal: -48.00 dBm
	SSID: Baker
	HT operation:
		 * secondary channel offset: no secondary
BSS 02:aa:00:00:00:04(on wlan0)
	freq: 5260
	signal: -80.00 dBm
	SSID:
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 58
		 * center freq segment 2: 50
BSS 02:aa:00:00:00:05(on wlan0)
	freq: 2412
	signal: -95.00 dBm
	SSID: far away
BSS 02:aa:00:00:00:06(on wlan0)
	freq: 902
	signal: -50.00 dBm
	SSID: another band
`

describe('a scan of iw', () => {
  it('is read network by network: channel, width, the loudest of those that are alike', () => {
    const { networks, faint, faults } = readScan(iw, 'hall-01')
    expect(networks).toEqual([
      { ssid: 'Baker', unit: 'hall-01', band: '2.4', channel: 6, width: 20, dbm: -48 },
      { ssid: 'Café next door', unit: 'hall-01', band: '5', channel: 36, width: 80, dbm: -61 },
      { ssid: '', unit: 'hall-01', band: '5', channel: 52, width: 160, dbm: -80 },
    ])
    expect(faint).toBe(1)
    expect(english(faults)).toEqual([expect.stringMatching(/^02:aa:00:00:00:06: band: /)])
  })
})

/** What one network is read as; `lines` as iw prints them. */
const one = (...lines: string[]) => readScan(`BSS 02:aa:00:00:00:01(on wlan0)\n${lines.join('\n')}\n`, null)
const at = (mhz: number) => one(`\tfreq: ${mhz}`, '\tsignal: -60.00 dBm', '\tSSID: Baker')

describe('a network of a scan', () => {
  it.each([
    [2412, '2.4', 1],
    [2472, '2.4', 13],
    [2484, '2.4', 14],
    [5180, '5', 36],
    [5885, '5', 177],
    [5955, '6', 1],
    [7115, '6', 233],
  ])('at %i MHz is in the %s GHz band on channel %i', (mhz, band, channel) => {
    expect(at(mhz).networks).toMatchObject([{ band, channel, width: 20 }])
  })

  it('is on no channel of ours at other frequencies, and says so', () => {
    expect(english(at(5160).faults)).toEqual(['02:aa:00:00:00:01: there is no channel 32 of 20 MHz at 5 GHz.'])
    for (const mhz of [2407, 2477, 5155, 5890, 5950, 7120])
      expect(english(at(mhz).faults), `${mhz}`).toEqual([expect.stringMatching(/^02:aa:00:00:00:01: band: /)])
  })

  it('is as wide as its elements say', () => {
    const width = (...more: string[]) => one('\tfreq: 5180', '\tsignal: -60.00 dBm', ...more).networks[0]?.width
    const ht = (offset: string) => [
      '\tHT operation:',
      '\t\t * primary channel: 36',
      `\t\t * secondary channel offset: ${offset}`,
    ]
    const vht = (kind: string, one: number, two: number) => [
      ...['\tVHT operation:', `\t\t * channel width: ${kind}`],
      ...[`\t\t * center freq segment 1: ${one}`, `\t\t * center freq segment 2: ${two}`],
    ]
    expect(width(...ht('above'))).toBe(40)
    expect(width(...ht('no secondary'))).toBe(20)
    expect(width(...ht('above'), ...vht('0 (20 or 40 MHz)', 0, 0))).toBe(40)
    expect(width(...ht('above'), ...vht('1 (80 MHz)', 42, 0))).toBe(80)
    expect(width(...ht('above'), ...vht('1 (80 MHz)', 42, 50))).toBe(160)
    // Two blocks of 80 MHz apart from each other: the one with the primary channel counts.
    expect(width(...ht('above'), ...vht('1 (80 MHz)', 42, 155))).toBe(80)
    expect(width(...ht('above'), ...vht('2 (160 MHz)', 50, 0))).toBe(160)
    const below = one('\tfreq: 5200', '\tsignal: -60.00 dBm', ...ht('below'))
    expect(below.networks[0]?.width).toBe(40)
  })

  it('keeps the side of its second channel at 2.4 GHz, where the width alone leaves it open', () => {
    const pair = (offset: string) =>
      one('\tfreq: 2437', '\tsignal: -60.00 dBm', '\tHT operation:', `\t\t * secondary channel offset: ${offset}`)
        .networks
    expect(pair('above')).toMatchObject([{ channel: 6, width: 40, secondary: 'above' }])
    expect(pair('below')).toMatchObject([{ channel: 6, width: 40, secondary: 'below' }])
    expect(pair('no secondary')).toEqual([expect.not.objectContaining({ secondary: expect.anything() })])
    expect(
      english(
        one('\tfreq: 2462', '\tsignal: -60 dBm', '\tHT operation:', '\t\t * secondary channel offset: above').faults,
      ),
    ).toEqual(['02:aa:00:00:00:01: there is no channel 11 of 40 MHz at 2.4 GHz.'])
  })

  it('is as wide at 6 GHz as its HE Operation element says', () => {
    const width = (octets: string) =>
      one('\tfreq: 6115', '\tsignal: -60.00 dBm', `\tUnknown Extension ID (36): ${octets}`).networks[0]?.width
    // Channel 33: parameters with bit 17, colour, rates, then primary, control, centres, least rate.
    expect(width('00 00 02 2a fc ff 21 00 21 00 06')).toBe(20)
    expect(width('00 00 02 2a fc ff 21 01 23 00 06')).toBe(40)
    expect(width('00 00 02 2a fc ff 21 02 27 00 06')).toBe(80)
    expect(width('00 00 02 2a fc ff 21 03 27 2f 06')).toBe(160)
    expect(width('00 00 02 2a fc ff 21 03 27 67 06')).toBe(80)
    // VHT operation and co-hosted BSSIDs stand before it.
    expect(width('00 c0 02 2a fc ff 01 2a 00 05 21 02 27 00 06')).toBe(80)
    // Cut short, or without that part.
    expect(width('00 00 02 2a fc ff 21')).toBe(20)
    expect(width('00 00 00 2a fc ff')).toBe(20)
    expect(one('\tfreq: 6115', '\tsignal: -60.00 dBm').networks[0]?.width).toBe(20)
  })

  it('is not led astray by its name, however its lines are set in and in whatever order they come', () => {
    const name = 'freq: 5180 signal: -10 dBm SSID:'
    const told = readScan(
      `last BSS list\n  BSS 02:aa:00:00:00:07\nBSS 02:aa:00:00:00:01(on wlan0)\n\tSSID: ${name}\n\t\tsignal: ` +
        `-60.00 dBm\n  freq: 2437\n`,
      null,
    )
    expect(told.faults).toEqual([])
    expect(told.networks).toEqual([{ ssid: name, unit: null, band: '2.4', channel: 6, width: 20, dbm: -60 }])
    expect(one('SSID: BSS 02:aa:00:00:00:09', 'signal: -1 dBm', 'freq: 2437').networks).toMatchObject([
      { ssid: 'BSS 02:aa:00:00:00:09' },
    ])
    expect(one('SSID: two  words ', 'signal: 0.00 dBm', 'freq: 2437').networks).toMatchObject([
      { ssid: 'two  words ', dbm: 0 },
    ])
  })

  it('without a whole MAC is a network all the same', () => {
    expect(english(readScan('BSS 02:aa\n\tfreq: 902\n', null).faults)).toEqual([expect.stringMatching(/^BSS: band: /)])
  })

  it('is as loud as where it was heard loudest, and disturbs nobody at -92 dBm', () => {
    const entry = (dbm: string) =>
      `BSS 02:aa:00:00:00:01(on wlan0)\n\tfreq: 5180\n\tsignal: ${dbm} dBm\n\tSSID: Baker\n`
    expect(readScan(entry('-70.00') + entry('-50.00') + entry('-60.00'), null).networks).toMatchObject([{ dbm: -50 }])
    expect(readScan(entry('-92.00'), null)).toEqual({ networks: [], faint: 1, faults: [] })
    expect(readScan(entry('-91.90'), null).faint).toBe(0)
  })
})

describe('a table', () => {
  it('may say on which side a pair at 2.4 GHz has its second channel', () => {
    const { networks, faults } = readScan(
      'ssid,band,channel,width,secondary,dbm\nMill,2.4,6,40,Above,-60\n,2.4,6,40,x,-60\n',
      null,
    )
    expect(networks).toMatchObject([{ ssid: 'Mill', width: 40, secondary: 'above' }])
    expect(english(faults)).toEqual([expect.stringMatching(/^line 3: secondary: /)])
  })

  it('may call a network by its name, which may look like the beginning of a scan, and needs that column', () => {
    const { networks } = readScan('Band,Channel,dBm,Name\n5GHz,36,-61dBm,BSS 02:aa\n5,40,-62,a\ufeffb\n', null)
    expect(networks.map(({ ssid, dbm }) => [ssid, dbm])).toEqual([
      ['BSS 02:aa', -61],
      ['a\ufeffb', -62],
    ])
    expect(english(readScan('band,channel,dbm\n5,36,-61\n', null).faults)).toEqual([
      expect.stringMatching(/^line 2: ssid: /),
    ])
  })

  it('is read by its headings, and tells the line of what is none', () => {
    const { networks, faults } = readScan(
      '\ufeffBand;Network;Signal;Channel;Width MHz\n5 GHz;Baker;-71 ' +
        'dBm;100;40\n2.4;Mill;-60;11;\n5;x;-60;37;20\n5;y;loud;36;20\n',
      null,
    )
    expect(networks).toEqual([
      { ssid: 'Mill', unit: null, band: '2.4', channel: 11, width: 20, dbm: -60 },
      { ssid: 'Baker', unit: null, band: '5', channel: 100, width: 40, dbm: -71 },
    ])
    expect(english(faults)).toEqual([
      'line 4: there is no channel 37 of 20 MHz at 5 GHz.',
      expect.stringMatching(/^line 5: dbm: /),
    ])
  })
})

it('takes no level for one where nothing stands in its column', () => {
  const { networks, faults } = readScan('ssid,band,channel,width,dbm\nMill,5,36,20,\n', null)
  expect(networks).toEqual([])
  expect(english(faults)).toEqual([expect.stringMatching(/^line 2: dbm: /)])
})

it('ends with networks or sentences, whatever is pasted', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.string().map((text) => `BSS 02:aa:00:00:00:01\n${text}`),
      ),
      (text) => {
        const { networks, faults } = readScan(text, null)
        expect([...networks, ...faults].length).toBeLessThan(1000)
      },
    ),
  )
})
