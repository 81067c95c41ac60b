/**
 * Logins that a client uses today, for units that somebody set up before: one of the whole job, and one of a box. They
 * are tried after all others, and sealed as a whole.
 */

import { z } from 'zod'
import { secretName } from '../brief/brief'
import { jsonIn } from '../input/json'
import { messageText } from '../message/message'

export const loginTodaySchema = z.object({
  /** Empty where it is that of the job's own admin. */
  user: z.string().trim().max(64, messageText('login-name-too-long')),
  password: z.string().min(1, messageText('login-password-missing')).max(200, messageText('login-password-too-long')),
})
export type LoginToday = z.infer<typeof loginTodaySchema>

/** @param secrets  in clear, by name @returns those of one box, its own first */
export function loginsToday(secrets: ReadonlyMap<string, string>, mac: string): LoginToday[] {
  return [secretName.boxLoginToday(mac), secretName.loginToday].flatMap((name) => {
    const read = loginTodaySchema.safeParse(jsonIn(secrets.get(name) ?? ''))
    return read.success ? [read.data] : []
  })
}
