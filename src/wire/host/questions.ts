/**
 * Asks questions over one stream that stays open: a socket to the lab, or to the wire helper. It is opened at the first
 * question, and again at the next one after it was lost.
 */

import type { Duplex } from 'node:stream'
import { fromText, type Message, message } from '../../core/message/message'
import { ToldError, toldBy } from '../../core/message/told-error'
import { linesOf } from '../../core/questions/lines'
import { type AnswerTo, type Ask, answerSchema, type Questions } from '../../core/questions/question'
import { HostAwayError } from './host'

/** The other end understood the question, and says no. */
export class QuestionRefused extends ToldError {
  override readonly name = 'QuestionRefused'
}

export interface Asking<T extends Questions> {
  /**
   * @throws HostAwayError    the other end is not there, or is silent
   * @throws QuestionRefused  it says no
   */
  ask<Q extends keyof T & string>(question: Q, ask: Ask<T, Q>): Promise<AnswerTo<T, Q>>
  /** How often the stream was lost so far, and how often it was opened anew: what was there may go with either. */
  losses(): number
  close(): void
}

interface Waiting {
  readonly answered: (answer: unknown) => void
  readonly failed: (error: Error) => void
  readonly patience: NodeJS.Timeout
}

/** Milliseconds that an answer may take. */
const patienceMs = 10_000

/** @param open  a stream to the other end, ready to be written to */
export function askOver<T extends Questions>(table: T, open: () => Promise<Duplex>): Asking<T> {
  const waiting = new Map<number, Waiting>()
  let stream: Promise<Duplex> | undefined
  let last = 0
  let losses = 0
  let isLost = false

  const settle = (number: number): Waiting | undefined => {
    const one = waiting.get(number)
    waiting.delete(number)
    if (one) clearTimeout(one.patience)
    return one
  }
  const lose = (lost: Promise<Duplex> | undefined, why: Message): void => {
    if (stream !== lost) return
    stream = undefined
    losses += 1
    isLost = true
    void lost?.then(
      (open) => open.destroy(),
      () => undefined,
    )
    for (const number of [...waiting.keys()]) settle(number)?.failed(away(why))
  }
  const heard = (line: string): void => {
    const answer = answerSchema.parse(JSON.parse(line))
    const one = settle(answer.number)
    if (answer.kind === 'answer') one?.answered(answer.answer)
    else one?.failed(new QuestionRefused(fromText(answer.reason)))
  }
  const connected = (): Promise<Duplex> => {
    const opening: Promise<Duplex> = open().then((fresh) => {
      if (isLost) losses += 1
      isLost = false
      const take = linesOf(heard)
      fresh.on('data', (chunk: Buffer) => {
        try {
          take(chunk)
        } catch (error) {
          lose(opening, toldBy(error))
        }
      })
      fresh.on('error', (error) => lose(opening, toldBy(error)))
      fresh.on('close', () => lose(opening, message('helper-closed')))
      return fresh
    })
    return opening
  }

  return {
    ask: async (question, ask) => {
      last += 1
      const number = last
      stream ??= connected()
      const mine = stream
      const answer = new Promise<unknown>((answered, failed) => {
        const patience = setTimeout(() => {
          settle(number)
          failed(away(message('helper-silent', { question })))
        }, patienceMs)
        patience.unref()
        waiting.set(number, { answered, failed, patience })
      })
      try {
        const open = await mine
        open.write(`${JSON.stringify({ number, question, ask })}\n`)
      } catch (error) {
        lose(mine, toldBy(error))
      }
      const given = await answer
      return table[question]?.answer.parse(given) as never
    },
    losses: () => losses,
    close: () => lose(stream, message('helper-closed-here')),
  }
}

const away = (why: Message): HostAwayError => new HostAwayError(message('wire-broken', { told: why }))
