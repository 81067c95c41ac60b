/**
 * What a page waits for and no picture shows: choices of a list, dialogs, a login that HTTP asks for, a file. Each is
 * told as a question with a number, and answered by that number or left by the page.
 */
import type { CDPSession, Dialog } from 'puppeteer-core'
import { z } from 'zod'
import { jsonIn } from '../../core/input/json'
import { type Hand, optionSchema, type Told, windowSize } from '../../core/showing/window-talk'
import { choicesBinding } from './page-choices'

export const longestTextChars = 4000

const choicesTold = z.object({
  number: z.int().min(1),
  multiple: z.boolean(),
  options: z.array(optionSchema).max(5000),
  x: z.number(),
  y: z.number(),
  width: z.number(),
})

/** Something that the page waits for. */
type Open =
  | { readonly of: 'dialog'; readonly dialog: Dialog }
  | { readonly of: 'choices'; readonly context: number; readonly number: number; readonly session: CDPSession }
  | { readonly of: 'login'; readonly request: string; readonly session: CDPSession }
  | { readonly of: 'file'; readonly node: number; readonly session: CDPSession }

export type Answer = Extract<Hand, { kind: 'answer' | 'choose' | 'login' }>

export class PageQuestions {
  readonly #tell: (told: Told) => void
  readonly #open = new Map<number, Open>()
  #count = 0

  constructor(tell: (told: Told) => void) {
    this.#tell = tell
  }

  #ask(open: Open, told: (question: number) => Told): void {
    this.#count += 1
    this.#open.set(this.#count, open)
    this.#tell(told(this.#count))
  }

  dialog(dialog: Dialog): void {
    const kind = dialog.type()
    const of = kind === 'beforeunload' ? 'leave' : kind
    const words = dialog.message().slice(0, longestTextChars)
    const preset = dialog.defaultValue().slice(0, longestTextChars)
    this.#ask({ of: 'dialog', dialog }, (question) => ({
      ...{ kind: 'asks', question, of, words },
      ...(of === 'prompt' ? { preset } : {}),
    }))
  }

  login(session: CDPSession, request: string, realm: string): void {
    this.#ask({ of: 'login', request, session }, (question) => ({
      kind: 'wants-login',
      question,
      realm: realm.slice(0, longestTextChars),
    }))
  }

  /** @param node  the file field, as Chromium's protocol numbers it */
  file(session: CDPSession, node: number): void {
    this.settleAll('file')
    this.#ask({ of: 'file', node, session }, (question) => ({ kind: 'wants-file', question }))
  }

  choices(session: CDPSession, context: number, payload: string): void {
    const parsed = choicesTold.safeParse(jsonIn(payload))
    if (!parsed.success) return
    this.settleAll('choices')
    const { number, multiple, options, x, y, width } = parsed.data
    const within = (value: number, most: number): number => Math.min(most, Math.max(0, value))
    this.#ask({ of: 'choices', context, number, session }, (question) => ({
      ...{ kind: 'choices', question, multiple, options },
      x: within(x, windowSize.width),
      y: within(y, windowSize.height),
      width: within(width, windowSize.width),
    }))
  }

  /** Resolves when the page has the answer. */
  async answer(hand: Answer): Promise<void> {
    const open = this.#settled(hand.question)
    if (open?.of === 'dialog' && hand.kind === 'answer')
      await (hand.says === 'yes' ? open.dialog.accept(hand.text) : open.dialog.dismiss())
    if (open?.of === 'choices' && hand.kind === 'choose') {
      const expression = `globalThis.${choicesBinding}Chosen?.(${open.number}, ${JSON.stringify(hand.options)})`
      await open.session.send('Runtime.evaluate', { expression, contextId: open.context })
    }
    if (open?.of === 'login')
      await open.session.send('Fetch.continueWithAuth', {
        requestId: open.request,
        authChallengeResponse:
          hand.kind === 'login'
            ? { response: 'ProvideCredentials', username: hand.user, password: hand.password }
            : { response: 'CancelAuth' },
      })
  }

  /** @param path  of the file that the page is given; undefined for none */
  async give(question: number, path: string | undefined): Promise<void> {
    const open = this.#settled(question)
    if (open?.of !== 'file' || path === undefined) return
    await open.session.send('DOM.setFileInputFiles', { files: [path], backendNodeId: open.node })
  }

  /** The page waits no more: it was left, or answered by itself. */
  settleAll(of: Open['of']): void {
    for (const [question, open] of this.#open) if (open.of === of) this.#settled(question)
  }

  #settled(question: number): Open | undefined {
    const open = this.#open.get(question)
    if (!open) return undefined
    this.#open.delete(question)
    this.#tell({ kind: 'settled', question })
    return open
  }
}
