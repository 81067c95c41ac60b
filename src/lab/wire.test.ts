import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { loadRegulatory } from '../store/regulatory-file'
import { plainNetwork } from './device/device-settings'
import { Lab } from './lab'

const macs = ['02:4f:52:00:00:01', '02:4f:52:00:00:02', '02:4f:52:00:00:03'] as const
const [first, second, third] = macs
const factory = (mac: string) => ({ mac, address: '192.168.77.1', prefix: 24 })
let lab: Lab

beforeEach(async () => {
  lab = await Lab.open({
    pace: 1000,
    regulatory: loadRegulatory(),
    shelf: macs.map((mac, index) => ({ model: 'Ostrel O-40', mac, serial: `S-${index}` })),
  })
})
afterEach(() => lab.close())
const everybodyUp = () => expect.poll(() => lab.units().every((unit) => unit.phase === 'up')).toBe(true)

describe('the wire', () => {
  it('is silent while nothing has power', () => {
    expect(lab.wire.arp('192.168.77.1')).toEqual([])
    expect(lab.wire.laptop()).toMatchObject({ addresses: [{ cidr: '10.44.8.250/24', origin: 'own' }], lanes: 0 })
  })

  it('has every unit that shares an address answer ARP for it', async () => {
    lab.plugInAll()
    await everybodyUp()
    expect(lab.wire.arp('192.168.77.1')).toEqual([...macs])
    expect(lab.wire.arp('192.168.77.2')).toEqual([])
  })

  it('lets nobody dial without a lane, and each lane end at its own unit', async () => {
    lab.plugInAll()
    await everybodyUp()
    expect(lab.wire.dial({ ...factory(first), port: 443 })).toBeNull()
    for (const mac of macs) lab.wire.openLane(factory(mac))
    const ports = macs.map((mac) => lab.wire.dial({ ...factory(mac), port: 443 }))
    expect(new Set(ports).size).toBe(3)
    expect(ports).toEqual(macs.map((mac) => lab.plugged(mac).front.loopbackPort(443)))
    // Out of its box it takes plain HTTP too; nothing listens on the port beside.
    expect(lab.wire.dial({ ...factory(first), port: 80 })).not.toBeNull()
    expect(lab.wire.dial({ ...factory(first), port: 81 })).toBeNull()
  })

  it('gives each lane a source address of its own, never the unit’s, and adds one address to the laptop', async () => {
    const sources = macs.map((mac) => lab.wire.openLane(factory(mac)))
    expect(sources).toEqual(['192.168.77.254', '192.168.77.253', '192.168.77.252'])
    expect(lab.wire.openLane(factory(first))).toBe('192.168.77.254')
    expect(lab.wire.laptop()).toMatchObject({
      lanes: 3,
      addresses: [{ origin: 'own' }, { cidr: '192.168.77.254/24', origin: 'added' }],
    })
    lab.wire.closeLane(factory(second))
    expect(lab.wire.laptop().lanes).toBe(2)
  })

  it('needs no other address where the laptop is in the subnet already', () => {
    expect(lab.wire.openLane({ mac: first, address: '10.44.8.20', prefix: 24 })).toBe('10.44.8.254')
    expect(lab.wire.laptop().addresses).toHaveLength(1)
  })

  it('is put back as it was', async () => {
    lab.plugInAll()
    await everybodyUp()
    lab.wire.openLane(factory(first))
    lab.wire.restore()
    expect(lab.wire.laptop()).toMatchObject({ lanes: 0, addresses: [{ origin: 'own' }] })
    expect(lab.wire.ping(factory(first))).toBe(false)
  })

  it('loses a unit when its cable is out, and only that one', async () => {
    lab.plugInAll()
    await everybodyUp()
    for (const mac of macs) lab.wire.openLane(factory(mac))
    lab.unplug(second)
    expect(macs.map((mac) => lab.wire.ping(factory(mac)))).toEqual([true, false, true])
    expect(lab.wire.arp('192.168.77.1')).toEqual([first, third])
  })
})

describe('an access point', () => {
  it('answers ARP some seconds before its service', async () => {
    const slow = await Lab.open({
      pace: 40,
      regulatory: loadRegulatory(),
      shelf: [{ model: 'Ostrel O-40', mac: first, serial: 'S' }],
    })
    try {
      slow.plugInAll()
      slow.wire.openLane(factory(first))
      await expect.poll(() => slow.wire.arp('192.168.77.1'), { interval: 10 }).toEqual([first])
      expect(slow.wire.dial({ ...factory(first), port: 443 })).toBeNull()
      await expect.poll(() => slow.wire.dial({ ...factory(first), port: 443 }), { interval: 10 }).not.toBeNull()
    } finally {
      await slow.close()
    }
  })

  it('listens for radar for a minute before a radar channel is on air', async () => {
    const calm = await Lab.open({
      pace: 100,
      regulatory: loadRegulatory(),
      shelf: [{ model: 'Ostrel O-40', mac: first, serial: 'S' }],
    })
    try {
      calm.plugInAll()
      const [unit] = calm.units()
      if (!unit) throw new Error('no unit')
      await expect.poll(() => unit.phase).toBe('up')
      unit.configure({
        ...unit.configured,
        radios: unit.configured.radios.map((radio) =>
          radio.band === '5' ? { ...radio, channel: 52, width: 20, power: 14 } : radio,
        ),
        networks: [
          {
            ...plainNetwork,
            id: 'crew',
            name: 'Crew',
            on: true,
            bands: ['5'],
            mode: 'wpa2-personal',
            passphrase: 'eight or more',
          },
        ],
      })
      unit.apply()
      expect(unit.lights).toBe('fast white')
      const radio = () => unit.air().find((each) => each.radio.band === '5')
      await expect.poll(() => radio()?.condition, { interval: 10 }).toBe('listening')
      const seconds = radio()?.listensFor ?? 0
      expect(seconds).toBeGreaterThan(0)
      expect(seconds).toBeLessThanOrEqual(60)
      expect(radio()?.networks).toEqual([])
      await expect.poll(() => radio()?.condition, { interval: 10 }).toBe('on-air')
      expect(radio()?.networks).toMatchObject([{ name: 'Crew', mode: 'wpa2-personal' }])
      expect(unit.lights).toBe('steady green')
    } finally {
      await calm.close()
    }
  })
})
