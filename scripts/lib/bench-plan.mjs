// Bundles the bench of plans and runs it on one core, as a process of its own.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { bundleSource } from './bundle-source.mjs'
import { root } from './root.mjs'

export async function benchPlan() {
  const outfile = join(root, 'dist/bench-plan.mjs')
  await bundleSource(outfile, 'tests/bench/plan-bench')
  const { status } = spawnSync(process.execPath, [outfile], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, AIR_MUSTER_ROOT: root },
  })
  if (status !== 0) process.exit(status ?? 1)
}
