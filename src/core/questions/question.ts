/**
 * How questions and answers look on a stream, one JSON value a line. Questions are numbered by whoever asks, so that
 * many are under way at once and are answered in any order.
 */

import { z } from 'zod'
import { messageText } from '../message/message'

export const questionSchema = z.object({ number: z.int(), question: z.string(), ask: z.unknown() })

export const answerSchema = z.discriminatedUnion('kind', [
  z.object({ number: z.int(), kind: z.literal('answer'), answer: z.unknown() }),
  z.object({ number: z.int(), kind: z.literal('refused'), reason: z.string() }),
])
export type Answer = z.infer<typeof answerSchema>

/** Question and answer by the name of the question, each with the shape that both ends check. */
export type Questions = Readonly<Record<string, { readonly ask: z.ZodType; readonly answer: z.ZodType }>>
export type Ask<T extends Questions, Q extends keyof T> = z.infer<T[Q]['ask']>
export type AnswerTo<T extends Questions, Q extends keyof T> = z.infer<T[Q]['answer']>

/** What answers each question. */
export type Answering<T extends Questions> = {
  readonly [Q in keyof T]: (ask: Ask<T, Q>) => AnswerTo<T, Q> | Promise<AnswerTo<T, Q>>
}

/**
 * Answers one line of a stream.
 *
 * @returns the answer as a line; a question that is not understood or fails is refused with its reason
 */
export async function answerLine<T extends Questions>(
  table: T,
  answering: Answering<T>,
  line: string,
): Promise<string> {
  let number = 0
  try {
    const asked = questionSchema.parse(JSON.parse(line))
    number = asked.number
    const { question } = asked
    const entry = Object.hasOwn(table, question) ? table[question] : undefined
    if (!entry) throw new RangeError(messageText('question-unknown', { question }))
    const answer = await answering[question as keyof T](entry.ask.parse(asked.ask) as Ask<T, keyof T>)
    return text({ number, kind: 'answer', answer })
  } catch (error) {
    return text({ number, kind: 'refused', reason: error instanceof Error ? error.message : String(error) })
  }
}

const text = (answer: Answer): string => `${JSON.stringify(answer)}\n`
