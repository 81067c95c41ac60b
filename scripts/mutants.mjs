// npm run mutants: changes the computing core one token at a time, and tells how many of the changes its tests notice.
// Names of parts after -- choose among them. Takes some two hours of a machine that does nothing else, since a change
// that makes a search endless is known by its time; not part of npm test.
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

await ensureNodeModules()
const chosen = process.argv.slice(2)
/** The inner loops of the search for channels: measured apart, so that all else is searched at full speed. */
const search = ['channel-field', 'channel-search'].map((name) => `src/core/radio/channels/${name}.ts`)
/** What is searched, and how much. */
const problem = ['plan-channels', 'search-effort', 'channel-problem', 'spectral-mask', 'span'].map(
  (name) => `src/core/radio/channels/${name}.ts`,
)
const files = {
  addressing: ['src/core/addressing/*.ts', 'src/core/address/*.ts'],
  config: ['src/core/config/**/*.ts', 'src/core/catalogue/*.ts'],
  muster: ['src/core/muster/*.ts'],
  plan: ['src/core/plan/*.ts'],
  regulatory: ['src/core/regulatory/*.ts'],
  radio: [
    'src/core/radio/**/*.ts',
    'src/core/plan/plan-radios.ts',
    'src/core/plan/radio-hearings.ts',
    ...[...search, ...problem].map((path) => `!${path}`),
  ],
  'radio-problem': problem,
  'radio-search': search,
}
const parts = chosen.length > 0 ? chosen : Object.keys(files)
const unknown = parts.filter((part) => !(part in files))
if (unknown.length > 0) {
  process.stderr.write(`no part is called ${unknown.join(', ')}; there are ${Object.keys(files).join(', ')}\n`)
  process.exit(2)
}
const noticed = new Set(['Killed', 'Timeout'])
const missed = new Set(['Survived', 'NoCoverage'])

/** One line for each change that went unnoticed, so that a test can be written for it. */
function unnoticed(file, source, { location: { start, end }, replacement, mutatorName }) {
  const line = source.split('\n')[start.line - 1] ?? ''
  const was = line.slice(start.column - 1, start.line === end.line ? end.column - 1 : undefined)
  return `  ${file}:${start.line} ${mutatorName}: ${was.trim()} -> ${String(replacement).split('\n')[0]}`
}

const lines = []
for (const part of parts) {
  const { status } = spawnSync(
    join(root, 'node_modules/.bin/stryker'),
    ['run', '--mutate', [...files[part], '!src/core/**/*.test.ts'].join(',')],
    { cwd: root, stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, AIR_MUSTER_PART: part } },
  )
  if (status !== 0) process.exit(status ?? 1)
  const { files: measured } = JSON.parse(readFileSync(join(root, 'reports/mutation/mutation.json'), 'utf8'))
  const all = Object.entries(measured).flatMap(([file, { mutants, source }]) =>
    mutants.map((mutant) => ({ file, source, mutant })),
  )
  const [seen, unseen] = [noticed, missed].map((kinds) => all.filter(({ mutant }) => kinds.has(mutant.status)))
  for (const { file, source, mutant } of unseen) process.stdout.write(`${unnoticed(file, source, mutant)}\n`)
  const share = (100 * seen.length) / (seen.length + unseen.length)
  lines.push(`${part}: ${seen.length} of ${seen.length + unseen.length} changes noticed, ${share.toFixed(1)} %`)
}
process.stdout.write(`${lines.join('\n')}\n`)
