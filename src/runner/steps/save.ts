/** Save: what is in effect survives a restart from now on. People forget, on every page. */
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

export async function save({ access, journal }: UnitRun): Promise<string> {
  const before = await access.dialect.changes()
  if (before.saved === 'unsaved') {
    // Asked in one go: what others of the same controller change next is theirs to save.
    if ((await access.dialect.save()) === 'unsaved') throw held('not-saved', {})
  }
  await journal.tookEffect()
  return before.saved === 'unsaved' ? 'saved' : 'was saved already'
}
