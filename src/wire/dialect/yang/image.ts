/** Gives a unit an image over the session in which it is set, by the operations of air-muster-firmware. */
import type { Image } from '../dialect'

/** Carries one operation out, by its name within the module. */
type Operate = (operation: 'image-part' | 'install-image', input: Readonly<Record<string, unknown>>) => Promise<void>

export const firmwareModule = 'air-muster-firmware'

/** A part has so many octets at the most. */
const mostOctets = 262_144

/** Part by part, in order; then the unit checks the whole and installs it. */
export async function sendImage({ sha256, parts }: Image, operate: Operate): Promise<void> {
  let offset = 0
  for await (const bytes of parts())
    for (let from = 0; from < bytes.length; from += mostOctets) {
      const part = bytes.subarray(from, from + mostOctets)
      await operate('image-part', { image: sha256, offset, content: Buffer.from(part).toString('base64') })
      offset += part.length
    }
  await operate('install-image', { image: sha256 })
}
