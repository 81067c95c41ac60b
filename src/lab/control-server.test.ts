import { afterAll, beforeAll, expect, it } from 'vitest'
import { loadRegulatory } from '../store/regulatory-file'
import { HostAwayError } from '../wire/host/host'
import { labHost } from '../wire/host/lab'
import { type ControlServer, serveControl } from './control-server'
import { Lab } from './lab'

const mac = '02:4f:52:00:00:01'
const token = 'a-token-of-the-test'
let lab: Lab
let control: ControlServer
let url: string

beforeAll(async () => {
  lab = await Lab.open({
    pace: 1000,
    regulatory: loadRegulatory(),
    shelf: [{ model: 'Ostrel O-40', mac, serial: 'S' }],
  })
  control = await serveControl(lab, token)
  url = `http://127.0.0.1:${control.port}`
})
afterAll(async () => {
  await control.close()
  await lab.close()
})
const post = (path: string, body: unknown, given = token) =>
  fetch(`${url}${path}`, { method: 'POST', headers: { 'x-lab-token': given }, body: JSON.stringify(body) })

it('answers nobody without the token', async () => {
  expect((await post('/hand', { do: 'plug-in', mac }, 'another')).status).toBe(403)
  expect((await fetch(`${url}/shelf`)).status).toBe(403)
  expect(lab.units()[0]?.phase).toBe('off')
})

it('does what hands do, and refuses what it does not know', async () => {
  expect((await post('/hand', { do: 'plug-in', mac })).status).toBe(200)
  await expect.poll(() => lab.units()[0]?.phase).toBe('up')
  expect(await (await fetch(`${url}/shelf`, { headers: { 'x-lab-token': token } })).json()).toMatchObject({
    units: [{ mac, model: 'Ostrel O-40', phase: 'up', address: '192.168.77.1', lights: 'steady white' }],
    air: { everOpen: [] },
  })
  expect((await post('/hand', { do: 'dance', mac })).status).toBe(400)
  expect((await post('/hand', { do: 'plug-in', mac: '00:00:00:00:00:00' })).status).toBe(400)
  expect((await post('/nothing', {})).status).toBe(404)
})

it('is a host to whoever has the token', async () => {
  const host = labHost({ url, token })
  expect(await host.arp('192.168.77.1')).toEqual([mac])
  const lane = await host.openLane({ mac, address: '192.168.77.1', prefix: 24 })
  expect(await lane.ping()).toBe(true)
  const socket = await lane.connect(443)
  socket.destroy()
  await expect(lane.connect(81)).rejects.toMatchObject({
    kind: 'unreachable',
    told: { code: 'lab-no-answer', params: { address: '192.168.77.1', port: 81, mac } },
  })
  await lane.close()
  expect((await host.laptop()).lanes).toBe(0)
  await expect(labHost({ url, token: 'another' }).arp('192.168.77.1')).rejects.toThrow(HostAwayError)
  await expect(labHost({ url: 'http://127.0.0.1:1', token }).laptop()).rejects.toThrow('wire-broken')
})

it('has no stand-in for a model that it does not know, and says which it has', async () => {
  await expect(
    Lab.open({ pace: 1, regulatory: loadRegulatory(), shelf: [{ model: 'Ostrel O-99', mac, serial: 'S' }] }),
  ).rejects.toThrow('the lab has no stand-in for Ostrel O-99; it has Ostrel O-40')
  await expect(Lab.open({ pace: 0, regulatory: loadRegulatory(), shelf: [] })).rejects.toThrow('a pace is above 0')
})
