/** Which logins open a unit: the new one has to, and the factory's must not. */
import type { KitCard } from '../../core/kit/kit-card'
import type { Credentials } from '../../core/secrets/credentials'
import type { Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/errors/wire-error'
import type { Access } from '../unit/access'

export interface LoginsTried {
  readonly isNewOpen: boolean
  readonly isFactoryOpen: boolean
}

interface Logins {
  readonly address: string
  readonly login: Credentials
  readonly card: Pick<KitCard, 'does' | 'factory'>
}

/**
 * Tries both, and goes on in the session that the new one opens. Where a unit takes one session at a time, the
 * factory's is tried first: so the session that has to be opened afterwards is the proof of the new one.
 */
export async function tryLogins(access: Access, { address, login, card }: Logins): Promise<LoginsTried> {
  const factory = (session: Dialect): Promise<boolean> => opens(session, card.factory.login)
  const anew = (): Promise<boolean> => opens({ signIn: (given) => access.signIn(given, address) }, login)
  if (card.does.sessions !== 'one') {
    const isNewOpen = await anew()
    return { isNewOpen, isFactoryOpen: await access.beside(address, factory) }
  }
  const session = await access.session(address)
  const isFactoryOpen = await factory(session).finally(() => session.close())
  return { isNewOpen: await anew(), isFactoryOpen }
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
