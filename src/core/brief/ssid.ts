/** The name of a wireless network: 1 to 32 bytes (IEEE 802.11-2020, 9.4.2.2), which UTF-8 may use up faster than letters. */
import { z } from 'zod'

const longest = 32

export function ssidBytes(ssid: string): number {
  return new TextEncoder().encode(ssid).length
}

export const ssidSchema = z.string().check((context) => {
  const bytes = ssidBytes(context.value)
  const fault =
    bytes === 0
      ? 'a network takes a name'
      : bytes > longest
        ? `"${context.value}" is ${bytes} bytes long; a network name holds ${longest} at the most`
        : context.value.trim() !== context.value
          ? `"${context.value}" begins or ends with a space, which people cannot see`
          : // Half of a character: there are no octets for it, and what comes back is another name.
            /\p{Surrogate}/u.test(context.value)
            ? `"${context.value}" holds half of a character: type the name anew`
            : undefined
  if (fault) context.issues.push({ code: 'custom', message: fault, input: context.value })
})
