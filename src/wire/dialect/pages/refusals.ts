/** How a page says no: it does not save, does not let in, or lets somebody else be there. */

import type { At } from '../../../core/kit/page-places'
import type { PagesDialect } from '../../../core/kit/pages-dialect'
import { type Message, message } from '../../../core/message/message'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Page } from './page'

export type SignInForm = Extract<PagesDialect['signIn'], { by: 'form' }>

export function throwIfRejected(page: Page, refused: At | undefined, otherwise: Message): void {
  if (refused !== undefined && page.has(refused)) throw new WireError('rejected', reasonAt(page, refused, otherwise))
}

/**
 * So long a sign-in may stand there after it was sent and say something that it did not say before, where a card does
 * not say how a refusal looks, ms: some say first that they are at it.
 */
const newWordsStandMs = 2000

export interface Tried {
  readonly at: number
  /** What the page said before. */
  readonly words: ReadonlySet<string>
}

/** @throws WireError refused */
export function throwIfRefused(page: Page, { refused, password }: SignInForm, tried: Tried): void {
  if (refused !== undefined && page.has(refused))
    throw new WireError('refused', reasonAt(page, refused, message('sign-in-refused')))
  if (refused !== undefined || !page.has(password) || Date.now() < tried.at + newWordsStandMs) return
  const said = [...page.words].find((each) => !tried.words.has(each))
  if (said !== undefined) throw new WireError('refused', plainReason(said))
}

export function throwIfOccupied(page: Page, occupied: At | undefined): void {
  if (occupied !== undefined && page.has(occupied))
    throw new WireError('occupied', reasonAt(page, occupied, message('somebody-else-signed-in')))
}

const reasonAt = (page: Page, at: At, otherwise: Message): string | Message =>
  plainReason(page.text({ at }) ?? '') || otherwise
