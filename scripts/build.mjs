// npm run build: everything that is built, if it is stale.
import { bundleIfStale } from './lib/bundle.mjs'
import { buildSiteIfStale } from './lib/site.mjs'

await bundleIfStale()
buildSiteIfStale()
