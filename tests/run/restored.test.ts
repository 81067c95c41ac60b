/** A backup is restored while a muster is under way, and after its runner is gone in the middle of it. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, it } from 'vitest'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { backUp, restoreWhole } from '../../src/jobs/whole-backup'
import { type Bench, openBench } from '../support/bench'

const folder = mkdtempSync(join(tmpdir(), 'air-muster-restored-'))
let bench: Bench
afterEach(async () => {
  await bench.close()
  rmSync(folder, { recursive: true, force: true })
})

it('is refused while a muster is worked on; afterwards units in its middle are brought home', async () => {
  bench = await openBench({ pace: 60 })
  const { store, env, job } = bench
  const [path, passphrase, key] = [join(folder, 'before'), 'three words and more', env.AIR_MUSTER_VAULT_FILE ?? '']
  await backUp(store, key, passphrase, path, new Date())
  const hasCome = async (step: Step): Promise<boolean> =>
    [...(await bench.roll()).rows.values()].some(({ steps }) => steps[step]?.kind === 'done')
  const stop = bench.startRunner()
  await bench.order()
  // One unit at least has its new password: the backup knows no door that it went through.
  await expect.poll(() => hasCome('password'), { interval: 20 }).toBe(true)
  await expect(restoreWhole(store, key, path, passphrase)).rejects.toThrow('restore-during-muster')
  expect(await hasCome('password')).toBe(true)
  await stop()
  await expect
    .poll(() => restoreWhole(store, key, path, passphrase).catch(({ message }: Error) => message), { interval: 200 })
    .toMatch(/^2\d\d\d-/)
  expect((await bench.roll()).rows.size).toBe(0)
  bench.startRunner()
  await bench.order()
  const { rows } = await bench.settled()
  expect(job.units.filter(({ id }) => !answers(rows.get(id))).map(({ id }) => [id, rows.get(id)?.steps])).toEqual([])
  expect(bench.lab.air.everOpen).toEqual([])
})
