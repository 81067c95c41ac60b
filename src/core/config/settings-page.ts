/** The table of settings against kit cards, as a page of the documentation. */

import { settingIds, settingOf } from '../catalogue/catalogue'
import type { KitCard } from '../kit/kit-card'

/** What a card says of a setting, in a cell: taken, taken and never shown, taken in part, or by hand. */
function cell({ can }: KitCard, id: (typeof settingIds)[number]): string {
  const taken = can[id]
  if (!taken) return '·'
  const notes = [
    taken.readable === 'no' ? 'hidden' : '',
    taken.step === undefined ? '' : `by ${taken.step}`,
    taken.values ? 'some' : '',
    taken.as === 'posix' ? 'POSIX' : '',
  ].filter(Boolean)
  return notes.join(', ') || 'yes'
}

/** Markdown: a line a setting, a column a model. */
export function settingsPage(cards: ReadonlyMap<string, KitCard>): string {
  const models = [...cards.keys()]
  const lines = settingIds.map((id) => {
    const { scope, step, words, secret } = settingOf(id)
    const cells = [...cards.values()].map((card) => cell(card, id))
    return `| \`${id}\` | ${words}${secret ? ' (secret)' : ''} | ${scope} | ${step} | ${cells.join(' | ')} |`
  })
  return `# Settings

Written by \`npm run settings\` from \`src/core/catalogue/\` and the kit cards; a test keeps it true.

A setting stands in the table once: what it is called, which step of a muster writes it, how brief and plan ask for it,
and when two values are the same. What a muster writes, compares, proves, and says to be done by hand follows from it.

*yes*: set and read back. *hidden*: set, and never shown by the unit; the mark of what was written is kept. *by n*: in
whole steps of n kbit/s. *some*: not every value. *POSIX*: as a rule of POSIX, not by name. *·*: by hand, and said so
before a muster, on the slip and on the sheet. Models that no muster speaks to yet stand here with what their cards say.

| id | setting | of each | step | ${models.join(' | ')} |
|---|---|---|---|${models.map(() => '---').join('|')}|
${lines.join('\n')}
`
}
