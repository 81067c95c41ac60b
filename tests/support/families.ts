/** The table of families by settings in docs/families.md, made of what a muster of the whole demo has shown. */

import { settingIds } from '../../src/core/catalogue/catalogue'
import type { AsBuiltRow } from '../../src/core/handover/as-built'

const words = {
  proven: 'proven',
  written: 'written',
  'by-hand': 'by hand',
  'not-for-it': '·',
  open: 'open',
} as const

/** What became of each setting on the units of each model: the words of all its units, the commonest first. */
export function familiesTable(rows: readonly AsBuiltRow[], nameOf: (model: string) => string): string {
  const models = [...new Set(rows.map(({ model }) => model))].sort()
  const cell = (model: string, id: string): string => {
    const kinds = rows
      .filter((row) => row.model === model)
      .flatMap((row) => row.outcomes.filter((each) => each.id === id).map(({ outcome }) => words[outcome.kind]))
    const counted = new Map<string, number>()
    for (const kind of kinds) counted.set(kind, (counted.get(kind) ?? 0) + 1)
    return [...counted].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])).map(([kind]) => kind)[0] ?? '·'
  }
  const lines = settingIds.map((id) => `| \`${id}\` | ${models.map((model) => cell(model, id)).join(' | ')} |`)
  return [
    `| setting | ${models.map(nameOf).join(' | ')} |`,
    `|---|${models.map(() => '---|').join('')}`,
    ...lines,
  ].join('\n')
}
