/** An installation as `npm start` runs it, on the laptop of a bench in network namespaces. */
import type { ChildProcess } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { BenchWire } from './namespaces'
import { patienceMs } from './patience'

export interface Installation {
  readonly env: Record<string, string>
  /** A `muster` command there: what it prints, and how it ended. */
  muster(...words: string[]): Promise<{ text: string; status: number | null }>
  /** A script there, with the same environment; what it prints, as JSON. @param reads  our own sources, or none */
  script<T>(code: string, reads?: 'sources'): Promise<T>
  pidOf(part: 'runner' | 'wire helper'): number
  stop(): Promise<void>
}

export interface StartOptions {
  /** Leave link-local addresses aside. */
  readonly lanes?: 'gateway'
  /** With no capability at all, as an ordinary user has none. */
  readonly privilege?: 'none'
}

export async function startInstallation(
  wire: BenchWire,
  folder: string,
  { lanes, privilege }: StartOptions = {},
): Promise<Installation> {
  const words = ['scripts/start.mjs', '--interface', 'wired0', '--data', folder, '--no-pages']
  const bare = ['--securebits=+noroot,+noroot_locked', '--inh-caps=-all', '--ambient-caps=-all', process.execPath]
  const started = wire.onLaptop(
    privilege === 'none' ? 'setpriv' : process.execPath,
    privilege === 'none' ? [...bare, ...words, '--no-helper'] : words,
    lanes ? { AIR_MUSTER_LANES: lanes } : {},
  )
  let said = ''
  for (const stream of [started.stdout, started.stderr])
    stream?.on('data', (chunk) => {
      said += chunk
    })
  for (let waited = 0; !said.includes('Ctrl+C'); waited += 0.1) {
    if (started.exitCode !== null || waited * 1000 > patienceMs) throw new Error(`it did not start: ${said}`)
    await pause(100)
  }
  const note = JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8')) as Record<string, string>
  const env = {
    AIR_MUSTER_DATA: folder,
    AIR_MUSTER_DB: note.databaseUrl ?? '',
    AIR_MUSTER_VAULT_FILE: note.vaultKeyFile ?? '',
  }
  return {
    env,
    muster: (...words) => ran(wire.onLaptop(process.execPath, ['bin/muster.mjs', ...words], env)),
    script: async (code, reads) => {
      const words = [...(reads ? ['--import', 'tsx'] : []), '--input-type=module', '-e', code]
      const { text, status } = await ran(wire.onLaptop(process.execPath, words, env))
      if (status !== 0) throw new Error(`the script ended with ${status}: ${text}`)
      return JSON.parse(text)
    },
    pidOf: (part) => {
      const word = part === 'runner' ? 'dist/runner.mjs' : 'dist/wire-helper.mjs'
      for (const pid of childrenOf(started.pid ?? 0))
        if (existsSync(`/proc/${pid}/cmdline`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(word))
          return pid
      throw new Error(`no ${part} runs`)
    },
    stop: async () => {
      if (started.exitCode !== null || started.signalCode !== null) return
      const ended = new Promise((resolve) => started.once('exit', resolve))
      started.kill('SIGTERM')
      await ended
    },
  }
}

function childrenOf(pid: number): number[] {
  return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number)
}

export async function ran(child: ChildProcess): Promise<{ text: string; status: number | null }> {
  let text = ''
  let fault = ''
  child.stdout?.on('data', (chunk) => {
    text += chunk
  })
  child.stderr?.on('data', (chunk) => {
    fault += chunk
  })
  const status = await new Promise<number | null>((resolve) => child.once('close', resolve))
  return { text: status === 0 ? text : `${text}${fault}`, status }
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))
