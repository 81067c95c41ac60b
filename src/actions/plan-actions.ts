'use server'
/** What the Plan page does: plan again, lock, place units on floors, take drawings and newer radio rules. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { bandSchema } from '../core/catalogue/values'
import { failed, type Outcome } from '../core/job/outcome'
import { unitIdSchema } from '../core/kit/unit'
import { message } from '../core/message/message'
import type { RulesOffer } from '../core/regulatory/rules-offer'
import { lockAddress, lockChannel, planAgain as plan, saveFloors } from '../jobs/plan'
import { forgetRules, offerRules, takeRules } from '../jobs/rules'
import { action } from './action'
import { getStore } from './store'
import { withJob } from './with-job'

const largestRules = 1024 * 1024

const text = z.string()

export const planAgain = action(z.tuple([text]), async (slug) =>
  shown(slug, await withJob(slug, (store, job) => plan(store, job))),
)

/** A channel that is null lets the channel go. */
export const lockChannelAction = action(
  z.tuple([text, unitIdSchema, bandSchema, z.int().nullable()]),
  async (slug, unit, band, channel) =>
    shown(slug, await withJob(slug, (store, job) => lockChannel(store, job, { unit, band, channel }))),
)

/** An address that is null lets the address go. */
export const lockAddressAction = action(
  z.tuple([text, unitIdSchema, z.string().max(20).nullable()]),
  async (slug, unit, address) =>
    shown(slug, await withJob(slug, (store, job) => lockAddress(store, job, unit, address))),
)

/** Saves floors and places; the plan follows. @returns the new version */
export const saveSiteAction = action(z.tuple([text, z.int(), z.unknown()]), async (slug, version, input) =>
  shown(slug, await withJob(slug, (store, job) => saveFloors(store, job, version, input))),
)

/**
 * Looks at newer radio rules: what would change, and whose they are. Nothing is in use until somebody says yes.
 */
export const offerRulesAction = action(
  z.tuple([z.instanceof(FormData)]),
  async (form): Promise<Outcome<RulesOffer>> => {
    const [file, signature] = [form.get('file'), form.get('signature')]
    if (!(file instanceof File)) return failed(message('rules-file-missing'))
    const tooLarge = [file, signature].find((each) => each instanceof File && each.size > largestRules)
    if (tooLarge instanceof File) return failed(message('rules-file-too-large', { name: tooLarge.name }))
    const given =
      signature instanceof File && signature.size > 0 ? Buffer.from(await signature.arrayBuffer()) : undefined
    return offerRules(await getStore(), {
      name: file.name,
      bytes: Buffer.from(await file.arrayBuffer()),
      signature: given,
    })
  },
)

/** Takes the rules that were offered into use. @param hash  those that were looked at, and no others */
export const takeRulesAction = action(z.tuple([z.string().max(64)]), async (hash) =>
  shownEverywhere(await takeRules(await getStore(), hash)),
)

export const forgetRulesAction = action(z.tuple([]), async () => shownEverywhere(await forgetRules(await getStore())))

function shown<T>(slug: string, outcome: Outcome<T>): Outcome<T> {
  revalidatePath(`/jobs/${slug}`, 'layout')
  return outcome
}

function shownEverywhere(outcome: Outcome): Outcome {
  if (outcome.ok) revalidatePath('/jobs/[job]', 'layout')
  return outcome
}
