// Bundles sources of ours that a script runs once: a bench, or a page of the docs.
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { root } from './root.mjs'

/** Bundles modules, named from the root, into one file that exports what they all export. */
export async function bundleSource(outfile, ...modules) {
  await build({
    absWorkingDir: root,
    stdin: { contents: modules.map((name) => `export * from './${name}'`).join('\n'), resolveDir: root },
    outfile,
    bundle: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    logLevel: 'error',
  })
}

/** What modules export; their bundle is gone again. */
export async function importSource(...modules) {
  const folder = mkdtempSync(join(root, 'dist-source-'))
  try {
    const outfile = join(folder, 'source.mjs')
    await bundleSource(outfile, ...modules)
    return await import(outfile)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
