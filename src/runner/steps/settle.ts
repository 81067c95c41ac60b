/**
 * The steps that write settings: read, compare, write only what differs, read back. What is right already costs one read.
 */
import { compare, type Difference } from '../../core/config/compare'
import { procedure, type Step } from '../../core/muster/procedure'
import { held } from '../explain'
import type { UnitRun } from '../unit-run'

/** Seconds that a unit gets to settle before it is read back, where a change touches more than itself. */
const settling: Readonly<Partial<Record<Step, number>>> = { country: 3 }

export async function settle(run: UnitRun, step: Step): Promise<string> {
  const differences = await differing(run, step)
  if (differences.length === 0) return 'was right already'
  for (const { sentence } of differences) run.say(sentence)
  await run.dialect.write(differences, run.compiled.config)
  const seconds = settling[step]
  if (seconds !== undefined) await run.pause(seconds)
  const left = await differing(run, step)
  if (left.length > 0)
    throw held(
      'It took a setting and shows another.',
      ['Muster it again.', 'If it happens twice, set it aside: its firmware may be faulty.'],
      left.map(({ sentence }) => sentence).join(' '),
    )
  return differences.length === 1 ? '1 setting written' : `${differences.length} settings written`
}

/** What differs now in the parts that a step writes. */
export async function differing(run: UnitRun, step: Step): Promise<Difference[]> {
  const { parts } = procedure[step]
  return compare(run.compiled.config, await run.dialect.read()).filter(({ path }) => parts.includes(path[0]))
}
