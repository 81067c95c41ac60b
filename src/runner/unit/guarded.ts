/** A session that changes nothing while another runner may have the order: each change asks first. */
import type { Dialect, MayChange } from '../../wire/dialect/dialect'

export function guarded(dialect: Dialect, mayChange: MayChange): Dialect {
  const asking =
    <A extends unknown[], R>(act: (...words: A) => Promise<R>) =>
    async (...words: A): Promise<R> => {
      await mayChange()
      return act(...words)
    }
  const { install, othersWhoChanged } = dialect
  return {
    identify: () => dialect.identify(),
    signIn: (login) => dialect.signIn(login),
    read: (reading) => dialect.read(reading),
    backup: () => dialect.backup(),
    write: asking((differences, desired) => dialect.write(differences, desired, mayChange)),
    changePassword: asking((user, password) => dialect.changePassword(user, password)),
    changes: () => dialect.changes(),
    revision: () => dialect.revision(),
    apply: asking(() => dialect.apply()),
    confirm: asking((desired) => dialect.confirm(desired)),
    save: asking(() => dialect.save()),
    restart: asking(() => dialect.restart()),
    ...(install ? { install: asking((image) => install.call(dialect, image)) } : {}),
    air: () => dialect.air(),
    ...(othersWhoChanged ? { othersWhoChanged: () => othersWhoChanged.call(dialect) } : {}),
    close: () => dialect.close(),
  }
}
