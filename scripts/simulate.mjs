// npm run simulate: plays simulated musters by seed; docs/simulation.md says how to read them.
//   --runs N     so many seeds (10000)
//   --from N     the first of them (1)
//   --seconds N  ends after so long
//   --seed N     tells the story of one seed, shrunk to what it fails by
//   --planted    plants known faults, one after the other, and writes their table into docs/simulation.md
//   --only WORDS with --planted: those whose description holds these words
import { parseArgs } from 'node:util'
import { simulate, storyOf } from './lib/simulation.mjs'

const { values } = parseArgs({
  options: {
    runs: { type: 'string', default: '10000' },
    from: { type: 'string', default: '1' },
    seconds: { type: 'string' },
    seed: { type: 'string' },
    planted: { type: 'boolean', default: false },
    only: { type: 'string', default: '' },
  },
})

if (values.planted) {
  const { plantAll } = await import('./lib/plant-all.mjs')
  process.exitCode = (await plantAll(values.only, Number(values.runs))) ? 0 : 1
} else if (values.seed !== undefined) {
  const { scenario, story, violations } = await storyOf(Number(values.seed))
  console.log(JSON.stringify(scenario, null, 2))
  for (const line of story) console.log(line)
  for (const { rule, detail } of violations) console.log(`\nBroken: ${rule}: ${detail}`)
  process.exitCode = violations.length === 0 ? 0 : 1
} else {
  const every = 1000
  let shown = 0
  const result = await simulate({
    first: Number(values.from),
    runs: Number(values.runs),
    seconds: values.seconds === undefined ? undefined : Number(values.seconds),
    progress: ({ runs, failures }) => {
      if (runs - shown < every) return
      shown = runs
      process.stderr.write(`\r${runs} played, ${failures.length} failed `)
    },
  })
  process.stderr.write('\r')
  for (const [what, times] of Object.entries(result.counts).sort()) console.log(`${String(times).padStart(9)}  ${what}`)
  const { runs, musters, leapt, events, seconds, failures } = result
  for (const { seed, rule, detail } of failures) console.log(`seed ${seed}: ${rule}: ${detail}`)
  console.log(
    `${runs} simulations with ${musters} musters and ${events} events, ${(leapt / 86_400).toFixed(1)} days ` +
      `leapt over, in ${seconds.toFixed(1)} s; ${failures.length} failed`,
  )
  process.exitCode = failures.length === 0 ? 0 : 1
}
