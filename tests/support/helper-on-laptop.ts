/** The wire helper on the laptop of a bench made of namespaces, and code that asks it as a process beside it does. */
import type { ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import type { BenchWire } from './namespaces'

/** @param folder  for its socket and ledger @returns once it answers */
export function startHelper(wire: BenchWire, folder: string, env: Record<string, string> = {}): Promise<ChildProcess> {
  const child = wire.onLaptop(process.execPath, ['dist/wire-helper.mjs'], {
    AIR_MUSTER_INTERFACE: 'wired0',
    AIR_MUSTER_HELPER_SOCKET: join(folder, 'helper.sock'),
    AIR_MUSTER_LEDGER: join(folder, 'laptop.ledger'),
    ...env,
  })
  return new Promise((resolve, reject) => {
    let said = ''
    child.stderr?.on('data', (chunk) => {
      said += chunk
    })
    child.stdout?.on('data', (chunk) => String(chunk).includes('"ready":true') && resolve(child))
    child.once('exit', () => reject(new Error(`the helper ended: ${said}`)))
  })
}

export const ended = (child: ChildProcess): Promise<unknown> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once('exit', resolve))

/** Runs code as a process on the laptop, which has the host port as `host`. @returns what it prints, as JSON */
export async function askedOnLaptop<T>(wire: BenchWire, folder: string, code: string): Promise<T> {
  const child = wire.onLaptop(process.execPath, [
    '--import',
    'tsx',
    '--input-type=module',
    '-e',
    `import { linuxHost } from './src/wire/host/linux.ts'\nconst host = ` +
      `linuxHost(${JSON.stringify(join(folder, 'helper.sock'))})\n${code}\nprocess.exit(0)`,
  ])
  let [text, fault] = ['', '']
  child.stdout?.on('data', (chunk) => {
    text += chunk
  })
  child.stderr?.on('data', (chunk) => {
    fault += chunk
  })
  await ended(child)
  if (text === '') throw new Error(fault)
  return JSON.parse(text) as T
}

export interface OnLaptop {
  /** Runs code there that has `host` and the verbs of the helper as `ask`. @returns what it returns, as JSON */
  asks<T>(code: string): Promise<T>
  end(): void
}

/** A process on the laptop that stays: code after code runs in it. The helper knows whoever asks by its namespace. */
export function processOnLaptop(wire: BenchWire, folder: string): OnLaptop {
  const socket = JSON.stringify(join(folder, 'helper.sock'))
  const code = `import { createInterface } from 'node:readline'
import { askHelper, linuxHost } from './src/wire/host/linux.ts'
const host = linuxHost(${socket})
const { ask } = askHelper(${socket})
for await (const line of createInterface({ input: process.stdin })) {
  const told = await new Function('host', 'ask', 'return (async () => {' + JSON.parse(line) + '})()')(host, ask)
    .then((value) => ({ value }), (error) => ({ error: String(error.stack) }))
  console.log(JSON.stringify(told))
}`
  const child = wire.onLaptop(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', code])
  child.stderr?.pipe(process.stderr)
  const answers = createInterface({ input: child.stdout as NodeJS.ReadableStream })[Symbol.asyncIterator]()
  let last: Promise<unknown> = Promise.resolve()
  const one = async (text: string): Promise<unknown> => {
    child.stdin?.write(`${JSON.stringify(text)}\n`)
    const { value } = await answers.next()
    const told = JSON.parse(String(value)) as { value?: unknown; error?: string }
    if (told.error !== undefined) throw new Error(told.error)
    return told.value
  }
  return {
    asks: <T>(text: string) => {
      last = last.catch(() => undefined).then(() => one(text))
      return last as Promise<T>
    },
    end: () => child.kill('SIGKILL'),
  }
}
