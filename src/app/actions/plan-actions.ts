'use server'
/** What the Plan page does: plan again, lock, place units on floors, take drawings and newer radio rules. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { parseIpv4 } from '../../core/addressing/ipv4'
import { bandSchema } from '../../core/brief/wireless-network'
import { drawingTypeSchema } from '../../core/job/job-document'
import { siteSchema } from '../../core/radio/floor'
import { type Job, listJobs } from '../../store/jobs'
import type { Store } from '../../store/open'
import { lockAddress, lockChannel } from '../../store/plans'
import { dropRegulatory, forgetDroppedRegulatory } from '../../store/regulatory-file'
import { replan } from '../../store/replan'
import { keepDrawing, largestDrawing, saveSite } from '../../store/sites'
import { getStore } from '../server/store'
import { withJob } from '../server/with-job'
import { done, failed, failedBy, type Outcome } from './outcome'

const unitSchema = z.string().regex(/^[a-z0-9-]{1,40}$/)

export async function planAgain(slug: string): Promise<Outcome> {
  return withJob(slug, (store, job) => replanAndShow(store, job, 'full'))
}

/** @param channel null lets the channel go */
export async function lockChannelAction(slug: string, unit: string, band: string, channel: number | null): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await lockChannel(store, job.id, unitSchema.parse(unit), bandSchema.parse(band), z.int().nullable().parse(channel) ?? undefined)
    return replanAndShow(store, job, 'brief')
  })
}

/** @param address null lets the address go */
export async function lockAddressAction(slug: string, unit: string, address: string | null): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const wanted = z.string().max(20).nullable().parse(address)?.trim()
    if (wanted !== undefined && parseIpv4(wanted) === undefined) return failed(`"${wanted}" is not an IPv4 address such as 10.44.8.21.`, 'address')
    await lockAddress(store, job.id, unitSchema.parse(unit), wanted)
    return replanAndShow(store, job, 'brief')
  })
}

/** Saves floors and places; the plan follows. @returns the new version */
export async function saveSiteAction(slug: string, version: number, input: unknown): Promise<Outcome<number>> {
  return withJob(slug, async (store, job) => {
    const parsed = siteSchema.safeParse(input)
    if (!parsed.success) return failedBy(parsed.error)
    const next = await saveSite(store, job.id, parsed.data, z.int().parse(version))
    await replanAndShow(store, job, 'brief')
    return { ok: true, value: next }
  })
}

/** Takes the drawing of a floor. */
export async function drawingAction(slug: string, form: FormData): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const floor = unitSchema.safeParse(form.get('floor'))
    const file = form.get('file')
    if (!floor.success || !(file instanceof File)) return failed('Choose a file for the floor.')
    const type = drawingTypeSchema.safeParse(file.type)
    if (!type.success) return failed(`${file.name} is not a drawing that can be shown: take SVG, PNG, JPEG or PDF.`)
    if (file.size > largestDrawing) return failed(`${file.name} has ${Math.ceil(file.size / 1024 / 1024)} MB; a drawing has 8 MB at the most. Save it smaller.`)
    const bytes = Buffer.from(await file.arrayBuffer())
    if (!looksLike[type.data](bytes)) return failed(`${file.name} says that it is ${type.data}, and its content is something else.`)
    await keepDrawing(store, job.id, floor.data, { type: type.data, bytes }, new Date())
    revalidatePath(`/jobs/${slug}`, 'layout')
    return done
  })
}

/** A name may say anything; the first bytes do not. */
const looksLike = {
  'image/png': (bytes: Buffer): boolean => bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  'image/jpeg': (bytes: Buffer): boolean => bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])),
  'image/svg+xml': (bytes: Buffer): boolean => /<svg[\s>]/i.test(bytes.subarray(0, 4096).toString('utf8')),
} as const

/** Takes newer radio rules into use, after a check. */
export async function dropRulesAction(form: FormData): Promise<Outcome> {
  const file = form.get('file')
  if (!(file instanceof File)) return failed('Choose a regulatory.db file.')
  if (file.size > 1024 * 1024) return failed(`${file.name} has more than 1 MB: it is not a regulatory database.`)
  const store = await getStore()
  const jobs = await listJobs(store)
  const refusal = await dropRegulatory(
    store,
    file.name,
    Buffer.from(await file.arrayBuffer()),
    jobs.map((job) => job.brief.country),
    new Date(),
  )
  if (refusal) return failed(refusal)
  for (const job of jobs) await replan(store, job)
  revalidatePath('/jobs/[job]', 'layout')
  return done
}

export async function forgetRulesAction(): Promise<Outcome> {
  const store = await getStore()
  await forgetDroppedRegulatory(store)
  for (const job of await listJobs(store)) await replan(store, job)
  revalidatePath('/jobs/[job]', 'layout')
  return done
}

async function replanAndShow(store: Store, job: Job, effort: 'brief' | 'full'): Promise<Outcome<never>> {
  const planning = await replan(store, job, effort)
  revalidatePath(`/jobs/${job.slug}`, 'layout')
  return planning ? done : failed(`There are no radio rules for ${job.brief.country}.`)
}
