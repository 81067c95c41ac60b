/** Everything in one sealed file, and back in another installation. */
import { readFileSync, statSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loadJob } from '../../src/jobs/load-job'
import { backUp, restoreWhole } from '../../src/jobs/whole-backup'
import { openStore } from '../../src/store/open'
import { openDatedSecrets } from '../../src/store/secrets'
import { readWhole } from '../../src/store/whole'
import { demoJob, freshStore } from '../support/bench'

const passphrase = 'three words and more'
let from: Awaited<ReturnType<typeof freshStore>>
let to: Awaited<ReturnType<typeof freshStore>>
let jobId: number

beforeAll(async () => {
  from = await freshStore()
  to = await freshStore()
  jobId = await loadJob(
    from.store,
    demoJob((job) => Object.assign(job, { name: 'Überfahrt „Ellery“ ☕ \\ \' "' })),
    new Date(),
  )
})
afterAll(async () => {
  await from.drop()
  await to.drop()
})
const sealed = () => backUp(from.store, from.vaultKeyFile, passphrase, new Date('2026-11-25T12:00:00Z'))

describe('a backup', () => {
  it('puts everything into another installation, secrets included', async () => {
    expect(await restoreWhole(to.store, to.vaultKeyFile, await sealed(), passphrase)).toBe('2026-11-25T12:00:00.000Z')
    expect(await readWhole(to.store)).toEqual(await readWhole(from.store))
    expect(statSync(to.vaultKeyFile).mode & 0o777).toBe(0o600)
    // Whoever starts now has the key that the secrets were sealed with.
    const again = openStore({ url: to.url, vaultKeyFile: to.vaultKeyFile })
    expect((await openDatedSecrets(again, jobId)).secrets).toEqual((await openDatedSecrets(from.store, jobId)).secrets)
    await again.close()
  })

  it('shows nothing of what it holds, and is refused with another passphrase or a changed byte', async () => {
    const file = await sealed()
    const before = await readWhole(to.store)
    const { secrets } = await openDatedSecrets(from.store, jobId)
    for (const secret of [...secrets.values(), 'Überfahrt']) expect(file.includes(secret)).toBe(false)
    await expect(restoreWhole(to.store, to.vaultKeyFile, file, 'three other words')).rejects.toThrow('another one')
    for (const at of [25, file.length - 1]) {
      const changed = Buffer.from(file)
      changed.writeUInt8(changed.readUInt8(at) ^ 1, at)
      await expect(restoreWhole(to.store, to.vaultKeyFile, changed, passphrase)).rejects.toThrow('was changed')
    }
    await expect(restoreWhole(to.store, to.vaultKeyFile, Buffer.from('no'), passphrase)).rejects.toThrow('no backup')
    expect(await readWhole(to.store)).toEqual(before)
  })

  it('of a newer release is refused, and leaves everything as it was', async () => {
    await from.store.db.execute(sql`insert into __drizzle_migrations (hash, created_at) values ('later', 1)`)
    const file = await sealed()
    const [before, key] = [await readWhole(to.store), readFileSync(to.vaultKeyFile)]
    await expect(restoreWhole(to.store, to.vaultKeyFile, file, passphrase)).rejects.toThrow('newer release')
    expect(await readWhole(to.store)).toEqual(before)
    expect(readFileSync(to.vaultKeyFile)).toEqual(key)
  })
})
