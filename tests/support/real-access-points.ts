/**
 * Access points that nobody here wrote: Debian's kernel, hostapd and OpenSSH in small virtual machines, each with its
 * port on the wire of a bench in network namespaces. Built once and kept outside the tree.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { closeSync, existsSync, openSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { builtImage } from './debian-image'
import { type BenchWire, benchWire, macOf } from './namespaces'
import { patienceMs } from './patience'

/** A guest shows READY on its console when SSH answers. */

export interface RealBench {
  readonly wire: BenchWire
  readonly macs: readonly string[]
  /** The cable is pulled and put back: whatever was not kept is lost. */
  powerCut(index: number): Promise<void>
  /** Its cable is pulled: it costs this machine nothing any more. */
  off(index: number): Promise<void>
  /** Out of its box again: its disk is new. */
  reset(index: number): Promise<void>
  close(): void
}

/** @param folder  for disks and logs of these machines */
export async function realBench(count: number, folder: string): Promise<RealBench> {
  const image = builtImage()
  const wire = benchWire(0, '')
  const machines: ChildProcess[] = []
  const macs = Array.from({ length: count }, (_, index) => macOf(index))
  const logOf = (index: number): string => join(folder, `ap${index}.log`)
  const boot = async (index: number): Promise<void> => {
    const disk = join(folder, `ap${index}.img`)
    if (!existsSync(disk)) {
      writeFileSync(disk, '')
      truncateSync(disk, 8 * 1024 * 1024)
      execFileSync('/usr/sbin/mkfs.ext4', ['-q', '-F', '-m', '0', '-O', '^metadata_csum_seed', disk])
    }
    const tap = `tap${index}`
    if (!existsSync(logOf(index))) {
      execFileSync('ip', ['-n', wire.wire, 'tuntap', 'add', tap, 'mode', 'tap'])
      execFileSync('ip', ['-n', wire.wire, 'link', 'set', tap, 'master', 'lan', 'up'])
    }
    writeFileSync(logOf(index), '')
    const words = openSync(join(folder, `qemu${index}.log`), 'a')
    machines[index] = spawn(
      'ip',
      [
        ...[
          'netns',
          'exec',
          wire.wire,
          'qemu-system-x86_64',
          '-accel',
          accelerator(),
          '-machine',
          'q35',
          '-cpu',
          'max',
        ],
        ...['-smp', '1', '-m', '192', '-kernel', join(image, 'out/vmlinux'), '-initrd', join(image, 'out/initrd')],
        ...['-append', commandLine],
        ...['-netdev', `tap,id=n0,ifname=${tap},script=no,downscript=no`],
        ...['-device', `virtio-net-pci,netdev=n0,mac=${macs[index]},romfile=`],
        ...['-drive', `file=${disk},format=raw,if=none,id=d0`, '-device', 'virtio-blk-pci,drive=d0'],
        ...['-nodefaults', '-display', 'none', '-no-reboot', '-serial', `file:${logOf(index)}`],
      ],
      { stdio: ['ignore', words, words] },
    )
    closeSync(words)
    // A word on its console: asking over the wire while it starts would slow it down.
    for (let waited = 0; !/^READY/m.test(readFileSync(logOf(index), 'latin1')); waited += 0.1) {
      if (waited * 1000 > patienceMs || machines[index]?.exitCode !== null)
        throw new Error(`access point ${index} did not start:\n${readFileSync(logOf(index), 'latin1').slice(-800)}`)
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  }
  const off = async (index: number): Promise<void> => {
    const machine = machines[index]
    if (!machine || machine.exitCode !== null || machine.signalCode !== null) return
    const ended = new Promise((resolve) => machine.once('exit', resolve))
    machine.kill('SIGKILL')
    await ended
  }
  const close = (): void => {
    for (const machine of machines) machine?.kill('SIGKILL')
    wire.close()
  }
  try {
    await Promise.all(macs.map((_, index) => boot(index)))
  } catch (error) {
    close()
    throw error
  }
  return {
    wire,
    macs,
    powerCut: async (index) => {
      await off(index)
      await boot(index)
    },
    off,
    reset: async (index) => {
      await off(index)
      rmSync(join(folder, `ap${index}.img`))
      await boot(index)
    },
    close,
  }
}

const commandLine =
  'console=ttyS0 quiet rootfstype=ramfs initcall_blacklist=crypto_kdf108_init,init_kprobe_trace cryptomgr.notests=1 ' +
  'mitigations=off nokaslr audit=0 apparmor=0 init_on_alloc=0 panic=-1'

/** A /dev/kvm that opens may still be useless: it is trusted only where the processor says so. */
function accelerator(): 'kvm' | 'tcg' {
  const virtual = /\b(vmx|svm)\b/.test(readFileSync('/proc/cpuinfo', 'utf8'))
  return virtual && existsSync('/dev/kvm') ? 'kvm' : 'tcg'
}
