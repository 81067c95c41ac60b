/** Policies of a site: its radios, how its units are signed in to, and what keeps watch when the installer has left. */

import { z } from 'zod'
import { ipv4Schema } from '../address/ipv4'
import { fieldsOf } from '../catalogue/plain'
import { radioSettings } from '../catalogue/radio'
import { servicesSettings } from '../catalogue/services'
import { bandSchema, days, radioModes, timeOfDaySchema, userRoles } from '../catalogue/values'
import { lineSchema } from '../input/line'
import { withEnvironment } from '../input/renamed'
import { messageText } from '../message/message'
import type { Band } from '../regulatory/blocks'

export const policyWidths = [20, 40, 80, 160] as const

const radioPolicyFields = z.object({
  environment: z.enum(['indoor', 'outdoor']),
  bands: z
    .array(
      z.object({
        band: bandSchema,
        width: z.union(policyWidths.map((width) => z.literal(width))),
        /** Newest generation of IEEE 802.11 in use; left out for whatever each model comes with. */
        mode: z.enum(radioModes).optional(),
      }),
    )
    .min(1, messageText('no-band')),
  /** Whether channels that must listen for radar are planned: never where a choice without is free. */
  radar: z.enum(['welcome', 'avoid']),
  /** Whether the plan may make a radio narrower than its band's width where that lowers the interference. */
  narrower: z.enum(['allowed', 'never']).default('allowed'),
  /** Which channels of 2.4 GHz are used: 1, 6, 11, or 1, 5, 9, 13 where legal. */
  raster24: z.enum(['1-6-11', '1-5-9-13']).default('1-6-11'),
  /** Whether radios of 2.4 GHz that hear three others loudly on their channel stay on, or are switched off. */
  crowded24: z.enum(['stay-on', 'switch-off']).default('stay-on'),
  /**
   * At 6 GHz clients look at every fourth channel (preferred scanning channels, IEEE 802.11ax 26.17.2.3.3) for a radio
   * that none beside it announces.
   */
  scanning6: z.enum(['preferred', 'any']).default('preferred'),
  /** Whether channels for short-range devices are planned: 25 mW above 5725 MHz, in most of Europe. */
  shortRange: z.enum(['left-out', 'used']).default('left-out'),
  ...fieldsOf(radioSettings, 'radio'),
  power: z
    .object({
      /** What the weakest client device transmits, dBm: louder units hear no answer. */
      clientDbm: z.number().min(0).max(30).default(17),
      /** How much quieter 2.4 GHz is, dB, so that clients lean to 5 GHz. */
      lowerAt24Db: z.number().min(0).max(20).default(6),
    })
    .prefault({}),
})
export const radioPolicySchema = withEnvironment(radioPolicyFields)
export type RadioPolicy = z.infer<typeof radioPolicyFields>

/** Power that the policy asks for in a band, conducted, dBm. */
export function targetDbm(policy: RadioPolicy, band: Band): number {
  return band === '2.4' ? policy.power.clientDbm - policy.power.lowerAt24Db : policy.power.clientDbm
}

/** How a user may be called, on whatever model. */
const userPattern = /^[a-z][a-z0-9-]{0,30}$/
const furtherUserSchema = z.object({
  name: z.string().trim().regex(userPattern, messageText('user-name-unfit')),
  role: z.enum(userRoles),
})
export type FurtherUser = z.infer<typeof furtherUserSchema>

export const adminPolicySchema = z.object({
  passwords: z.enum(['one-per-job', 'one-per-unit']),
  /** The login that a controller sets on its units: the same as its own, or one for them alone. */
  pushedLogin: z.enum(['same', 'own']).default('same'),
  lights: z.enum(['on', 'off']),
  /** What the admin is called on models that let whoever sets them up choose. */
  user: z.string().trim().regex(userPattern, messageText('admin-name-unfit')).default('admin'),
  /** Who may sign in beside the admin. */
  furtherUsers: z
    .array(furtherUserSchema)
    .max(8, messageText('too-many-users'))
    .refine((users) => new Set(users.map(({ name }) => name)).size === users.length, messageText('user-twice'))
    .default([]),
})
export type AdminPolicy = z.infer<typeof adminPolicySchema>

const hostSchema = z
  .string()
  .trim()
  .regex(/^[A-Za-z0-9]([A-Za-z0-9.-]{0,251}[A-Za-z0-9])?$/, messageText('server-unfit'))

export const firmwareImageSchema = z.object({
  /** As on the kit list. */
  model: lineSchema(80),
  /** Version that it brings. */
  version: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9][A-Za-z0-9._+-]{0,39}$/, messageText('version-unfit')),
  /** File that it came in. */
  file: lineSchema(120),
  bytes: z.int().min(1),
  /** SHA-256, hexadecimal. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/, messageText('digest-unfit')),
})
export type FirmwareImage = z.infer<typeof firmwareImageSchema>

export const aftercareSchema = z.object({
  /** SNMPv3 (RFC 3414) with authentication and privacy; its keys lie in the vault. */
  snmp: z
    .object({
      user: z
        .string()
        .trim()
        .regex(/^[A-Za-z0-9._-]{1,32}$/, messageText('snmp-user-unfit')),
    })
    .nullable()
    .default(null),
  /** RFC 5424 over UDP. */
  syslog: ipv4Schema.nullable().default(null),
  mail: z
    .object({ server: hostSchema, to: z.email(messageText('alert-address-unfit')) })
    .nullable()
    .default(null),
  ...fieldsOf(servicesSettings, 'aftercare'),
  ssh: z.enum(['on', 'off']).default('off'),
  telnet: z.literal('off', { error: messageText('telnet-stays-off') }).default('off'),
  /** Weekly restart, site time. */
  restart: z
    .object({ day: z.enum(days), at: timeOfDaySchema })
    .nullable()
    .default(null),
  /** Firmware that every unit is to have at least; empty for whatever it brings. */
  firmware: lineSchema(40).default(''),
  /** Images for models that are to run another one. Their bytes are kept by their digest. */
  images: z
    .array(firmwareImageSchema)
    .max(16, messageText('too-many-images'))
    .refine((images) => new Set(images.map(({ model }) => model)).size === images.length, {
      error: messageText('image-twice'),
    })
    .default([]),
})
export type Aftercare = z.infer<typeof aftercareSchema>

/** What the brief has for a model to run; undefined where it has nothing for it. */
export function imageFor({ images }: Pick<Aftercare, 'images'>, model: string): FirmwareImage | undefined {
  return images.find((image) => image.model === model)
}
