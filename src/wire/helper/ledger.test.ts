import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { Ledger } from './ledger'

const folder = mkdtempSync(join(tmpdir(), 'air-muster-ledger-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

it.each(['', '{"boot":"b","addi', '[]', '{"boot":"b","additions":[{"kind":"link","dev":"a b; rm"}]}'])(
  'puts a file that it cannot read aside, whole, and begins anew: %j',
  async (text) => {
    const file = join(folder, 'ledger')
    writeFileSync(file, text)
    expect(await new Ledger(file, 'b').takeBack()).toEqual({ left: 0, aside: `${file}.unread` })
    expect(readFileSync(`${file}.unread`, 'utf8')).toBe(text)
    expect(existsSync(file)).toBe(false)
    const next = new Ledger(file, 'b')
    next.add([])
    expect(await next.takeBack()).toEqual({ left: 0 })
  },
)

it('leaves alone what another start of the machine has added', async () => {
  const file = join(folder, 'of-another-start')
  new Ledger(file, 'one').add([{ kind: 'link', dev: 'wired0.99' }])
  expect(await new Ledger(file, 'another').takeBack()).toEqual({ left: 0 })
})
