/**
 * Password: the first one-way door. The new one lies in the vault before the unit hears of it, is proven in a second
 * session while the first is still open, and then the factory login must be refused.
 */
import type { Credentials, Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/wire-error'
import { held } from '../held-error'
import type { UnitRun } from '../unit-run'

export async function password(run: UnitRun): Promise<string> {
  const { target, access, journal } = run
  const { login, card } = target
  const address = access.here
  if (access.credentials?.password !== login.password) {
    await journal.door('password', 'opened')
    await access.dialect.changePassword(login.user, login.password)
  }
  const second = await access.session(address)
  if (!(await opensOrCloses(second, login))) {
    await takeBack(run)
    throw held('password-not-kept', {})
  }
  access.keep(second, login, address)
  await journal.door('password', 'passed')
  const factoryOpens = await access.beside(address, (third) => opens(third, card.factory.login))
  if (factoryOpens) throw held('factory-password-stays', { reset: card.reset.steps[0] ?? '' })
  return 'new one proven, factory login refused'
}

/** Does this login open a session? Anything but a yes or a refusal is thrown. */
export async function opens(dialect: Pick<Dialect, 'signIn'>, login: Credentials): Promise<boolean> {
  try {
    await dialect.signIn(login)
    return true
  } catch (error) {
    if (error instanceof WireError && error.kind === 'refused') return false
    throw error
  }
}

/** A session that does not come about is let go: some units take one at a time. */
async function opensOrCloses(session: Dialect, login: Credentials): Promise<boolean> {
  let opened = false
  try {
    opened = await opens(session, login)
    return opened
  } finally {
    if (!opened) session.close()
  }
}

/** Put back what the first session was opened with; it is still open, where the unit takes more than one. */
async function takeBack(run: UnitRun): Promise<void> {
  const { access, target } = run
  const before = access.credentials
  if (!before) return
  if (target.card.does.sessions === 'one') await access.signIn(before, access.here)
  await access.dialect.changePassword(before.user, before.password)
}
