/** Values that several settings and documents share. */

import { z } from 'zod'
import { messageText } from '../message/message'
import { bands } from '../regulatory/blocks'

export const bandSchema = z.enum(bands)

export const days = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
export const timeOfDaySchema = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, messageText('time-of-day-unfit'))

/** What is done with clients that know both 2.4 and 5 GHz. */
export const steerings = ['client-decides', 'lean-to-5', 'insist-on-5', 'spread'] as const

/** Generations of IEEE 802.11, the older first. */
export const radioModes = ['n', 'ac', 'ax', 'be'] as const

/** What a user may do: all of it, or look. */
export const userRoles = ['administers', 'reads'] as const

/** A VLAN for people; null for untagged. */
export const vlanWords = (vlan: number | null): string => (vlan === null ? 'untagged' : String(vlan))
