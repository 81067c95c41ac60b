// npm run schema: writes the published form of a job file to docs/job.schema.json.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { root } from './lib/root.mjs'

const folder = mkdtempSync(join(root, 'dist-schema-'))
try {
  const outfile = join(folder, 'job-document.mjs')
  await build({
    absWorkingDir: root,
    entryPoints: ['src/core/job/job-document.ts'],
    outfile,
    bundle: true,
    format: 'esm',
    platform: 'node',
    packages: 'external',
    logLevel: 'error',
  })
  const { jobJsonSchema } = await import(outfile)
  writeFileSync(join(root, 'docs/job.schema.json'), `${JSON.stringify(jobJsonSchema(), null, 2)}\n`)
} finally {
  rmSync(folder, { recursive: true, force: true })
}
