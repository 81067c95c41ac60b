/**
 * The name of a wireless network: 1 to 32 bytes (IEEE 802.11-2020, 9.4.2.2), which UTF-8 may use up faster than
 * letters.
 */

import { z } from 'zod'
import { messageText } from '../message/message'

const longest = 32

export function ssidBytes(ssid: string): number {
  return new TextEncoder().encode(ssid).length
}

export const ssidSchema = z.string().check((context) => {
  const bytes = ssidBytes(context.value)
  const fault =
    bytes === 0
      ? messageText('ssid-missing')
      : bytes > longest
        ? messageText('ssid-too-long', { ssid: context.value, bytes, longest })
        : context.value.trim() !== context.value
          ? messageText('ssid-with-space', { ssid: context.value })
          : // Half of a character: there are no octets for it, and what comes back is another name.
            /\p{Surrogate}/u.test(context.value)
            ? messageText('ssid-half-character', { ssid: context.value })
            : undefined
  if (fault) context.issues.push({ code: 'custom', message: fault, input: context.value })
})
