// Builds the web application for production, when its sources are newer than what was built.
import { spawnSync } from 'node:child_process'
import { copyFileSync, existsSync, mkdirSync, statSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { newestChange } from './bundle.mjs'
import { root } from './root.mjs'

/** Written after a build that went well: a build that was broken off is made again. */
const stamp = join(root, '.next/air-muster-built')

/** Large libraries go to the page as they are: to bundle them anew takes longer than all of our own code. */
const asShipped = [
  'plotly.js-dist-min/plotly.min.js',
  'pdfjs-dist/build/pdf.min.mjs',
  'pdfjs-dist/build/pdf.worker.min.mjs',
]

export function buildSiteIfStale() {
  const built = existsSync(stamp) ? statSync(stamp).mtimeMs : 0
  const sources = ['src', 'models', 'package.json', 'next.config.ts', 'tsconfig.json'].map((name) => join(root, name))
  if (Math.max(...sources.map(newestChange)) < built) return
  process.stderr.write('Building the web application, once …\n')
  const vendor = join(root, 'public/vendor')
  mkdirSync(vendor, { recursive: true })
  for (const file of asShipped) copyFileSync(join(root, 'node_modules', file), join(vendor, basename(file)))
  const result = spawnSync(process.execPath, [join(root, 'node_modules/next/dist/bin/next'), 'build'], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
    encoding: 'utf8',
  })
  if (result.status !== 0) throw new Error(`The web application could not be built:\n${result.stdout}${result.stderr}`)
  writeFileSync(stamp, '')
}
