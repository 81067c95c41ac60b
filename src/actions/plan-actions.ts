'use server'
/** What the Plan page does: plan again, lock, place units on floors, take drawings and newer radio rules. */
import { revalidatePath } from 'next/cache'
import { failed, type Outcome } from '../core/job/outcome'
import type { RulesOffer } from '../core/regulatory/rules-offer'
import { lockAddress, lockChannel, planAgain as plan, saveFloors } from '../jobs/plan'
import { forgetRules, offerRules, takeRules } from '../jobs/rules'
import { getStore } from './store'
import { withJob } from './with-job'

const largestRules = 1024 * 1024

export async function planAgain(slug: string): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => plan(store, job)))
}

/** @param channel null lets the channel go */
export async function lockChannelAction(
  slug: string,
  unit: string,
  band: string,
  channel: number | null,
): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => lockChannel(store, job, { unit, band, channel })))
}

/** @param address null lets the address go */
export async function lockAddressAction(slug: string, unit: string, address: string | null): Promise<Outcome> {
  return shown(slug, await withJob(slug, (store, job) => lockAddress(store, job, unit, address)))
}

/** Saves floors and places; the plan follows. @returns the new version */
export async function saveSiteAction(slug: string, version: number, input: unknown): Promise<Outcome<number>> {
  return shown(slug, await withJob(slug, (store, job) => saveFloors(store, job, version, input)))
}

/**
 * Looks at newer radio rules: what would change, and whose they are. Nothing is in use until somebody says yes.
 */
export async function offerRulesAction(form: FormData): Promise<Outcome<RulesOffer>> {
  const [file, signature] = [form.get('file'), form.get('signature')]
  if (!(file instanceof File)) return failed('Choose a regulatory.db file.')
  const tooLarge = [file, signature].find((each) => each instanceof File && each.size > largestRules)
  if (tooLarge instanceof File) return failed(`${tooLarge.name} has more than 1 MB: it is not a regulatory database.`)
  const given = signature instanceof File && signature.size > 0 ? Buffer.from(await signature.arrayBuffer()) : undefined
  return offerRules(await getStore(), {
    name: file.name,
    bytes: Buffer.from(await file.arrayBuffer()),
    signature: given,
  })
}

/** Takes the rules that were offered into use. @param hash  those that were looked at, and no others */
export async function takeRulesAction(hash: string): Promise<Outcome> {
  return shownEverywhere(await takeRules(await getStore(), hash))
}

export async function forgetRulesAction(): Promise<Outcome> {
  return shownEverywhere(await forgetRules(await getStore()))
}

function shown<T>(slug: string, outcome: Outcome<T>): Outcome<T> {
  revalidatePath(`/jobs/${slug}`, 'layout')
  return outcome
}

function shownEverywhere(outcome: Outcome): Outcome {
  if (outcome.ok) revalidatePath('/jobs/[job]', 'layout')
  return outcome
}
