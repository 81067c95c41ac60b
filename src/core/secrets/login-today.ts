/**
 * Logins that a client uses today, for units that somebody set up before: one of the whole job, and one of a box. They
 * are tried after all others, and sealed as a whole.
 */
import { z } from 'zod'
import { secretName } from '../brief/brief'
import { jsonIn } from '../input/json'

export const loginTodaySchema = z.object({
  /** Empty where it is that of the job's own admin. */
  user: z.string().trim().max(64, 'a name has 64 signs at the most'),
  password: z.string().min(1, 'a password has one sign at least').max(200, 'a password has 200 signs at the most'),
})
export type LoginToday = z.infer<typeof loginTodaySchema>

/** @param secrets  in clear, by name @returns those of one box, its own first */
export function loginsToday(secrets: ReadonlyMap<string, string>, mac: string): LoginToday[] {
  return [secretName.boxLoginToday(mac), secretName.loginToday].flatMap((name) => {
    const read = loginTodaySchema.safeParse(jsonIn(secrets.get(name) ?? ''))
    return read.success ? [read.data] : []
  })
}
