/**
 * The wire helper as a process: the one part with privilege (CAP_NET_ADMIN, CAP_NET_RAW). It takes away what an earlier
 * one left, answers its verbs until it is told to end, and leaves the laptop as it was.
 */

import { ArpProber } from './arp-prober'
import { BenchDhcp } from './bench-dhcp'
import { Ear } from './ear'
import { openFramePort } from './frame-port'
import { GatewayLanes } from './gateway-lanes'
import { interfaces } from './ip-command'
import { Ledger } from './ledger'
import { serveHelper } from './server'
import { VlanLinks } from './vlan-links'

const {
  AIR_MUSTER_INTERFACE: interfaceName = '',
  AIR_MUSTER_HELPER_SOCKET: path = '',
  AIR_MUSTER_LEDGER: ledgerFile = '',
  AIR_MUSTER_HELPER_OWNER: owner,
} = process.env

/** @throws never: it says why and ends */
function fail(why: string): never {
  process.stderr.write(`${why}\n`)
  process.exit(2)
}

const ledger = new Ledger(ledgerFile || fail('AIR_MUSTER_LEDGER is not set'))
const { left, aside } = await ledger.takeBack()
if (aside !== undefined)
  process.stderr.write(
    `what an earlier run had added to this laptop stands in a file that cannot be read, kept as ${aside}: ` +
      `lanes of that run may still be there until the laptop is started anew\n`,
  )
if (left > 0) process.stderr.write(`took away ${left} things that an earlier run had left on this laptop\n`)
if (process.argv.includes('--restore-only')) process.exit(aside === undefined ? 0 : 1)

const here = (await interfaces()).find(({ ifname }) => ifname === interfaceName)
if (!here?.address) fail(`there is no interface "${interfaceName}" with a MAC address on this machine`)
const port = await openFramePort(interfaceName, (why) => void end(`the frames of ${interfaceName}: ${why}`)).catch(
  (error: Error) => fail(`${interfaceName} cannot be listened to: ${error.message}`),
)
const prober = new ArpProber(port, here.address)
const links = new VlanLinks(interfaceName, ledger)
const lanes = new GatewayLanes({
  ledger,
  vlanOf: (mac, address) => prober.vlanOf(mac, address),
  devOf: (vlan) => links.devOf(vlan),
  who: (address) => prober.who(address),
})
const ear = new Ear(port, here.address)
const dhcp = new BenchDhcp({
  port,
  mac: here.address,
  who: (address) => prober.who(address),
  servers: () => ear.servers,
})
const [uid, gid] = (owner ?? '').split(':').map(Number)
const server = await serveHelper(
  {
    interfaceName,
    lanes,
    prober,
    links,
    ear,
    dhcp,
    added: () =>
      ledger.additions.flatMap((addition) => (addition.kind === 'address' ? [`${addition.address}/32`] : [])),
  },
  path || fail('AIR_MUSTER_HELPER_SOCKET is not set'),
  owner === undefined ? undefined : { uid: uid ?? 0, gid: gid ?? 0 },
)
process.stdout.write(`${JSON.stringify({ ready: true, interface: interfaceName })}\n`)

let ending = false
async function end(why?: string): Promise<void> {
  if (ending) return
  ending = true
  if (why) process.stderr.write(`${why}\n`)
  await server?.close()
  await lanes?.closeAll()
  port?.close()
  process.exit(why ? 1 : 0)
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void end())
// Whoever started it holds its input open, and is gone when that ends.
if (process.env.AIR_MUSTER_TIED === 'yes') process.stdin.resume().once('end', () => void end())
