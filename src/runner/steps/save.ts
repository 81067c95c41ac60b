/** Save: what is in effect survives a restart from now on. People forget, on every page. */
import { type Message, message } from '../../core/message/message'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

export async function save({ access, journal }: UnitRun): Promise<Message> {
  const { saving } = access.dialect
  const isSaved = !saving || (await saving.isSaved())
  // Asked in one go: what others of the same controller change next is theirs to save.
  if (!isSaved && !(await saving.save())) throw held('not-saved', {})
  await journal.tookEffect()
  return isSaved ? message('was-saved-already') : message('saved')
}
