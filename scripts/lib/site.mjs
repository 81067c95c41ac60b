// Builds the web application for production, when its sources are newer than what was built.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { newestChange } from './bundle.mjs'
import { root } from './root.mjs'

/** Written after a build that went well: a build that was broken off is made again. */
const stamp = join(root, '.next/air-muster-built')

export function buildSiteIfStale() {
  const built = existsSync(stamp) ? statSync(stamp).mtimeMs : 0
  const sources = ['src', 'package.json', 'next.config.ts', 'tsconfig.json'].map((name) => join(root, name))
  if (Math.max(...sources.map(newestChange)) < built) return
  process.stderr.write('Building the web application, once …\n')
  const result = spawnSync(process.execPath, [join(root, 'node_modules/next/dist/bin/next'), 'build'], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
    encoding: 'utf8',
  })
  if (result.status !== 0) throw new Error(`The web application could not be built:\n${result.stdout}${result.stderr}`)
  writeFileSync(stamp, '')
}
