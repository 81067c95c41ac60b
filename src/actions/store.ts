/** The one store of the web process, opened at first use. */
import 'server-only'
import { migrateStore, openStore, type Store, storeOptionsFromEnvironment } from '../store/open'

const holder = globalThis as { airMusterStore?: Promise<Store> }

/** A database that was away at first use is asked again at the next. */
export function getStore(): Promise<Store> {
  holder.airMusterStore ??= open().catch((error: unknown) => {
    holder.airMusterStore = undefined as never
    throw error
  })
  return holder.airMusterStore
}

async function open(): Promise<Store> {
  const store = openStore(storeOptionsFromEnvironment())
  try {
    await migrateStore(store)
    return store
  } catch (error) {
    await store.close().catch(() => undefined)
    throw error
  }
}
