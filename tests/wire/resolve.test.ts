/** Names of servers, asked of a name server that nobody here wrote: Debian's dnsmasq. */
import { type ChildProcess, spawn } from 'node:child_process'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { resolveNames } from '../../src/wire/host/resolve'
import { freePort } from '../support/free-port'

let server: ChildProcess
let at: string
beforeAll(async () => {
  const port = await freePort()
  at = `127.0.0.1:${port}`
  server = spawn(
    '/usr/sbin/dnsmasq',
    [
      ...['--no-daemon', '--no-resolv', '--no-hosts', '--conf-file=/dev/null', '--pid-file=', '--bind-interfaces'],
      ...[`--port=${port}`, '--listen-address=127.0.0.1'],
      ...['--host-record=time.mill.example,10.44.8.20', '--host-record=log.mill.example,10.44.8.21,fd00::21'],
    ],
    { stdio: 'ignore' },
  )
  while ((await resolveNames(['time.mill.example'], [at])).length === 0 && server.exitCode === null);
})
afterAll(() => void server.kill())

it('are told with their IPv4 addresses; those that it does not know are left out', async () => {
  const names = ['time.mill.example', 'nobody.mill.example', 'log.mill.example']
  expect(await resolveNames(names, [at])).toEqual([
    { name: 'time.mill.example', address: '10.44.8.20' },
    { name: 'log.mill.example', address: '10.44.8.21' },
  ])
})

it('are told by the next server where the first does not answer, and are none where nobody does', async () => {
  const nobody = `127.0.0.1:${await freePort()}`
  expect(await resolveNames(['time.mill.example'], [nobody, at])).toHaveLength(1)
  expect(await resolveNames(['time.mill.example'], [nobody])).toEqual([])
  expect(await resolveNames(['time.mill.example'], [])).toEqual([])
})
