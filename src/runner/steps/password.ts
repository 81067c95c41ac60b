/**
 * Password: the first one-way door. The new one lies in the vault before the unit hears of it, is proven in a second
 * session while the first is still open, and then the factory login must be refused.
 */
import { type Message, message } from '../../core/message/message'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { tryLogins } from './logins'

export async function password(run: UnitRun): Promise<Message> {
  const { target, access, journal } = run
  const { login, card } = target
  const address = access.here
  if (access.credentials?.password !== login.password) {
    await journal.door('password', 'opened')
    await access.dialect.changePassword(login.user, login.password)
  }
  const { isNewOpen, isFactoryOpen } = await tryLogins(access, { address, login, card })
  if (!isNewOpen) {
    await takeBack(run)
    throw held('password-not-kept', {})
  }
  await journal.door('password', 'passed')
  if (isFactoryOpen) throw held('factory-password-stays', { reset: card.reset.steps[0] ?? '' })
  return message('password-proven')
}

/** Put back what the first session was opened with; it is still open, where the unit takes more than one. */
async function takeBack(run: UnitRun): Promise<void> {
  const { access, target } = run
  const before = access.credentials
  if (!before) return
  if (target.card.does.sessions === 'one') await access.signIn(before, access.here)
  await access.dialect.changePassword(before.user, before.password)
}
