// Bundles the bench of plans and runs it on one core, as a process of its own.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from 'esbuild'
import { root } from './root.mjs'

export async function benchPlan() {
  const outfile = join(root, 'dist/bench-plan.mjs')
  await build({
    absWorkingDir: root,
    entryPoints: ['tests/bench/plan-bench.ts'],
    outfile,
    bundle: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    logLevel: 'error',
  })
  const { status } = spawnSync(process.execPath, [outfile], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, AIR_MUSTER_ROOT: root },
  })
  if (status !== 0) process.exit(status ?? 1)
}
