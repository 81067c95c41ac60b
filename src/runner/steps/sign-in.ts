/** Sign in: with the factory login, or with the job's password where an earlier run got that far. */
import { modelName } from '../../core/kit/kit-card'
import type { Credentials, Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/wire-error'
import { held, refusesAllPasswords } from '../explain'
import type { UnitRun } from '../unit-run'

export async function signIn(run: UnitRun): Promise<string> {
  const address = run.address ?? run.card.factory.address
  const dialect = await run.session(address)
  try {
    const model = await dialect.identify()
    if (model !== run.card.recognise.realm)
      throw held(`It says that it is ${model}, not ${modelName(run.card)}.`, [
        'Read the model on its label.',
        'Correct the kit list, then muster it again.',
      ])
    const credentials = await firstThatOpens(run, dialect)
    if (!credentials) throw refusesAllPasswords({ unit: run.unit, card: run.card })
    run.keepSession(dialect, credentials.login, address)
    return `signed in with ${credentials.words}`
  } catch (error) {
    dialect.close()
    throw error
  }
}

interface Key {
  readonly login: Credentials
  readonly words: string
}

async function firstThatOpens(run: UnitRun, dialect: Dialect): Promise<Key | undefined> {
  const factory: Key = { login: run.card.factory.login, words: 'the factory password' }
  const job: Key = { login: run.newLogin, words: "the job's password" }
  const old = run.oldLogins.map((login): Key => ({ login, words: 'a password that the job had before' }))
  // The likelier first: some units lock out whoever guesses. After a crash it may be either of two.
  const keys =
    run.doors.password === 'shut'
      ? [factory, job, ...old]
      : run.passwordWasReplaced
        ? [...old, job, factory]
        : [job, factory, ...old]
  for (const key of keys) {
    try {
      await dialect.signIn(key.login)
      return key
    } catch (error) {
      if (!(error instanceof WireError && error.kind === 'refused')) throw error
      run.say(`${key.words} refused: ${error.reason}`)
    }
  }
  return undefined
}
