/**
 * Real access points, a real wire: three Debian machines at one factory address are mustered at once, as an installer
 * does it, from `npm start` on.
 */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { parse, stringify } from 'yaml'
import { type Installation, startInstallation } from '../support/installation'
import { killer, reachedStep, troublesOf } from '../support/kills'
import { isLong, longIt } from '../support/long'
import { type RealBench, realBench } from '../support/real-access-points'

/** Each is a virtual machine: one is enough to meet what nobody here wrote, three are at one address. */
const units = isLong ? ['kauri-1', 'kauri-2', 'kauri-3'] : ['kauri-1']
const last = units.length - 1
const radarChannel = 60
const address = (index: number): string => `10.44.8.${20 + index}`
/** As the first unit comes to one of these, the runner is killed, and the helper at once after it. */
const killedAt = ['sign-in', 'networks', 'radios', 'password', 'address'] as const
let folder: string
let bench: RealBench
let installation: Installation
let standing: string
/** Channel that the last unit went to. */
let movedTo = 0

/** @param radar  whether the last unit is locked to a channel on which it must listen for radar first */
function job(
  radar: 'listens' | 'none',
  change: (brief: Record<string, unknown> & { networks: Record<string, unknown>[] }) => void = () => {},
): string {
  const demo = parse(readFileSync(join(import.meta.dirname, '../../data/demo/port-ellery.yaml'), 'utf8'))
  const [crew] = demo.brief.networks
  demo.brief.networks = [
    crew,
    { ...crew, id: 'tickets', ssid: `Ellery's "Tickets" $(reboot)`, bands: ['2.4'], vlan: null, hidden: true },
  ]
  change(demo.brief)
  demo.units = units.map((id, index) => ({
    ...{ id, name: id, place: 'bench', model: 'Debian hostapd', serial: `K-${index}`, port: index + 1 },
    mac: bench.macs[index],
    locks: radar === 'listens' && index === 2 ? { '5': radarChannel } : {},
  }))
  const file = join(folder, 'job.yaml')
  writeFileSync(file, stringify(demo))
  return file
}

/** Secrets of the job, as only whoever has the vault's key can read them. */
const secrets = () =>
  installation.script<Record<string, string>>(
    `import { openStore, storeOptionsFromEnvironment } from './src/store/open.ts'
    import { openDatedSecrets } from './src/store/secrets.ts'
    const store = openStore(storeOptionsFromEnvironment())
    console.log(JSON.stringify(Object.fromEntries((await openDatedSecrets(store, 1)).secrets)))
    process.exit(0)`,
    'sources',
  )

/** Runs a command on a unit by SSH from the laptop, with a login; what it printed, or why it could not. */
const onUnit = (host: string, password: string, command: string) =>
  installation.script<{ text?: string; refused?: string }>(
    `import ssh2 from 'ssh2'
    const client = new ssh2.Client()
    const tell = (value) => { console.log(JSON.stringify(value)); process.exit(0) }
    client.on('error', (error) => tell({ refused: error.level }))
    client.on('ready', () => client.exec(${JSON.stringify(command)}, (_, channel) => {
      let text = ''
      channel.on('data', (chunk) => { text += chunk })
      channel.stderr.on('data', (chunk) => { text += chunk })
      channel.on('close', () => tell({ text }))
    }))
    client.connect({ host: ${JSON.stringify(host)}, username: 'root',
      password: ${JSON.stringify(password)}, readyTimeout: 20000 })`,
  )

async function outcomes(): Promise<{ unit: string; setting: string; outcome: string }[]> {
  const { text } = await installation.muster('export', 'port-ellery', '--settings')
  const [head = '', ...lines] = text.trim().split('\n')
  const columns = head.split(',')
  return lines.map((line) => {
    const cells = line.split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/)
    return Object.fromEntries(columns.map((column, index) => [column.trim(), cells[index] ?? ''])) as never
  })
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-real-'))
  bench = await realBench(units.length, folder)
  bench.wire.own('10.44.8.250/24')
  standing = bench.wire.standing()
  installation = await startInstallation(bench.wire, join(folder, 'data'), { lanes: 'gateway' })
})
afterAll(async () => {
  await installation?.stop()
  bench?.close()
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 500 })
})

