// Plants each known fault, plays simulations until one breaks a rule, and writes the table of docs/simulation.md.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { planted } from './planted.mjs'
import { root } from './root.mjs'
import { playAll, simulate, storyOf } from './simulation.mjs'

/** Those that stood in the program until simulations found them: their smallest scenarios are kept as tests. */
const stood = [
  'The address door does not say where the unit is sent',
  'A lease counts from when the answer came',
  'A lease is measured by a clock that stands still while the laptop sleeps',
  'Changes do not ask whether the order is still ours',
  'Only the first part of a write asks whether the order is still ours',
  'Networks that a unit ships with go off air with the others',
  'Silenced networks are not saved before a restart',
  'A unit that came back as it was before, or took its move back, is taken for moved',
  'A unit that waits for an address waits for its own access points too',
  'A session that did not come about stays open',
  'A session with a controller that did not come about stays open',
  'The address that a unit shows under DHCP counts as its own',
  'A unit that DHCP moved is looked for in the subnet of the plan alone',
  'What asks DHCP is believed before it has asked',
  'An access point that DHCP sends elsewhere is called joined',
  'A move that an earlier muster left is not confirmed',
  'A move that an earlier muster left is confirmed at the planned address alone',
  'Who waits for a turn with the controller does not ask again when it has come',
  'Who has just come to its address is taken for one that trades',
  'A unit that DHCP sends elsewhere may take its move back',
]

const page = join(root, 'docs/simulation.md')
const marks = ['<!-- planted: made by npm run simulate -- --planted -->', '<!-- /planted -->']

const kept = join(root, 'tests/simulation/kept')
const fileOf = (what) => join(kept, `${what.toLowerCase().replaceAll(/[^a-z]+/g, '-')}.json`)

/** Keeps the smallest scenario that finds a fault which stood in the program. */
async function keep(each, seed) {
  const { scenario, violations } = await storyOf(seed, each)
  if (violations.length === 0) throw new Error(`the seed ${seed} does not find it when it is played alone`)
  const story = { found: each.what, broken: violations[0].rule, scenario }
  writeFileSync(fileOf(each.what), `${JSON.stringify(story, null, 2)}\n`)
}

/** What the kept scenario of a fault breaks with the fault in place; undefined where it breaks nothing, or is none. */
async function brokenByKept(each) {
  if (!existsSync(fileOf(each.what))) return undefined
  const { scenario } = JSON.parse(readFileSync(fileOf(each.what), 'utf8'))
  const [{ violations }] = await playAll([scenario], each)
  return violations[0]?.split(': ')[0]
}

/**
 * Plants each, plays until it is found, and writes the table.
 * @param words  only those whose description holds these; no table is written then
 * @returns      whether every one was found
 */
export async function plantAll(words = '', mostRuns = 10_000) {
  mkdirSync(kept, { recursive: true })
  const rows = []
  for (const each of planted.filter(({ what }) => what.includes(words))) {
    const { runs, failures, seconds } = await simulate({ runs: mostRuns, stopAt: 'first-failure', planted: each })
    const [first] = failures.toSorted((a, b) => a.seed - b.seed)
    let byKept = await brokenByKept(each)
    // The program has moved on where the scenario that is kept finds it no more: another takes its place.
    if (first && !byKept && stood.includes(each.what)) {
      await keep(each, first.seed)
      byKept = await brokenByKept(each)
    }
    const rule = first?.rule ?? byKept
    const where = first ? `seed ${first.seed}` : byKept ? 'its kept scenario' : 'not found'
    rows.push({ what: each.what, where, rule })
    const yet = byKept ? '' : stood.includes(each.what) ? ', by no kept scenario' : ''
    console.log(`${where.padEnd(17)} ${seconds.toFixed(1).padStart(6)} s  ${each.what}  (${rule ?? runs}${yet})`)
  }
  const found = rows.filter(({ rule }) => rule !== undefined)
  const lines = rows.map(({ what, where, rule }) => `| ${what} | ${where} | ${rule ?? ''} |`)
  if (words !== '') return found.length === rows.length
  const table = ['| planted | found by | of the rule |', '| --- | --- | --- |', ...lines].join('\n')
  const text = readFileSync(page, 'utf8')
  const [from, to] = marks.map((mark) => text.indexOf(mark))
  const head = `${text.slice(0, from)}${marks[0]}\n\n`
  writeFileSync(page, `${head}${found.length} of ${rows.length} were found.\n\n${table}\n\n${text.slice(to)}`)
  return found.length === rows.length
}
