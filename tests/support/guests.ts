/**
 * Machines whose kernel has tagged VLANs, as a laptop's has: Debian's user-mode Linux, on the files of this machine,
 * which they can read and not change. Each has its port on the wire of a bench in network namespaces.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { BenchWire } from './namespaces'
import { patienceMs } from './patience'

export interface Guest {
  /** Runs words of a shell there, which go on by themselves. */
  start(script: string): void
  /** Runs words of a shell there: what they print, and how they ended. */
  run(script: string): Promise<{ text: string; status: number }>
  close(): void
}

export interface GuestParts {
  readonly name: string
  readonly wire: BenchWire
  readonly mac: string
  readonly megabytes: number
  /** Its own: also what it may write to. */
  readonly folder: string
  /** Words of a shell that it begins with, once `eth0` is up. */
  readonly begins: string
}

export async function startGuest({ name, wire, mac, megabytes, folder, begins }: GuestParts): Promise<Guest> {
  mkdirSync(folder, { recursive: true })
  const port = `${name}-port`
  execFileSync('ip', ['-n', wire.wire, 'tuntap', 'add', port, 'mode', 'tap'])
  execFileSync('ip', ['-n', wire.wire, 'link', 'set', port, 'master', 'lan', 'up'])
  const init = join(folder, 'init')
  writeFileSync(init, initOf(folder, begins), { mode: 0o755 })
  const machine = spawn(
    'ip',
    ['netns', 'exec', wire.wire, 'linux.uml', ...kernelWords({ name, mac, megabytes, folder, init })],
    {
      stdio: ['pipe', 'pipe', 'pipe'],
      detached: true,
      env: { ...process.env, HOME: folder },
    },
  )
  let said = ''
  for (const stream of [machine.stdout, machine.stderr])
    stream.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString('latin1')).slice(-4000)
    })
  await until(
    () => existsSync(join(folder, 'ready')),
    machine,
    () => said,
  )
  let last = 0
  /** @returns the files, but for their endings */
  const start = (script: string): string => {
    last += 1
    const files = join(folder, String(last))
    writeFileSync(`${files}.sh`, script)
    machine.stdin.write(`${last}\n`)
    return files
  }
  return {
    start,
    run: async (script) => {
      const files = start(script)
      await until(
        () => existsSync(`${files}.status`),
        machine,
        () => said,
      )
      return { text: readFileSync(`${files}.text`, 'utf8'), status: Number(readFileSync(`${files}.status`, 'utf8')) }
    },
    close: () => {
      // Its processes are ones of this machine too: all of them are of one group.
      if (machine.exitCode === null && machine.signalCode === null) process.kill(-(machine.pid ?? 0), 'SIGKILL')
    },
  }
}

function kernelWords({ name, mac, megabytes, folder, init }: Omit<GuestParts, 'wire' | 'begins'> & { init: string }) {
  return [
    ...[`mem=${megabytes}M`, 'root=/dev/root', 'rootfstype=hostfs', 'rootflags=/', 'ro', 'quiet'],
    ...[`init=${init}`, 'con=null', 'con0=fd:0,fd:1', `uml_dir=${folder}/`, `umid=${name}`],
    `vec0:transport=tap,ifname=${name}-port,depth=64,gro=0,mac=${mac}`,
  ]
}

/** Its first process: what it needs of a system, then whatever it is told to run, each by itself. */
const initOf = (folder: string, begins: string): string => `#!/bin/sh
export PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/run/home TMPDIR=/run/tmp
mount -t proc none /proc; mount -t sysfs none /sys; mount -t tmpfs none /run
mount -t hostfs -o ${folder} none ${folder}
mkdir -p /run/home /run/tmp
for module in unix/unix_diag llc/llc 802/stp 802/garp 802/mrp 8021q/8021q; do
  insmod /usr/lib/uml/modules/$(uname -r)/kernel/net/$module.ko
done
ip link set lo up; ip link set vec0 name eth0; ip link set eth0 up
${begins}
touch ${folder}/ready
while read -r number; do
  told=${folder}/$number
  (sh $told.sh > $told.text 2>&1 < /dev/null; echo $? > $told.part; mv $told.part $told.status) &
done
`

async function until(isSo: () => boolean, machine: ChildProcess, said: () => string): Promise<void> {
  for (let waited = 0; !isSo(); waited += 0.05) {
    if (machine.exitCode !== null || machine.signalCode !== null) throw new Error(`the guest ended: ${said()}`)
    if (waited * 1000 > patienceMs) throw new Error(`the guest is late: ${said()}`)
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}
