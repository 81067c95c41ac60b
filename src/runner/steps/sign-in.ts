/** Sign in: with the factory login, or with the job's password where an earlier run got that far. */

import { makesItsAdmin, modelName, sessionEndsAfter } from '../../core/kit/kit-card'
import { fits, recognise } from '../../core/kit/recognise'
import { type Message, message } from '../../core/message/message'
import type { Credentials } from '../../core/secrets/credentials'
import type { Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/errors/wire-error'
import { refusesAllPasswords } from '../unit/explain'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

export async function signIn(run: UnitRun): Promise<Message> {
  const { target, access, journal } = run
  const address = access.here
  const dialect = await access.session(address)
  try {
    const evidence = await dialect.identify()
    if (!fits(evidence, target.card))
      throw held('another-model', {
        says: recognise(evidence, target.unit.mac, []).model ?? 'nothing',
        card: modelName(target.card),
      })
    const key = await onceItIsFree(run, () => firstThatOpens(run, dialect))
    if (!key) throw refusesAllPasswords(target)
    access.keep(dialect, key.login, address)
    access.contact.begins()
    if (key.kind === 'factory') await journal.foundBoxed()
    // A muster that ended in the middle may have left a move that takes itself back unless it is confirmed. Until then
    // some units take no other change.
    if (journal.doors.address === 'opened' && (await isWhereItWent(run, address)))
      await access.dialect.confirmedMove?.confirm(target.compiled.config)
    return message('signed-in-with', { key: key.told })
  } catch (error) {
    await access.look(dialect)
    dialect.close()
    throw error
  }
}

/**
 * Whether it answers where a muster has sent it, or where DHCP has sent it. The plan may have moved on twice since: it
 * went where it is not known to have been before.
 */
async function isWhereItWent(run: UnitRun, address: string): Promise<boolean> {
  const { plan, before, proven, card } = run.target
  if (address === plan.address || address === before.sentTo?.address) return true
  const wasAt = [card.factory.address, before.cameTo?.address, proven?.config.unit['management.address']]
  if (!wasAt.includes(address)) return true
  const method = (await run.inEffect()).unit['management.method']
  return method?.kind === 'value' && method.value === 'dhcp'
}

/** Seconds beyond its card's: a session that ends by itself was used a moment ago at the latest. */
const patience = 30
/** Some units lock out a client that tries too often. */
const betweenTries = 20

/** Never two writers: where somebody else is signed in, it is waited for until that session has ended by itself. */
async function onceItIsFree<T>({ target, journal, waits }: UnitRun, work: () => Promise<T>): Promise<T> {
  const seconds = sessionEndsAfter(target.card)
  let occupied: WireError | undefined
  let told = false
  const done = await waits.until(
    async () => {
      try {
        return { result: await work() }
      } catch (error) {
        if (!(error instanceof WireError && error.kind === 'occupied')) throw error
        occupied = error
      }
      if (!told) {
        const waitingFor = message('somebody-signed-in')
        await journal.tell('sign-in', { kind: 'waiting', until: waits.due(seconds), waitingFor })
      }
      told = true
      return undefined
    },
    seconds + patience,
    betweenTries,
  )
  if (!done) throw occupied ?? new WireError('occupied', message('somebody-else-signed-in'))
  return done.result
}

interface Key {
  readonly kind: 'factory' | 'job' | 'old'
  readonly login: Credentials
  readonly told: Message
}

async function firstThatOpens({ target, journal }: UnitRun, dialect: Dialect): Promise<Key | undefined> {
  const factory: Key = { kind: 'factory', login: target.card.factory.login, told: message('key-factory-password') }
  const job: Key = { kind: 'job', login: target.login, told: message('key-job-password') }
  const old = target.oldLogins.map((login): Key => ({ kind: 'old', login, told: message('key-former-password') }))
  const byKey = target.keyLogins.map((login): Key => ({ kind: 'old', login, told: message('key-ssh') }))
  // The likelier first: some units lock out after a few that fail. After a crash it may be either of two.
  const keys =
    journal.doors.password === 'shut'
      ? [factory, job, ...old]
      : target.passwordWasReplaced
        ? [...old, job, factory]
        : [job, factory, ...old]
  const today = target.loginsToday.map((login): Key => ({ kind: 'old', login, told: message('key-today') }))
  for (const key of [...keys, ...byKey, ...today]) {
    try {
      if (key !== factory || !makesItsAdmin(target.card)) await dialect.signIn(key.login)
      else {
        // It may ask the first client to make its admin: the new password is in the vault by now.
        if (journal.doors.password === 'shut') await journal.door('password', 'opened')
        await dialect.signIn(key.login, target.login)
      }
      const made = dialect.madeLogin?.()
      if (made) return { ...key, login: made, told: message('key-given-first') }
      return key
    } catch (error) {
      if (!(error instanceof WireError && error.kind === 'refused')) throw error
      journal.say(message('key-refused', { key: key.told, told: error.told }))
    }
  }
  return undefined
}
