/**
 * The steps that write settings: read, compare, write only what differs, read back. What is right already costs one
 * read.
 */

import { settingOf } from '../../core/catalogue/catalogue'
import type { SettlingStep } from '../../core/catalogue/setting'
import { type Difference, stepOf } from '../../core/config/compare'
import { find } from '../../core/config/outcomes'
import { keyText, type SettingKey } from '../../core/config/unit-config'
import { type Message, message, messageOf } from '../../core/message/message'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

/** Seconds that a unit gets to settle before it is read back, where its country resets its channels. */
const afterCountry = 3

export async function settle(run: UnitRun, step: SettlingStep): Promise<Message> {
  const { target, access, journal, waits } = run
  const differences = await differing(run, step)
  if (differences.length === 0) return message('was-right-already')
  for (const each of differences) journal.say(messageOf(each))
  run.willChange()
  await access.dialect.write(differences, target.compiled.config)
  if (step === 'country' && target.card.does.countryResetsChannels) await waits.pause(afterCountry)
  const observed = await run.configured()
  for (const key of written(run, differences))
    if (find(observed, key).kind === 'unreadable') journal.wrote(keyText(key), target.markOf(key))
  const left = await differing(run, step)
  if (left.length > 0) throw held('setting-not-kept', { differences: left.map(messageOf) })
  return differences.length === 1
    ? message('one-setting-written')
    : message('settings-written', { count: differences.length })
}

/** What differs now in the settings that a step writes. */
export async function differing(run: UnitRun, step: SettlingStep): Promise<Difference[]> {
  return (await run.differences()).filter((difference) => stepOf(difference) === step)
}

/** The settings that these differences had written: a network that was missing with all that it has. */
function written({ target }: UnitRun, differences: readonly Difference[]): SettingKey[] {
  return differences.flatMap((difference): SettingKey[] => {
    if (difference.kind === 'value') return [difference]
    return target.expected.filter(({ id, of }) => of === difference.of && settingOf(id).scope === difference.scope)
  })
}
