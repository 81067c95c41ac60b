/**
 * Makes a server action of what it does. Anybody who may ask can send an action whatever they like, so what comes is
 * held against the types of its arguments first. What is more than a plain value is read by the use case that it is
 * for.
 */
import 'server-only'
import type { z } from 'zod'
import { failed, type Outcome } from '../core/job/outcome'
import { message } from '../core/message/message'

/**
 * @param given  of all its arguments, a tuple
 * @returns      the action; it fails with a sentence where it is given anything else
 */
export function action<A extends unknown[], T>(
  given: z.ZodType<A>,
  act: (...args: A) => Promise<Outcome<T>>,
): (...args: A) => Promise<Outcome<T>> {
  return async (...args) => {
    const parsed = given.safeParse(args)
    return parsed.success ? act(...parsed.data) : failed(message('release-differs'))
  }
}
