/**
 * Hardware addresses. In: any usual notation (colons, dashes, dots, none). Out: six lower-case pairs with colons.
 */

import { z } from 'zod'
import { messageText } from '../message/message'

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
    message: messageText('mac-not-six-pairs', { text }),
  })
  return z.NEVER
})
