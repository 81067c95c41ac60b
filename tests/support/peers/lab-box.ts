/**
 * A stand-in as a box on a real wire: run in a network namespace, it takes its address on `eth0` as the stand-in has it,
 * and leads what comes to its ports to the stand-in's own. Its words: model, MAC, pace.
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

for (const port of [80, 443])
  createServer((there) => {
    const own = unit.serviceIsUp ? front.loopbackPort(port) : undefined
    there.on('error', () => there.destroy())
    if (own === undefined) return void there.resetAndDestroy()
    const here = connect(own, '127.0.0.1')
    here.on('error', () => there.destroy()).on('close', () => there.destroy())
    there.on('close', () => here.destroy())
    there.pipe(here).pipe(there)
  }).listen(port, '0.0.0.0')
lab.plugInAll()
process.stdout.write('ready\n')
// Whoever started it holds its input open.
process.stdin.resume().once('end', () => process.exit(0))
