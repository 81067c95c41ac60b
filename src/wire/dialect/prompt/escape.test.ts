import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fillIn, templateFaults, unsafePlaces } from '../../../core/kit/prompt-template'
import { escapes, inInput } from './escape'

const hostile = [
  '"; reboot #',
  "'; reboot #",
  '$(reboot)',
  '`reboot`',
  '$IFS',
  '\\',
  "\\'",
  '!!',
  '*',
  '~root',
  '{{unit.name}}',
  '&& reboot',
  '| reboot',
  '> /etc/passwd',
  ' ',
  'a\'b"c$d`e\\f',
  'Ångström – ☕',
]
/** What a real shell makes of it: each value on a line of its own. */
const asShellTakesIt = (values: readonly string[]): string[] => {
  const script = values.map((value) => fillIn("printf '%s\\n' {{unit.name}}", { unit: { name: value } }, escapes.shell))
  return execFileSync('/bin/sh', { input: script.join('\n'), encoding: 'utf8' })
    .split('\n')
    .slice(0, -1)
}

describe('a value in a command', () => {
  it('reaches a real shell as it is, whatever a brief holds', () => {
    expect(asShellTakesIt(hostile)).toEqual(hostile)
    const line = fc
      .string({ unit: 'binary', minLength: 1, maxLength: 40 })
      .filter((text) => !/[\p{C}\p{Zl}\p{Zp}]/u.test(text))
    fc.assert(
      fc.property(fc.array(line, { minLength: 50, maxLength: 50 }), (values) => {
        expect(asShellTakesIt(values)).toEqual(values)
      }),
      { numRuns: 40 },
    )
  })

  it('never runs in a real shell, wherever a card may put it', () => {
    const piece = fc.constantFrom(
      ...[
        '{{unit.name}}',
        '{{ unit.name }}',
        '"',
        "'",
        '`',
        '\\',
        '$',
        '$(',
        '${x:-',
        '}',
        ')',
        '((',
        '))',
        '<<E\n',
        '\nE\n',
      ],
      ...['#', ' ', '\n', ';', 'echo ', 'printf %s ', 'x=', '|cat', '>/dev/null', '{{#unit.name}}', '{{/unit.name}}'],
    )
    const proof = join(mkdtempSync(join(tmpdir(), 'air-muster-shell-')), 'ran')
    const values = [
      `$(touch ${proof})`,
      `\`touch ${proof}\``,
      `';touch ${proof};'`,
      `";touch ${proof};"`,
      `\\'$(touch ${proof})`,
      `a[$(touch ${proof})]`,
    ]
    let tried = 0
    fc.assert(
      fc.property(fc.array(piece, { minLength: 2, maxLength: 9 }), fc.constantFrom(...values), (pieces, name) => {
        const run = pieces.join('')
        if (!run.includes('unit.name }}') && !run.includes('unit.name}}')) return
        if (templateFaults(run).length > 0 || unsafePlaces(run, 'shell').length > 0) return
        tried += 1
        spawnSync('/bin/sh', { input: fillIn(run, { unit: { name } }, escapes.shell) })
        expect(existsSync(proof), run).toBe(false)
      }),
      { numRuns: 1000 },
    )
    expect(tried).toBeGreaterThan(50)
    rmSync(dirname(proof), { recursive: true })
  })

  it('is refused where it would begin another line, in every way of writing', () => {
    for (const end of ['\n', '\r', '\u0000', '\u001b', '\u0085', '\u2028'])
      for (const written of [...Object.values(escapes), inInput])
        expect(() => written(`Crew${end}reboot`)).toThrow(expect.objectContaining({ kind: 'rejected' }))
  })

  it('stands between double quotes with what would end them made harmless', () => {
    expect(escapes.quoted('a "b" \\ c')).toBe('"a \\"b\\" \\\\ c"')
  })

  it('goes bare only where no command line gives it a meaning', () => {
    expect(escapes.bare('10.44.8.20/24')).toBe('10.44.8.20/24')
    for (const value of hostile)
      expect(() => escapes.bare(value)).toThrow(expect.objectContaining({ kind: 'rejected' }))
  })
})
