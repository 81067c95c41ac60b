/** A login that the client uses today: kept as a whole, of a job or of one box, and never shown. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { secretName } from '../../src/core/brief/brief'
import { loginsToday } from '../../src/core/secrets/login-today'
import { forgetLoginToday, keepLoginToday } from '../../src/jobs/login-today'
import { revealSecret } from '../../src/jobs/secrets'
import { openSecrets } from '../../src/store/secrets'
import { freshDemoJob } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshDemoJob>>
beforeAll(async () => {
  fresh = await freshDemoJob()
})
afterAll(() => fresh.drop())

const mac = '02:4f:52:10:6a:2c'
const known = async (of: string) => loginsToday(await openSecrets(fresh.store, fresh.job.id), of)

it('of a box is tried before that of the job, and of another box not at all', async () => {
  const { store, job } = fresh
  expect(await keepLoginToday(store, job, 'job', { user: 'chief', password: 'for all' })).toMatchObject({ ok: true })
  expect(await keepLoginToday(store, job, { mac }, { user: '', password: 'for one' })).toMatchObject({ ok: true })
  expect(await known(mac)).toEqual([
    { user: '', password: 'for one' },
    { user: 'chief', password: 'for all' },
  ])
  expect(await known('02:4f:52:10:6a:2d')).toEqual([{ user: 'chief', password: 'for all' }])
  for (const name of [secretName.loginToday, secretName.boxLoginToday(mac)])
    expect(await revealSecret(store, job, name, { name: 'somebody' })).toMatchObject({ ok: false })
  await forgetLoginToday(store, job, 'job')
  expect(await known(mac)).toHaveLength(1)
})

it('is refused without a password, and where nobody has such a MAC', async () => {
  const { store, job } = fresh
  expect(await keepLoginToday(store, job, 'job', { user: 'chief', password: '' })).toMatchObject({ ok: false })
  expect(await keepLoginToday(store, job, 'job', 'chief')).toMatchObject({ ok: false })
  await expect(keepLoginToday(store, job, { mac: 'nobody' }, { user: '', password: 'x' })).rejects.toThrow()
})
