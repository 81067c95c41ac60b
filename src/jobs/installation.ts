/** What pages, routes and command line need of the installation itself: its store, and how it fails. */
import { migrateStore } from '../store/migrate'
import { openStore, type Store, type StoreOptions } from '../store/open'

export { BrokenRowError, StoreError, storeErrorOf } from '../store/faults'
export { findJob, type Job, jobSlugs, namedJobs, StaleVersionError } from '../store/jobs'
export { loadKitCards } from '../store/kit-card-files'
export { databaseAnswers, type Store, type StoreOptions, storeOptionsFromEnvironment } from '../store/open'
export { inTime, rest } from '../store/rest'

/** Who asks. Until people sign in: the pages, the command line, or a runner. */
export interface Actor {
  readonly name: string
}
export const fromPages: Actor = { name: 'the pages' }
export const fromCommandLine: Actor = { name: 'the command line' }

/** Opens the store and brings it up to date. It is closed again where it cannot be. */
export async function openInstallation(options: StoreOptions): Promise<Store> {
  const store = openStore(options)
  try {
    await migrateStore(store)
    return store
  } catch (error) {
    await store.close().catch(() => undefined)
    throw error
  }
}
