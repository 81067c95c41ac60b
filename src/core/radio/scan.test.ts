import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
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
    expect(faults).toEqual([expect.stringMatching(/^02:aa:00:00:00:06: band: /)])
  })
})

describe('a table', () => {
  it('is read by its headings, and tells the line of what is none', () => {
    const { networks, faults } = readScan(
      '\ufeffBand;Network;Signal;Channel;Width MHz\n5 GHz;Baker;-71 dBm;100;40\n2.4;Mill;-60;11;\n5;x;-60;37;20\n5;y;loud;36;20\n',
      null,
    )
    expect(networks).toEqual([
      { ssid: 'Mill', unit: null, band: '2.4', channel: 11, width: 20, dbm: -60 },
      { ssid: 'Baker', unit: null, band: '5', channel: 100, width: 40, dbm: -71 },
    ])
    expect(faults).toEqual([
      'line 4: there is no channel 37 of 20 MHz at 5 GHz.',
      expect.stringMatching(/^line 5: dbm: /),
    ])
  })
})

it('takes no level for one where nothing stands in its column', () => {
  const { networks, faults } = readScan('ssid,band,channel,width,dbm\nMill,5,36,20,\n', null)
  expect(networks).toEqual([])
  expect(faults).toEqual([expect.stringMatching(/^line 2: dbm: /)])
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
