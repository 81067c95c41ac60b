/** The one store of the web process, opened at first use. */
import 'server-only'
import { migrateStore, openStore, type Store, storeOptionsFromEnvironment } from '../../store/open'

const holder = globalThis as { airMusterStore?: Promise<Store> }

export function getStore(): Promise<Store> {
  holder.airMusterStore ??= open()
  return holder.airMusterStore
}

async function open(): Promise<Store> {
  const store = openStore(storeOptionsFromEnvironment())
  await migrateStore(store)
  return store
}
