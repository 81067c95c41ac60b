// npm run settings: writes the table of settings against the kit cards to docs/settings.md.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { root } from './lib/root.mjs'

const folder = mkdtempSync(join(root, 'dist-settings-'))
try {
  const outfile = join(folder, 'page.mjs')
  await build({
    absWorkingDir: root,
    stdin: {
      contents: `export { settingsPage } from './src/core/config/settings/table-text'
export { loadKitCards } from './src/store/kit-card-files'`,
      resolveDir: root,
    },
    outfile,
    bundle: true,
    format: 'esm',
    platform: 'node',
    packages: 'external',
    logLevel: 'error',
  })
  process.env.AIR_MUSTER_ROOT ??= root
  const { settingsPage, loadKitCards } = await import(outfile)
  writeFileSync(join(root, 'docs/settings.md'), settingsPage(loadKitCards()))
} finally {
  rmSync(folder, { recursive: true, force: true })
}
