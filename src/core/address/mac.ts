/**
 * Hardware addresses. In: any usual notation (colons, dashes, dots, none). Out: six lower-case pairs with colons.
 */
import { z } from 'zod'

/** Brings a MAC to `02:4f:52:10:6a:2c`; undefined where it is not six bytes of hexadecimal. */
export function parseMac(text: string): string | undefined {
  const digits = text
    .trim()
    .replace(/[:\-. ]/g, '')
    .toLowerCase()
  if (!/^[0-9a-f]{12}$/.test(digits)) return undefined
  return digits.match(/../g)?.join(':')
}

export const macSchema = z.string().transform((text, context) => {
  const mac = parseMac(text)
  if (mac) return mac
  context.addIssue({
    code: 'custom',
    message: `"${text}" is not a MAC address: it takes six pairs of 0-9 and a-f, such as 02:4f:52:10:6a:2c`,
  })
  return z.NEVER
})
