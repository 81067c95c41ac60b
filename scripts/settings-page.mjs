// npm run settings: writes the table of settings against the kit cards to docs/settings.md.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importSource } from './lib/bundle-source.mjs'
import { root } from './lib/root.mjs'

process.env.AIR_MUSTER_ROOT ??= root
const { settingsPage, loadKitCards } = await importSource('src/core/config/settings-page', 'src/store/kit-card-files')
writeFileSync(join(root, 'docs/settings.md'), settingsPage(loadKitCards()))
