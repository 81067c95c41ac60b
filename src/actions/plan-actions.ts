'use server'
/** What the Plan page does: plan again, lock, place units on floors, take drawings and newer radio rules. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { parseIpv4 } from '../core/addressing/ipv4'
import { bandSchema } from '../core/brief/wireless-network'
import { unitIdSchema } from '../core/kit/unit'
import { siteSchema } from '../core/radio/floor'
import type { RulesOffer } from '../core/regulatory/rules-offer'
import { type Job, listJobs } from '../store/jobs'
import type { Store } from '../store/open'
import { lockAddress, lockChannel } from '../store/plans'
import { forgetDroppedRegulatory, offerRegulatory, takeRegulatory } from '../store/regulatory-file'
import { replan } from '../store/replan'
import { saveSite } from '../store/sites'
import { done, failed, failedBy, type Outcome } from './outcome'
import { getStore } from './store'
import { withJob } from './with-job'

const largestRules = 1024 * 1024

export async function planAgain(slug: string): Promise<Outcome> {
  return withJob(slug, (store, job) => replanAndShow(store, job, 'full'))
}

/** @param channel null lets the channel go */
export async function lockChannelAction(
  slug: string,
  unit: string,
  band: string,
  channel: number | null,
): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    await lockChannel(
      store,
      job.id,
      unitIdSchema.parse(unit),
      bandSchema.parse(band),
      z.int().nullable().parse(channel) ?? undefined,
    )
    return replanAndShow(store, job, 'brief')
  })
}

/** @param address null lets the address go */
export async function lockAddressAction(slug: string, unit: string, address: string | null): Promise<Outcome> {
  return withJob(slug, async (store, job) => {
    const wanted = z.string().max(20).nullable().parse(address)?.trim()
    if (wanted !== undefined && parseIpv4(wanted) === undefined)
      return failed(`"${wanted}" is not an IPv4 address such as 10.44.8.21.`, 'address')
    await lockAddress(store, job.id, unitIdSchema.parse(unit), wanted)
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

/**
 * Looks at newer radio rules: what would change, and whose they are. Nothing is in use until somebody says yes.
 */
export async function offerRulesAction(form: FormData): Promise<Outcome<RulesOffer>> {
  const [file, signature] = [form.get('file'), form.get('signature')]
  if (!(file instanceof File)) return failed('Choose a regulatory.db file.')
  const tooLarge = [file, signature].find((each) => each instanceof File && each.size > largestRules)
  if (tooLarge instanceof File) return failed(`${tooLarge.name} has more than 1 MB: it is not a regulatory database.`)
  const store = await getStore()
  const { jobs } = await listJobs(store)
  const given = signature instanceof File && signature.size > 0 ? Buffer.from(await signature.arrayBuffer()) : undefined
  const reading = await offerRegulatory(store, {
    name: file.name,
    bytes: Buffer.from(await file.arrayBuffer()),
    signature: given,
    countries: jobs.map((job) => job.brief.country),
    at: new Date(),
  })
  return reading.ok ? { ok: true, value: reading.offer } : failed(reading.sentence)
}

/** Takes the rules that were offered into use. @param hash  those that were looked at, and no others */
export async function takeRulesAction(hash: string): Promise<Outcome> {
  const store = await getStore()
  const refusal = await takeRegulatory(store, z.string().max(64).parse(hash), new Date())
  return refusal === undefined ? replanAll(store) : failed(refusal)
}

export async function forgetRulesAction(): Promise<Outcome> {
  const store = await getStore()
  await forgetDroppedRegulatory(store)
  return replanAll(store)
}

async function replanAll(store: Store): Promise<Outcome> {
  for (const job of (await listJobs(store)).jobs) await replan(store, job.id)
  revalidatePath('/jobs/[job]', 'layout')
  return done
}

async function replanAndShow(store: Store, job: Job, effort: 'brief' | 'full'): Promise<Outcome<never>> {
  const planning = await replan(store, job.id, { effort })
  revalidatePath(`/jobs/${job.slug}`, 'layout')
  return planning ? done : failed(`There are no radio rules for ${job.brief.country}.`)
}
