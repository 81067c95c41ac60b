/** Newer radio rules: looked at, signed or not, and in use only when somebody says yes. */

import { spawnSync } from 'node:child_process'
import { createHash, X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { message } from '../../src/core/message/message'
import { loadJob } from '../../src/jobs/load-job'
import type { Store } from '../../src/store/open'
import { planIsCurrent } from '../../src/store/plans'
import {
  forgetDroppedRegulatory,
  loadRegulatory,
  offerRegulatory,
  radioRules,
  takeRegulatory,
} from '../../src/store/regulatory-file'
import { readSignature } from '../../src/store/regulatory-signature'
import { sentence } from '../../src/words/en/sentence'
import { demoJob, freshStore } from '../support/bench'

const bytes = readFileSync(join(import.meta.dirname, '../../data/regulatory.db'))
let folder: string
let fresh: Awaited<ReturnType<typeof freshStore>>
let store: Store
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-rules-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))
beforeEach(async () => {
  fresh = await freshStore()
  store = fresh.store
})
afterEach(() => fresh.drop())

const offer = (file: Buffer, more: { signature?: Buffer; countries?: string[]; name?: string } = {}) =>
  offerRegulatory(store, {
    name: more.name ?? 'newer.db',
    bytes: file,
    signature: more.signature,
    countries: more.countries ?? ['NZ'],
    at: new Date('2026-11-20T10:00:00Z'),
  })

/** The file with the first rule of NZ allowing so much, 0.01 dBm. */
function withPower(centiDbm: number): Buffer {
  const file = Buffer.from(bytes)
  for (let at = 8; ; at += 4) {
    if (file.subarray(at, at + 2).toString() !== 'NZ') continue
    const collection = file.readUInt16BE(at + 2) * 4
    const rule = file.readUInt16BE(collection + file.readUInt8(collection) + (file.readUInt8(collection) % 2)) * 4
    file.writeUInt16BE(centiDbm, rule + 2)
    return file
  }
}

/** A signature by a key of the test's own, as OpenSSL makes it. */
function signed(file: Buffer): Buffer {
  const path = (name: string) => join(folder, name)
  writeFileSync(path('rules'), file)
  const run = (...args: string[]) => {
    const { status, stderr } = spawnSync('openssl', args, { encoding: 'utf8' })
    if (status !== 0) throw new Error(stderr)
  }
  run(
    'req',
    '-x509',
    '-newkey',
    'rsa:2048',
    '-nodes',
    '-keyout',
    path('key'),
    '-out',
    path('cert'),
    '-subj',
    '/CN=a key of the test',
    '-days',
    '2',
  )
  run(
    'smime',
    '-sign',
    '-binary',
    '-noattr',
    '-in',
    path('rules'),
    '-signer',
    path('cert'),
    '-inkey',
    path('key'),
    '-outform',
    'DER',
    '-out',
    path('p7s'),
  )
  return readFileSync(path('p7s'))
}

describe('newer radio rules', () => {
  it('that are those of the program change nothing', async () => {
    const reading = await offer(bytes)
    expect(reading.ok && reading.offer).toMatchObject({ countries: 182, changed: 0, differences: [] })
  })

  it('say what they change, are used when somebody says yes to them, outdate plans, and can be let go', async () => {
    const jobId = await loadJob(store, demoJob(), new Date())
    const reading = await offer(withPower(1700))
    if (!reading.ok) throw new Error(sentence(reading.told))
    expect(reading.offer).toMatchObject({ signed: 'not-at-all', changed: expect.any(Number) })
    expect(
      reading.offer.differences
        .find(({ country }) => country === 'NZ')
        ?.changes.map(sentence)
        .join(),
    ).toMatch(/dBm.* becomes 17 dBm/)
    expect((await radioRules(store)).from).toBe('program')
    expect(await planIsCurrent(store, jobId)).toBe(true)
    expect(await takeRegulatory(store, reading.offer.hash, new Date('2026-11-21T10:00:00Z'))).toBeUndefined()
    const rules = await radioRules(store)
    expect(sentence(rules.origin)).toMatch(/^from newer\.db \([0-9a-f]{12}\), dropped in on 2026-11-21$/)
    expect(rules.database.get('NZ')?.rules[0]?.eirpCentiDbm).toBe(1700)
    expect(await planIsCurrent(store, jobId)).toBe(false)
    await forgetDroppedRegulatory(store)
    expect((await radioRules(store)).database).toBe(loadRegulatory())
  })

  it('are not taken for others that were brought meanwhile', async () => {
    const first = await offer(withPower(1700))
    await offer(withPower(1600))
    expect(await takeRegulatory(store, first.ok ? first.offer.hash : '', new Date())).toEqual(
      message('rules-offer-outdated'),
    )
    expect((await radioRules(store)).from).toBe('program')
  })

  it.each([
    [
      'not one',
      () => Buffer.from('hello there, this is not it'),
      /is not a regulatory database: byte 0: this is not a regulatory database/,
    ],
    ['cut short', () => bytes.subarray(0, 900), /is not a regulatory database: byte \d+: the file ends within/],
    ['too loud to be right', () => withPower(40_000), /cannot be right: [A-Z]{2}: .* MHz allows 400 dBm/],
    [
      'of another version',
      () => Buffer.concat([bytes.subarray(0, 4), Buffer.from([0, 0, 0, 21]), bytes.subarray(8)]),
      /version 21 of the format/,
    ],
  ])('are refused where the file is %s', async (_what, file, words) => {
    const reading = await offer(file())
    expect(reading.ok ? '' : sentence(reading.told)).toMatch(words)
    expect(reading.ok ? '' : sentence(reading.told)).toContain('The rules stay as they were.')
  })

  it("are refused without a job's country, and with a name that is no name", async () => {
    const reading = await offer(bytes, { countries: ['QQ'], name: 'new\ner<b>.db' })
    expect(reading.ok ? '' : sentence(reading.told)).toBe(
      'new_er_b_.db has no rules for QQ, and a job is there. The rules stay as they were.',
    )
  })
})

describe('their signature', () => {
  it('is told by the words of its signer where the certificate is known', async () => {
    const file = withPower(1700)
    const signature = signed(file)
    const fingerprint = createHash('sha256')
      .update(new X509Certificate(readFileSync(join(folder, 'cert'))).raw)
      .digest('hex')
    expect(await readSignature(file, signature, [{ fingerprint, words: 'the test' }])).toEqual({
      kind: 'known',
      signer: message('signed-by-known', { signer: 'the test' }),
    })
  })

  it('fits, by a key that is not known here: somebody may say yes, and is told whose it is', async () => {
    const file = withPower(1700)
    const reading = await offer(file, { signature: signed(file) })
    expect(reading.ok && reading.offer).toMatchObject({
      signed: 'unknown',
      signer: { code: 'signed-by-unknown', params: { certificate: expect.stringMatching(/^[0-9a-f]{16}$/) } },
    })
  })

  it.each([
    [
      'a byte of the file was changed',
      () => ({ file: withPower(1600), signature: signed(withPower(1700)) }),
      'the file was changed after it was signed',
    ],
    [
      'it is none',
      () => ({ file: withPower(1700), signature: Buffer.from('nothing of the kind') }),
      'it is not a signature that can be read',
    ],
  ])('refuses the rules where %s', async (_what, make, words) => {
    const { file, signature } = make()
    const reading = await offer(file, { signature })
    expect(reading.ok ? '' : sentence(reading.told)).toContain(`The signature does not fit newer.db: ${words}`)
  })
})
