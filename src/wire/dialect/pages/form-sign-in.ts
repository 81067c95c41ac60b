/** Signing in by a form: what is asked before anybody can, the form itself, and what is asked at the first time. */

import type { At, PageFill } from '../../../core/kit/page-places'
import type { PagesDialect } from '../../../core/kit/pages-dialect'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { WireError } from '../../errors/wire-error'
import type { Entry } from './engine'
import type { Page } from './page'
import { type SignInForm, throwIfOccupied, throwIfRefused, throwIfRejected } from './refusals'

/** Pages as a session turns them. */
export interface Turning {
  /** The page on which one signs in; where it has just been opened, as it stands, and `looked-at` it stays so. */
  front(path: string, as: 'looked-at' | 'taken' | 'anew'): Promise<Page>
  /** The page once nothing is under way any more. */
  settled(): Promise<Page>
  submit(entries: readonly Entry[], press: At): Promise<Page>
  /** @throws WireError timeout */
  until(first: Page, isThere: (page: Page) => boolean): Promise<Page>
  entries(page: Page, fills: readonly PageFill[], toBe?: Credentials): Entry[]
}

/** Pages that may be asked one after the other. */
const mostAsked = 8

interface First {
  readonly form: SignInForm
  readonly says: PagesDialect['says']
  /** The login that is made; undefined where nobody may make one now. */
  readonly toBe: Credentials | undefined
}

/**
 * Answers what it asks whoever comes first.
 * @returns the login that was made; undefined where it asks nothing @throws WireError refused, rejected
 */
export async function answerFirst(turning: Turning, { form, says, toBe }: First): Promise<Credentials | undefined> {
  if (form.first.length === 0) return undefined
  const isAsked = (one: Page): boolean => form.first.some(({ sees }) => one.has(sees))
  const front = await turning.front(form.page, 'looked-at')
  let page = await turning.until(front, (one) => isAsked(one) || one.has(form.password))
  if (!isAsked(page)) return undefined
  if (!toBe) throw new WireError('refused', message('nobody-made-admin'))
  for (let asked = 0; isAsked(page); asked += 1) {
    const question = form.first.find(({ sees }) => page.has(sees))
    if (!question || asked > mostAsked) throw new WireError('garbled', message('asks-before-sign-in'))
    const next = await turning.submit(turning.entries(page, question.fills, toBe), question.press)
    const answered = await turning.until(next, (one) => {
      throwIfRejected(one, says.refused, message('does-not-take-that'))
      return !one.has(question.sees)
    })
    const leadsOn = (one: Page): boolean => isAsked(one) || one.has(form.password)
    page = leadsOn(answered) ? answered : await turning.until(await turning.settled(), () => true)
    // Some end with a page that says so, and lead on by a link.
    if (!leadsOn(page)) page = await turning.until(await turning.front(form.page, 'anew'), leadsOn)
  }
  await turning.front(form.page, 'taken')
  return toBe
}

/** @throws WireError refused; occupied where somebody else is signed in */
export async function signInByForm(turning: Turning, form: SignInForm, login: Credentials): Promise<void> {
  const front = await turning.until(await turning.front(form.page, 'taken'), (one) => {
    throwIfOccupied(one, form.occupied)
    return (form.user === undefined || one.has(form.user)) && one.has(form.password)
  })
  const entries: Entry[] = [
    ...(form.user === undefined ? [] : [{ at: form.user, kind: 'text', text: login.user } as const]),
    { at: form.password, kind: 'text', text: login.password },
  ]
  const tried = { at: Date.now(), words: front.words }
  let last = await turning.submit(entries, form.press)
  for (let asked = 0; asked <= mostAsked; asked += 1) {
    const page = await turning.until(last, (one) => {
      throwIfRefused(one, form, tried)
      throwIfOccupied(one, form.occupied)
      // Once it was told where it stands, it may ask who is there anew.
      return form.asks.some(({ sees }) => one.has(sees)) || asked > 0 || !one.has(form.password)
    })
    const question = form.asks.find(({ sees }) => page.has(sees))
    if (!question && page.has(form.password)) {
      last = await turning.submit(entries, form.press)
      continue
    }
    if (!question) return
    const next = await turning.submit(turning.entries(page, question.fills), question.press)
    last = await turning.until(next, (one) => !one.has(question.sees))
  }
  throw new WireError('garbled', message('asks-at-sign-in'))
}
