/** Sessions at prompts that nobody here wrote: bash behind Debian's telnetd, and on a console at a plain port. */
import { type ChildProcess, spawn } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { type PromptDialect, promptDialectSchema } from '../../src/core/kit/prompt-dialect'
import { type Told, terminalSize } from '../../src/core/showing/window-talk'
import { escapes, typedAt } from '../../src/wire/dialect/prompt/escape'
import { greetingOf, openSession } from '../../src/wire/dialect/prompt/open-session'
import type { Lane } from '../../src/wire/host/host'
import { UnitTerminal } from '../../src/wire/window/unit-terminal'
import { unpacked } from '../support/debian-image'
import { freePort } from '../support/free-port'
import { patience } from '../support/patience'

const login = { user: 'keeper', password: 'hidden?word' }
/** What a small unit asks before it lets anybody in; then a shell with a pager that asks for a key. */
const gate = `#!/bin/sh
for try in 1 2 3; do
  printf 'name: '; read -r name
  stty -echo; printf 'secret: '; read -r secret; stty echo; echo
  [ "$name $secret" = '${login.user} ${login.password}' ] && PS1='unit$ ' exec bash --norc --noprofile -i
  echo 'not let in'
done
`
const promptShape = promptDialectSchema.shape.prompt.unwrap()

let folder: string
const children: ChildProcess[] = []
const ports = { telnet: 0, tcp: 0 }

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-prompt-'))
  const script = (name: string, text: string): string => {
    const file = join(folder, name)
    writeFileSync(file, text)
    chmodSync(file, 0o755)
    return file
  }
  const gateFile = script('gate.sh', gate)
  const telnetd = script('telnetd.sh', `#!/bin/sh\nexec ${unpacked('usr/sbin/telnetd').join(' ')} -h -E ${gateFile}\n`)
  const behind = { telnet: `EXEC:${telnetd},nofork`, tcp: `EXEC:${gateFile},pty,setsid,ctty,stderr` }
  for (const over of ['telnet', 'tcp'] as const) {
    ports[over] = await freePort()
    const listen = `TCP-LISTEN:${ports[over]},bind=127.0.0.1,fork,reuseaddr`
    children.push(spawn('socat', [listen, behind[over]], { stdio: 'ignore', detached: true }))
  }
  await vi.waitFor(
    async () => expect(await Promise.all(Object.values(ports).map(takes))).toEqual([true, true]),
    patience,
  )
})

afterAll(() => {
  for (const { pid } of children) if (pid !== undefined) process.kill(-pid)
  rmSync(folder, { recursive: true, force: true })
})

const takes = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1', () => resolve(true))
    socket.on('connect', () => socket.destroy())
    socket.on('error', () => resolve(false))
  })

const lane: Lane = {
  ...{ mac: '02:00:00:00:00:01', address: '192.0.2.1', prefix: 24, source: '192.0.2.2' },
  connect: async (port) => connect(port, '127.0.0.1'),
  datagrams: () => Promise.reject(new Error('it takes none')),
  ping: async () => true,
  close: async () => {},
}

