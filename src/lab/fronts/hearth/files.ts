/** Files of a Hearth: a copy of what it is told to be, a copy that it takes over, and new firmware. */
import { createHash } from 'node:crypto'
import { z } from 'zod'
import { jsonIn } from '../../../core/input/json'
import type { Device } from '../../device/device'
import { deviceSettingsSchema } from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import { change } from '../change'

export const copyOf = ({ configured, identity }: Device): { name: string; text: string } => ({
  name: `hearth-${identity.mac.replaceAll(':', '')}.json`,
  text: JSON.stringify({ hearth: 1, mac: identity.mac, settings: configured }, null, 1),
})

const given = z.object({ base64: z.string().max(240_000) })
const bytesOf = (body: unknown): Buffer => Buffer.from(given.parse(body).base64, 'base64')
const copySchema = z.object({ hearth: z.literal(1), settings: deviceSettingsSchema })

/** By the name of what is posted. @throws Refusal, ZodError */
export const fileParts = {
  load: (device: Device, body: unknown): void => {
    const copy = copySchema.safeParse(jsonIn(bytesOf(body).toString('utf8')))
    if (!copy.success) throw new Refusal('invalid-value', 'That is no copy of a Hearth.')
    change(device, copy.data.settings)
  },
  firmware: (device: Device, body: unknown): void => {
    const image = bytesOf(body)
    const digest = createHash('sha256').update(image).digest('hex')
    device.takeImagePart(digest, 0, image)
    setImmediate(device.install(digest))
  },
} as const
