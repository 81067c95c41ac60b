/** A picture of a page as it stands, in which nothing can be read that is a secret. */
import type { Page as Tab } from 'puppeteer-core'
import { inPage } from './in-page'
import type { PageElements, Written } from './page-elements'

export interface PagePicture {
  readonly jpeg: Uint8Array
  /** What can be read in it, line by line. */
  readonly words: readonly string[]
}

/** Signs on one page. */
const mostSigns = 1024 * 1024
/** Shorter ones would blank whatever holds their signs by chance. */
const shortestSecret = 4
const mostWords = 200
const longestWords = 300

/**
 * @param secrets  in clear: whatever holds one is blank, and so is every password field
 * @returns        undefined where the page shows more than can be looked through, or shows a secret again and again
 */
export async function pictureOf(tab: Tab, secrets: readonly string[]): Promise<PagePicture | undefined> {
  const isSecret = ({ text, isPassword }: Written): boolean =>
    isPassword || secrets.some((secret) => secret.length >= shortestSecret && text.includes(secret))
  const before = await inPage(tab, writtenOn, mostSigns)
  if (!before) return undefined
  const secretPlaces = before.flatMap((each, place) => (isSecret(each) ? [place] : []))
  await inPage(tab, blanked, secretPlaces)
  const jpeg = await tab.screenshot({ type: 'jpeg', quality: 70 })
  // A page that draws itself anew may show a secret again in a place of its own.
  const after = await inPage(tab, writtenOn, mostSigns)
  if (!after || after.some(isSecret)) return undefined
  const words = after.map(({ text }) => text.replace(/\s+/g, ' ').trim().slice(0, longestWords))
  return { jpeg, words: [...new Set(words)].slice(0, mostWords) }
}

// What follows runs in the page itself.

const writtenOn = (elements: PageElements, most: number): Written[] | undefined => elements.written(most)
const blanked = (elements: PageElements, places: readonly number[]): void => elements.blank(places)
