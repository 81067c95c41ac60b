/**
 * A stand-in as a box on a real wire: run in a network namespace, it takes its address on `eth0` as the stand-in has
 * it, and leads what comes to its ports to the stand-in's own. Its words: model, MAC, pace.
 */
import { execFileSync } from 'node:child_process'
import { connect, createServer } from 'node:net'
import { Lab } from '../../../src/lab/lab'
import { loadRegulatory } from '../../../src/store/regulatory-file'

const [model = '', mac = '', pace = '1'] = process.argv.slice(2)
const lab = await Lab.open({
  pace: Number(pace),
  regulatory: loadRegulatory(),
  shelf: [{ model, mac, serial: mac.slice(-2) }],
})
const { unit, front } = lab.plugged(mac)

const ip = (...words: string[]): void => void execFileSync('ip', words, { stdio: 'ignore' })
let stands = ''
const follow = (): void => {
  const { address, prefix } = unit.wired
  const is = unit.networkIsUp && address !== null ? `${address}/${prefix}` : ''
  if (is === stands) return
  stands = is
  ip('-4', 'addr', 'flush', 'dev', 'eth0')
  if (is !== '') ip('addr', 'add', is, 'dev', 'eth0')
}
setInterval(follow, 50)

/** Listens while its service does: a box that starts refuses whoever comes too early. */
for (const port of [80, 443]) {
  const server = createServer((there) => {
    const here = connect(front.loopbackPort(port) ?? 0, '127.0.0.1')
    there.on('error', () => there.destroy()).on('close', () => here.destroy())
    here.on('error', () => there.destroy()).on('close', () => there.destroy())
    there.pipe(here).pipe(there)
  })
  setInterval(() => {
    const isUp = unit.serviceIsUp && front.loopbackPort(port) !== undefined
    if (isUp && !server.listening) server.listen(port, '0.0.0.0')
    else if (!isUp && server.listening) server.close()
  }, 20)
}
lab.plugInAll()
process.stdout.write('ready\n')
// Whoever started it holds its input open.
process.stdin.resume().once('end', () => process.exit(0))
