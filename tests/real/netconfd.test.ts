/**
 * A NETCONF server that nobody here wrote (Debian's netconfd) loads our YANG module, takes what is right and refuses
 * what is not. It is spoken to over the pipes of its own SSH subsystem.
 */
import { type ChildProcess, type ChildProcessWithoutNullStreams, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import shape from '../../models/shape.json'
import { spawnNetconfd } from '../support/netconfd'
import { patience } from '../support/patience'

const model = join(import.meta.dirname, '../../models/air-muster-wireless.yang')
const namespace = 'urn:uuid:6f0d6a2e-9d4b-4c55-8f0e-2b1c7a53e9d4'
const base = 'urn:ietf:params:xml:ns:netconf:base:1.0'
const end = ']]>]]>'
const folder = mkdtempSync(join(tmpdir(), 'air-muster-netconfd-'))
const socket = join(folder, 'ncx.sock')
const port = '8330'

let server: ChildProcess
let session: ChildProcessWithoutNullStreams | undefined
let heard = ''
let told = ''

beforeAll(async () => {
  server = spawnNetconfd([
    '--no-startup',
    `--module=${model}`,
    `--superuser=${process.env.USER ?? 'root'}`,
    '--access-control=off',
    '--target=candidate',
    `--port=${port}`,
    `--ncxserver-sockname=${socket}`,
  ])
  for (const stream of [server.stdout, server.stderr]) stream?.on('data', (data: Buffer) => (told += data.toString()))
  await vi.waitFor(() => expect(existsSync(socket), told).toBe(true), patience)
  session = spawn('/usr/sbin/netconf-subsystem', [`--ncxserver-sockname=${port}@${socket}`], {
    env: { ...process.env, USER: process.env.USER ?? 'root', SSH_CONNECTION: `127.0.0.1 50000 127.0.0.1 ${port}` },
  })
  session.stdout.on('data', (data: Buffer) => (heard += data.toString()))
  session.on('error', () => {})
})

afterAll(async () => {
  const gone = new Promise((resolve) => server.once('exit', resolve))
  session?.kill()
  server.kill()
  await gone
  rmSync(folder, { recursive: true, force: true })
})

/** The next whole message. */
async function message(): Promise<string> {
  await expect.poll(() => heard.includes(end), { message: told }).toBe(true)
  const [first = '', ...rest] = heard.split(end)
  heard = rest.join(end)
  return first
}
const send = (xml: string): void => void session?.stdin.write(`<?xml version="1.0"?>${xml}${end}`)
let asked = 0
async function rpc(body: string): Promise<string> {
  asked += 1
  send(`<rpc message-id="${asked}" xmlns="${base}">${body}</rpc>`)
  return message()
}
async function edit(wireless: string): Promise<string> {
  const config = `<config><wireless xmlns="${namespace}">${wireless}</wireless></config>`
  const reply = await rpc(`<edit-config><target><candidate/></target>${config}</edit-config>`)
  if (reply.includes('rpc-error')) return reply
  return rpc('<commit/>')
}
const octets = (text: string) => Buffer.from(text).toString('base64')
const network = (id: string, name: string, security: string, more = '') =>
  `<network><id>${id}</id><ssid>${octets(name)}</ssid><enabled>true</enabled><band>5</band>` +
  `${more}<security>${security}</security></network>`
const secured = '<mode>wpa2-personal</mode><passphrase>eight or more</passphrase>'

it('loads the module, with its features', async () => {
  const hello = await message()
  expect(hello).toContain(
    `${namespace}?module=air-muster-wireless&amp;revision=${shape.revisions['air-muster-wireless']}`,
  )
  expect(hello).toContain('features=staged,saving,time-zone-rule')
  send(
    '<hello ' +
      `xmlns="${base}"><capabilities><capability>urn:ietf:params:netconf:base:1.0</capability></capabilities></hello>`,
  )
  // Its subsystem takes one message at a time.
  await new Promise((resolve) => setTimeout(resolve, 300))
})

it('takes networks of two names on one band, and a radio with a decimal power, and gives them back', async () => {
  expect(await edit(network('crew', 'Crew', secured))).toContain('<ok/>')
  expect(await edit(network('guests', 'Café', secured, '<vlan>47</vlan>'))).toContain('<ok/>')
  const radio =
    '<radio><band>5</band><enabled>true</enabled><channel>36</channel><width>40</width><power>17.0</power></radio>'
  expect(await edit(`<country>NZ</country>${radio}`)).toContain('<ok/>')
  const kept = await rpc(
    `<get-config><source><running/></source><filter><wireless xmlns="${namespace}"/></filter></get-config>`,
  )
  expect(kept).toContain(`<ssid>${octets('Café')}</ssid>`)
  expect(kept).toContain('<power>17.0</power>')
})

it.each([
  [
    'an open network that was said once',
    network('free', 'Free', '<mode>open</mode>'),
    'An open network is said twice.',
  ],
  ['a network that says nothing of its security', network('bare', 'Bare', ''), 'there is no default'],
  [
    'a passphrase of five',
    network('x', 'X', '<mode>wpa2-personal</mode><passphrase>short</passphrase>'),
    'not in range',
  ],
  ['one name twice on a band', network('again', 'Crew', secured), 'A name stands once on a band.'],
  [
    'a channel of another band',
    '<radio><band>5</band><channel>6</channel></radio>',
    'At 5 GHz there are channels 32 to 181.',
  ],
])('refuses %s', async (_what, wireless, words) => {
  expect(await edit(wireless)).toContain(words)
  await rpc('<discard-changes/>')
})
