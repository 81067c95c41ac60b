/** The SSH key of a job: kept whatever its length, and never shown again. */
import { generateKeyPairSync } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { secretName } from '../../src/core/brief/brief'
import { revealSecret } from '../../src/jobs/secrets'
import { setSshKey } from '../../src/jobs/ssh-key'
import { openSecret } from '../../src/store/secrets'
import { freshDemoJob } from '../support/bench'
import { often } from '../support/long'

let fresh: Awaited<ReturnType<typeof freshDemoJob>>
let job: typeof fresh.job
beforeAll(async () => {
  fresh = await freshDemoJob()
  job = fresh.job
})
afterAll(() => fresh.drop())

// Primes of a long key are sought for many seconds on a busy machine.
const bits = often(2048, 4096)

it(`of RSA with ${bits} bits is kept as it is`, async () => {
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: bits })
  const text = privateKey.export({ type: 'pkcs1', format: 'pem' }) as string
  expect(await setSshKey(fresh.store, job, text)).toMatchObject({ ok: true })
  expect(await openSecret(fresh.store, job.id, secretName.sshKey)).toBe(`${text.trim()}\n`)
})

it('is never shown, whoever asks', async () => {
  const shown = await revealSecret(fresh.store, job, secretName.sshKey, { name: 'somebody' })
  expect(shown.ok).toBe(false)
  expect(JSON.stringify(shown)).not.toContain('PRIVATE KEY')
})
