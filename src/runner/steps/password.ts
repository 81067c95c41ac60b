/**
 * Password: the first one-way door. The new one lies in the vault before the unit hears of it, is proven in a second
 * session while the first is still open, and then the factory login must be refused.
 */

import type { Credentials, Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/wire-error'
import { held } from '../explain'
import type { UnitRun } from '../unit-run'

export async function password(run: UnitRun): Promise<string> {
  const login = run.newLogin
  const address = run.address ?? run.card.factory.address
  if (run.credentials?.password !== login.password) {
    await run.door('password', 'opened')
    await run.dialect.changePassword(login.user, login.password)
  }
  const second = await run.session(address)
  if (!(await opens(second, login))) {
    second.close()
    await takeBack(run)
    throw held('It took the new password and then refused it.', [
      'Its old password is back. Muster it again.',
      'If it happens twice, have another password made in the brief.',
    ])
  }
  run.keepSession(second, login, address)
  await run.door('password', 'passed')
  const third = await run.session(address)
  const factoryOpens = await opens(third, run.card.factory.login)
  third.close()
  if (factoryOpens)
    throw held('It still takes the factory password.', [
      'Muster it again.',
      `If it happens twice, reset it: ${run.card.reset.steps[0] ?? ''}`,
      'Do not leave it on site like this.',
    ])
  return 'new one proven, factory login refused'
}

/** Does this login open a session? Anything but a yes or a refusal is thrown. */
export async function opens(dialect: Dialect, login: Credentials): Promise<boolean> {
  try {
    await dialect.signIn(login)
    return true
  } catch (error) {
    if (error instanceof WireError && error.kind === 'refused') return false
    throw error
  }
}

/** The first session is still open: put back what it was opened with. */
async function takeBack(run: UnitRun): Promise<void> {
  const before = run.credentials
  if (before) await run.dialect.changePassword(before.user, before.password)
}
