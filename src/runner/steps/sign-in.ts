/** Sign in: with the factory login, or with the job's password where an earlier run got that far. */
import { modelName } from '../../core/kit/kit-card'
import { fits, modelBy } from '../../core/kit/recognise'
import type { Credentials, Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/wire-error'
import { refusesAllPasswords } from '../explain'
import { held } from '../held-error'
import type { UnitRun } from '../unit-run'

export async function signIn(run: UnitRun): Promise<string> {
  const { target, access, journal } = run
  const address = access.here
  const dialect = await access.session(address)
  try {
    const evidence = await dialect.identify()
    if (!fits(evidence, target.card))
      throw held('another-model', { says: modelBy(evidence, []), card: modelName(target.card) })
    const key = await firstThatOpens(run, dialect)
    if (!key) throw refusesAllPasswords(target)
    access.keep(dialect, key.login, address)
    if (key.kind === 'factory') await journal.foundBoxed()
    return `signed in with ${key.words}`
  } catch (error) {
    dialect.close()
    throw error
  }
}

interface Key {
  readonly kind: 'factory' | 'job' | 'old'
  readonly login: Credentials
  readonly words: string
}

async function firstThatOpens({ target, journal }: UnitRun, dialect: Dialect): Promise<Key | undefined> {
  const factory: Key = { kind: 'factory', login: target.card.factory.login, words: 'the factory password' }
  const job: Key = { kind: 'job', login: target.login, words: "the job's password" }
  const old = target.oldLogins.map(
    (login): Key => ({ kind: 'old', login, words: 'a password that the job had before' }),
  )
  // The likelier first: some units lock out after a few that fail. After a crash it may be either of two.
  const keys =
    journal.doors.password === 'shut'
      ? [factory, job, ...old]
      : target.passwordWasReplaced
        ? [...old, job, factory]
        : [job, factory, ...old]
  for (const key of keys) {
    try {
      await dialect.signIn(key.login)
      return key
    } catch (error) {
      if (!(error instanceof WireError && error.kind === 'refused')) throw error
      journal.say(`${key.words} refused: ${error.reason}`)
    }
  }
  return undefined
}
