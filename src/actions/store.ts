/** The one store of the web process, opened at first use. */
import 'server-only'
import { openInstallation, type Store, storeOptionsFromEnvironment } from '../jobs/installation'

const holder = globalThis as { airMusterStore?: Promise<Store> }

/** A database that was away at first use is asked again at the next. */
export function getStore(): Promise<Store> {
  holder.airMusterStore ??= openInstallation(storeOptionsFromEnvironment()).catch((error: unknown) => {
    holder.airMusterStore = undefined as never
    throw error
  })
  return holder.airMusterStore
}
