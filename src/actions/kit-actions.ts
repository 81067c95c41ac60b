'use server'
/** What the Kit page does: the list, and the kit cards of this installation. */
import { revalidatePath } from 'next/cache'
import { z } from 'zod'
import { done, type Outcome } from '../core/job/outcome'
import { type KeptUnit, type KitChange, keepShownCard, removeCard, saveCard, saveKit } from '../jobs/kit'
import { forgetLabelPassword, keepLabelPasswords, type LabelPasswords } from '../jobs/secrets'
import { action } from './action'
import { getStore } from './store'
import { withJob } from './with-job'

const text = z.string()

/** Changes the list, all of it or nothing. @returns the list as it is now, with versions */
export const saveKitAction = action(z.tuple([text, z.custom<KitChange>()]), async (slug, input) => {
  const saved: Outcome<KeptUnit[]> = await withJob(slug, (store, job) => saveKit(store, job, input))
  if (saved.ok) revalidatePath(`/jobs/${slug}`, 'layout')
  return saved
})

/** Keeps a kit card of this installation. @param version 0 for a new one @returns its name */
export const saveCardAction = action(z.tuple([text, z.int()]), async (yaml, version) => {
  const saved = await saveCard(await getStore(), yaml, version)
  if (saved.ok) revalidatePath('/jobs/[job]', 'layout')
  return saved
})

/** Keeps a card that came of a showing, or adds what was shown to the one that there is. @returns its name */
export const keepShownCardAction = action(z.tuple([text]), async (yaml) => {
  const saved = await keepShownCard(await getStore(), yaml)
  if (saved.ok) revalidatePath('/jobs/[job]', 'layout')
  return saved
})

/** Takes a card of this installation off; where the program brings one of the same name, that counts again. */
export const removeCardAction = action(z.tuple([text]), async (model): Promise<Outcome> => {
  await removeCard(await getStore(), model)
  revalidatePath('/jobs/[job]', 'layout')
  return done
})

/** Seals passwords on labels; one by its MAC is enough, the unit may come to the list later. */
export const keepLabelPasswordsAction = action(
  z.tuple([text, z.custom<LabelPasswords>()]),
  async (slug, passwords): Promise<Outcome> => {
    const kept = await withJob(slug, (store, job) => keepLabelPasswords(store, job, passwords))
    if (kept.ok) revalidatePath(`/jobs/${slug}`, 'layout')
    return kept
  },
)

export const forgetLabelPasswordAction = action(z.tuple([text, text]), async (slug, mac): Promise<Outcome> => {
  const gone = await withJob(slug, (store, job) => forgetLabelPassword(store, job, mac))
  if (gone.ok) revalidatePath(`/jobs/${slug}`, 'layout')
  return gone
})
