/** docs/messages.md: every code with its sentence, and what to do where a unit is held. */
import { briefMessages } from '../core/message/brief'
import { kitMessages } from '../core/message/kit'
import type { Code } from '../core/message/message'
import { musterMessages } from '../core/message/muster'
import { planMessages } from '../core/message/plan'
import { reviewMessages } from '../core/message/review'
import { storeMessages } from '../core/message/store'
import { wireMessages } from '../core/message/wire'
import type { Held, HeldCode } from '../core/muster/held'
import { heldWords } from './en/held'
import { sentence } from './en/sentence'
import { typicalHeld, typicalMessage } from './typical'

const rooms: readonly (readonly [title: string, codes: object])[] = [
  ['The brief', briefMessages],
  ['The kit', kitMessages],
  ['The plan', planMessages],
  ['Reviews of brief and plan against models and rules', reviewMessages],
  ['A muster', musterMessages],
  ['On the wire', wireMessages],
  ['Jobs, files and the database', storeMessages],
]

export function messagesPage(): string {
  return `# Messages

Everything that Air Muster says is a code with parameters, in the database, in the log and between its parts. The
sentence is made last, where it is shown. This page lists each code with its English sentence; the papers for a client
and all messages are there in German as well.

\`‹name›\` stands for a parameter, and 7 for a number. Find a code with your browser's search. This page is written by
\`npm run messages\` from the tables in \`src/core/message/\` and \`src/words/\`.

## Why a unit is held

| Code | What it says | What the hands do |
|---|---|---|
${(Object.keys(typicalHeld) as HeldCode[])
  .filter((code) => code !== 'as-told')
  .map(heldLine)
  .join('\n')}

${rooms.map(([title, codes]) => section(title, Object.keys(codes) as Code[])).join('\n\n')}
`
}

function heldLine(code: HeldCode): string {
  const { why, hands } = heldWords({ code, params: typicalHeld[code] as Held['params'] })
  return `| \`${code}\` | ${cell(why)} | ${hands.map(cell).join(' ')} |`
}

function section(title: string, codes: readonly Code[]): string {
  const lines = codes.map((code) => `| \`${code}\` | ${cell(sentence(typicalMessage(code)))} |`)
  return `## ${title}\n\n| Code | What it says |\n|---|---|\n${lines.join('\n')}`
}

/** Text as a cell of a table in Markdown. */
const cell = (text: string): string => text.replaceAll('|', '\\|').replaceAll('\n', ' ').replaceAll('<', '&lt;')
