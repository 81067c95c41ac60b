/**
 * A session that changes nothing while another runner may have the order, and writes nothing to a unit that may have
 * restarted since it was read: each change asks first.
 */
import type { Credentials } from '../../core/secrets/credentials'
import type { Dialect, MayChange } from '../../wire/dialect/dialect'
import type { Contact } from './contact'

export function guarded(dialect: Dialect, mayChange: MayChange, contact: Contact): Dialect {
  const heard =
    <A extends unknown[], R>(act: (...words: A) => Promise<R>) =>
    async (...words: A): Promise<R> => {
      contact.asks()
      const answer = await act(...words)
      contact.answered()
      return answer
    }
  const asking = <A extends unknown[], R>(act: (...words: A) => Promise<R>) =>
    heard(async (...words: A): Promise<R> => {
      await mayChange()
      contact.asks()
      return act(...words)
    })
  const writing = <A extends unknown[], R>(act: (...words: A) => Promise<R>) =>
    heard(async (...words: A): Promise<R> => {
      await mayChange()
      contact.isUnbroken()
      return act(...words)
    })
  /** Asked between two parts: the one before was answered. */
  const mayGoOn: MayChange = async () => {
    contact.answered()
    await mayChange()
    contact.isUnbroken()
  }
  const { othersWhoChanged, madeLogin, picture, staging, saving, confirmedMove, copies, firmware, restart } = dialect
  const revision = staging?.revision
  const signingIn = heard((login: Credentials) => dialect.signIn(login))
  /** Whoever comes first may be asked to make its admin: that changes the unit. */
  const makingLogin = asking((login: Credentials, toBe: Credentials) => dialect.signIn(login, toBe))
  return {
    identify: heard(() => dialect.identify()),
    signIn: (login, toBe) => (toBe === undefined ? signingIn(login) : makingLogin(login, toBe)),
    ...(madeLogin ? { madeLogin: () => madeLogin.call(dialect) } : {}),
    read: heard((reading) => dialect.read(reading)),
    write: writing((differences, desired) => dialect.write(differences, desired, mayGoOn)),
    changePassword: writing((user, password) => dialect.changePassword(user, password)),
    ...(staging
      ? {
          staging: {
            standing: heard(() => staging.standing()),
            apply: writing(() => staging.apply()),
            ...(revision ? { revision: heard(() => revision.call(staging)) } : {}),
          },
        }
      : {}),
    ...(saving ? { saving: { isSaved: heard(() => saving.isSaved()), save: writing(() => saving.save()) } } : {}),
    ...(confirmedMove ? { confirmedMove: { confirm: asking((desired) => confirmedMove.confirm(desired)) } } : {}),
    ...(copies ? { copies: { backup: heard(() => copies.backup()) } } : {}),
    ...(firmware ? { firmware: { install: writing((image) => firmware.install(image)) } } : {}),
    ...(restart ? { restart: asking(() => restart.call(dialect)) } : {}),
    air: heard(() => dialect.air()),
    ...(othersWhoChanged ? { othersWhoChanged: () => othersWhoChanged.call(dialect) } : {}),
    ...(picture ? { picture: (secrets) => picture.call(dialect, secrets) } : {}),
    close: () => dialect.close(),
  }
}