describe('real access points at one address', () => {
  const kills = isLong ? ', through five kills of the runner and five of the helper' : ''
  it(`are set and proven side by side${kills}`, async () => {
    await installation.muster('load', job('listens'))
    const mustering = installation.muster('run', 'port-ellery', '--wait')
    const kill = killer(installation)
    for (const step of isLong ? killedAt : []) {
      await reachedStep(installation, step)
      await kill('runner')
      await kill('wire helper')
    }
    let { text, status } = await mustering
    // Its starter waits longer after each kill, and a command gives up a runner that is silent: it is asked again.
    while (status === 3) ({ text, status } = await installation.muster('run', 'port-ellery', '--wait'))
    expect(await troubles()).toEqual([])
    expect(text).toContain(`${units.length} of ${units.length} answer`)
    expect(status).toBe(0)
    const all = await outcomes()
    expect(all.length).toBeGreaterThan(33 * units.length)
    expect(all.filter(({ outcome }) => outcome.startsWith('open') || outcome === '')).toEqual([])
  })

  it('have never sent a beacon of an open network, and have sent others', async () => {
    const password = (await secrets())['admin/password'] ?? ''
    for (const [index] of units.entries()) {
      const count = 'for f in beacons open; do tcpdump -Z root -r /run/$f.pcap 2>/dev/null | wc -l; done'
      const { text } = await onUnit(address(index), password, count)
      const [heard, open] = (text ?? '').trim().split('\n').map(Number)
      expect(heard).toBeGreaterThan(0)
      expect(open).toBe(0)
    }
    // The ear does hear one: a further radio of the machine sends an open network for a moment.
    const hear = [
      "printf 'interface=wlan3\\nssid=Open\\nhw_mode=g\\nchannel=1\\n' > /run/open.conf",
      'hostapd -B -P /run/open.pid /run/open.conf > /dev/null; sleep 2; kill $(cat /run/open.pid)',
      'tcpdump -Z root -r /run/open.pcap 2>/dev/null | wc -l',
    ]
    const { text } = await onUnit(address(last), password, hear.join('; '))
    expect(Number(text)).toBeGreaterThan(0)
  })

  longIt('leave a channel at once on which radar is heard', async () => {
    const password = (await secrets())['admin/password'] ?? ''
    const channel = 'hostapd_cli -i wlan1 status | sed -n s/^channel=//p'
    expect((await onUnit(address(2), password, channel)).text?.trim()).toBe(String(radarChannel))
    const { text } = await onUnit(
      address(2),
      password,
      `echo 1 > /sys/kernel/debug/ieee80211/$(cat /sys/class/net/wlan1/phy80211/name)/hwsim/dfs_simulate_radar
      for n in 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15 16 17 18 19 20; do
      [ "$(${channel})" = ${radarChannel} ] || break; sleep 0.5; done; ${channel}`,
    )
    movedTo = Number(text)
    expect(movedTo).toBeGreaterThan(0)
    expect(movedTo).not.toBe(radarChannel)
  })

  it(`let a client in with the passphrase${isLong ? ', hidden or not,' : ''} and not with another`, async () => {
    const known = await secrets()
    const password = known['admin/password'] ?? ''
    const tries = async (ssid: string, passphrase: string, hidden: '' | 'hidden') => {
      const word = (value: string): string => `'${value.replaceAll("'", `'\\''`)}'`
      const { text } = await onUnit(
        address(Math.min(1, last)),
        password,
        `client try ${word(ssid)} ${word(passphrase)} ${hidden} 30 | head -1`,
      )
      return text?.split(' ')[0]
    }
    await onUnit(address(Math.min(1, last)), password, 'client up')
    expect(await tries('Ellery Crew', known['network/crew/passphrase'] ?? '', '')).toBe('CONNECTED')
    expect(await tries('Ellery Crew', 'not-the-passphrase', '')).toBe('WRONG_KEY')
    if (!isLong) return
    expect(await tries(`Ellery's "Tickets" $(reboot)`, known['network/tickets/passphrase'] ?? '', 'hidden')).toBe(
      'CONNECTED',
    )
  })

  longIt('answer from where radar has sent them, and the roll says so', async () => {
    await bench.off(1)
    const { text } = await installation.muster('run', 'port-ellery', '--wait', '--units', 'kauri-3')
    expect(await troubles()).toEqual([])
    expect(text).toContain('3 of 3 answer')
    const log = (await installation.muster('log', 'port-ellery')).text
    expect(log).toMatch(new RegExp(`"radar-heard","params":\\{"band":"5","from":${radarChannel},"to":${movedTo}\\}`))
    const { text: settings } = await installation.muster('export', 'port-ellery', '--settings')
    expect(settings).toContain(`Radar was heard on channel ${radarChannel}, so the unit went to ${movedTo} by itself.`)
  })

  longIt('leave the laptop as it was when the installation ends', async () => {
    await bench.off(2)
    await installation.stop()
    expect(bench.wire.standing()).toBe(standing)
  })

  longIt(
    'refuse the factory login, and keep everything over a power cut: by link-local lanes, with data that lasted',
    async () => {
      await installation.stop()
      installation = await startInstallation(bench.wire, join(folder, 'data'))
      expect(await onUnit(address(0), 'admin', 'true')).toEqual({ refused: 'client-authentication' })
      await bench.powerCut(0)
      const { text } = await installation.muster('run', 'port-ellery', '--wait', '--units', 'kauri-1')
      expect(text).toContain('3 of 3 answer')
      const log = (await installation.muster('log', 'port-ellery')).text
      const again = log.slice(log.lastIndexOf('"phase":"started"'))
      // What is right already costs one read.
      expect(again).not.toContain('written"')
      expect(again).toMatch(/"answers-by-lane","params":\{"address":"10\.44\.8\.20","source":"fe80:/)
      // Its lane added nothing to the laptop but what the echo took.
      await installation.stop()
      expect(bench.wire.standing()).toBe(standing)
    },
  )

  longIt('are set out of the box with no privilege at all, where the laptop shares no subnet with them', async () => {
    await installation.stop()
    await bench.off(0)
    await bench.reset(2)
    const data = mkdtempSync(join(folder, 'plain-'))
    installation = await startInstallation(bench.wire, data, { privilege: 'none' })
    await installation.muster('load', job('none'))
    const { text } = await installation.muster('run', 'port-ellery', '--wait', '--units', 'kauri-3')
    expect(await troubles()).toEqual([])
    expect(text).toContain('1 of 3 answer')
    expect((await installation.muster('log', 'port-ellery')).text).toContain('"cannot-ask-who-answers"')
  })
})

describe('a real access point that has no address out of its box', () => {
  const boxed = '192.168.99.1'
  /** Out of its box, and then without its address. @param then  what it does about that */
  const withoutAddress = async (then: string): Promise<void> => {
    await installation.stop()
    // They would be met at the same address.
    for (const index of [1, 2]) await bench.off(index)
    await bench.reset(0)
    bench.wire.own('192.168.99.250/24')
    installation = await startInstallation(bench.wire, mkdtempSync(join(folder, 'bare-')), {
      ...(then === '' ? {} : { lanes: 'gateway' as const }),
    })
    expect(await onUnit(boxed, 'admin', `(sleep 1; ip -4 addr flush dev br0; ${then}) > /dev/null 2>&1 &`)).toEqual({
      text: '',
    })
    bench.wire.disown('192.168.99.250/24')
    await installation.script(
      `import { openStore, storeOptionsFromEnvironment } from './src/store/open.ts'
      import { saveCard } from './src/jobs/kit.ts'
      import { readFileSync } from 'node:fs'
      const yaml = readFileSync('data/kit/debian-hostapd.yaml', 'utf8')
        .replace('address: ${boxed}', 'address: null').replace('addressing: static', 'addressing: dhcp-only')
      console.log(JSON.stringify(await saveCard(openStore(storeOptionsFromEnvironment()), yaml, 0)))
      process.exit(0)`,
      'sources',
    )
    await installation.muster('load', job('none'))
  }
  const mustered = async (): Promise<string> => {
    const { text } = await installation.muster('run', 'port-ellery', '--wait', '--units', units[0] ?? '')
    expect(await troubles()).toEqual([])
    expect(text).toContain(`1 of ${units.length} answer`)
    return (await installation.muster('log', 'port-ellery')).text
  }

  longIt('is set by its link-local one', async () => {
    await withoutAddress('')
    expect(await mustered()).toMatch(/"answers-by-lane","params":\{"address":"[^"]+","source":"fe80:/)
  })

  longIt('is lent one by the laptop, set there, and leaves it', async () => {
    await withoutAddress('udhcpc -q -t 200 -T 1 -i br0')
    expect((await installation.muster('lend', 'port-ellery', 'on')).status).toBe(0)
    const lent = /"leases":\[\{"mac":"([^"]+)","address":"(10\.254\.[\d.]+)"/
    await expect
      .poll(async () => lent.exec((await installation.muster('log', 'port-ellery')).text)?.[1])
      .toBe(bench.macs[0])
    expect(await mustered()).toMatch(/"answers-by-lane","params":\{"address":"10\.254\./)
    expect(bench.wire.standing()).not.toContain('10.254.')
  })
})

const troubles = (): Promise<string[]> => troublesOf(installation)