describe.each(['telnet', 'tcp'] as const)('a shell over %s', (over) => {
  const card = (typed: 'at-once' | 'sign-by-sign' = 'at-once') => ({
    factory: { port: ports[over] } as never,
    dialect: {
      over,
      prompt: promptShape.parse({
        ends: String.raw`unit\$ $`,
        asks: [{ sees: 'sure\\? $', types: 'yes\r' }],
        typed,
        signIn: { user: 'name: $', password: 'secret: $', refused: 'not let in' },
      }) as NonNullable<PromptDialect['prompt']>,
    },
  })
  const open = (password = login.password, typed?: 'sign-by-sign') =>
    openSession(lane, card(typed), { ...login, password }, async () => {})

  it('is signed in to, runs many commands in one session, and gives what each printed alone', async () => {
    const session = await open()
    expect((await session.run('stty size; tty | head -c 8', undefined, 10)).text).toMatch(/^\d+ \d+\n\/dev\/pts$/)
    expect((await session.run('seq 1 3000', undefined, 20)).text.trim().split('\n')).toEqual(
      Array.from({ length: 3000 }, (_, index) => String(index + 1)),
    )
    expect((await session.run('true', undefined, 10)).text).toBe('')
    session.close()
  })

  it('is shown in a window as a terminal of its size, where hands type and values are put in', async () => {
    const terminal = await UnitTerminal.open(lane, async () => {}, { over, port: ports[over] })
    const told: Told[] = []
    const printed = () => told.map((each) => (each.kind === 'prints' ? each.text : '')).join('')
    terminal.watch({ told: (each) => told.push(each), picture: () => {} })
    await expect.poll(printed).toContain('name:')
    terminal.act({ kind: 'text', text: `${login.user}\r` })
    await expect.poll(printed).toContain('secret:')
    terminal.putIn(login.password)
    terminal.act({ kind: 'text', text: '\r' })
    await expect.poll(printed).toContain('unit$')
    if (over === 'telnet') {
      terminal.act({ kind: 'text', text: 'stty size\r' })
      await expect.poll(printed).toContain(`${terminalSize.rows} ${terminalSize.columns}`)
    }
    // Whoever comes later is told what was printed before; the secret was echoed by nobody.
    const late: Told[] = []
    terminal.watch({ told: (each) => late.push(each), picture: () => {} })
    expect(JSON.stringify(late)).toContain('unit$')
    expect(JSON.stringify(late)).not.toContain(login.password)
    terminal.act({ kind: 'text', text: 'exit\r' })
    await expect.poll(() => told).toContainEqual(expect.objectContaining({ kind: 'failed', code: 'unreachable' }))
    terminal.act({ kind: 'reload' })
    await expect.poll(() => printed().split('name:').length).toBe(3)
    await terminal.close('by-hand')
    expect(told.at(-1)).toEqual({ kind: 'closed', why: 'by-hand' })
  })

  it('refuses a wrong password, and says so', async () => {
    await expect(open('wrong')).rejects.toMatchObject({ kind: 'refused' })
  })

  it('greets before anybody signs in', async () => {
    expect(await greetingOf(lane, card())).toContain('name:')
  })

  it('is answered where it asks back', async () => {
    const session = await open()
    const { text } = await session.run(`printf 'sure? '; read -r said; echo "you said $said"`, undefined, 10)
    expect(text).toContain('you said yes')
    session.close()
  })

  it('takes every value as one word, sign by sign as well', async () => {
    const session = await open(login.password, 'sign-by-sign')
    const { dialect } = card()
    for (const value of ['"; reboot #', "it's", '$(date) `date` $HOME !! \\', ' Ünïcödé 東京 ']) {
      const words = () => typedAt(dialect, escapes.shell)(value)
      if (over === 'telnet' && value.includes('ö')) {
        expect(words).toThrow('telnet-ascii-only')
        continue
      }
      const word = words()
      expect((await session.run(`printf '<%s>\\n' ${word}`, undefined, 20)).text, value).toContain(`<${value}>`)
    }
    session.close()
  })

  it('ends a command that does not end, with the session', async () => {
    const session = await open()
    await expect(session.run('sleep 60', undefined, 1)).rejects.toMatchObject({ kind: 'timeout' })
    await expect(session.run('true', undefined, 1)).rejects.toMatchObject({ kind: 'timeout' })
  })

  it('ends one that prints without end', async () => {
    const session = await open()
    await expect(session.run('yes', undefined, 20)).rejects.toMatchObject({ kind: 'garbled' })
  })

  it('says when the unit ended the session', async () => {
    const session = await open()
    await expect(session.run('exit', undefined, 10)).rejects.toMatchObject({ kind: 'unreachable' })
  })
})
