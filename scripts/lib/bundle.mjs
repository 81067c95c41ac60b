// Bundles the processes that are not the web application: runner, lab, command line.
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './root.mjs'

export { root }

const entries = {
  cli: 'src/cli/main.ts',
  runner: 'src/runner/main.ts',
  lab: 'src/lab/main.ts',
  'wire-helper': 'src/wire/helper/main.ts',
  planner: 'src/jobs/planner.ts',
}

/** Newest change below a folder or of a file, ms. */
export function newestChange(path) {
  const info = statSync(path)
  if (!info.isDirectory()) return info.mtimeMs
  return readdirSync(path).reduce(
    (newest, name) => (name === 'node_modules' ? newest : Math.max(newest, newestChange(join(path, name)))),
    info.mtimeMs,
  )
}

export async function bundleIfStale() {
  const built = Object.keys(entries).map((name) => join(root, 'dist', `${name}.mjs`))
  const oldest = Math.min(...built.map((file) => (existsSync(file) ? statSync(file).mtimeMs : 0)))
  if (newestChange(join(root, 'src')) < oldest && statSync(join(root, 'package.json')).mtimeMs < oldest) return
  const { build } = await import('esbuild')
  await build({
    absWorkingDir: root,
    entryPoints: entries,
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    // What is bundled starts in half the time; these find files of their own, are asked for rarely, or are no strict code.
    external: ['net-snmp', 'ssh2', 'mysql2', 'mysql2/*', 'pino', 'pkijs', 'selfsigned', 'server-only'],
    banner: {
      js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
    },
    chunkNames: 'chunk/[name]-[hash]',
    logLevel: 'error',
  })
}
