/**
 * What a stand-in is set to, in words of its own: no protocol's and no client's. Each front has its own way to and
 * from it.
 */
import { z } from 'zod'

const band = z.enum(['2.4', '5', '6'])
const day = z.enum(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])
const peer = z.object({ host: z.string(), port: z.number() })

/** How a network may be secured. */
export const modeSchema = z.enum([
  'open',
  'owe',
  'wpa2-personal',
  'wpa2-enterprise',
  'wpa3-personal',
  'wpa3-wpa2-mixed',
  'wpa3-enterprise',
])

export const deviceNetworkSchema = z.object({
  id: z.string(),
  name: z.string(),
  on: z.boolean(),
  bands: z.array(band),
  hidden: z.boolean(),
  vlan: z.number().nullable(),
  isolated: z.boolean(),
  multicastToUnicast: z.boolean(),
  clientRate: z.number().nullable(),
  totalRate: z.number().nullable(),
  clientLimit: z.number().nullable(),
  hours: z.object({ days: z.array(day), from: z.string(), to: z.string() }).nullable(),
  steer: z.enum(['client-decides', 'lean-to-5', 'insist-on-5', 'spread']),
  steerAbove: z.number().nullable(),
  letGoBelow: z.number().nullable(),
  roaming: z.boolean(),
  roamingDomain: z.number().nullable(),
  clients: z.object({ rule: z.enum(['allow', 'deny']), macs: z.array(z.string()) }).nullable(),
  mode: modeSchema,
  meantOpen: z.boolean(),
  cipher: z.enum(['ccmp', 'gcmp-256']),
  frames: z.enum(['off', 'optional', 'required']).nullable(),
  passphrase: z.string().nullable(),
  radius: z.object({ servers: z.array(peer), accounting: z.array(peer), secret: z.string().nullable() }).nullable(),
})
export type DeviceNetwork = z.infer<typeof deviceNetworkSchema>

export const deviceRadioSchema = z.object({
  band,
  on: z.boolean(),
  generation: z.enum(['n', 'ac', 'ax', 'be']).nullable(),
  channel: z.number(),
  width: z.number(),
  /** Side of the second channel, where it was told. */
  secondary: z.enum(['above', 'below']).optional(),
  /** dBm. */
  power: z.number(),
  lowRates: z.enum(['kept', 'dropped']),
  /** Time units. */
  beacon: z.number(),
})
export type DeviceRadio = z.infer<typeof deviceRadioSchema>

const wired = z.object({
  method: z.enum(['static', 'dhcp']),
  address: z.string().nullable(),
  prefix: z.number().nullable(),
  vlan: z.number().nullable(),
})

/** An access point that a controller lets join. */
export const managedPointSchema = z.object({
  mac: z.string(),
  name: z.string(),
  location: z.string(),
  /** Ids of networks of the controller. */
  networks: z.array(z.string()),
  /** As far as they are told: a radio that is off may have no channel. */
  radios: z.array(deviceRadioSchema.partial().required({ band: true, on: true })),
  wired,
  gateway: z.string().nullable(),
  /** Where it is to look for its controller first. */
  controllers: z.array(z.string()).default([]),
})
export type ManagedPoint = z.infer<typeof managedPointSchema>

export const deviceSettingsSchema = z.object({
  name: z.string(),
  location: z.string(),
  country: z.string().nullable(),
  environment: z.enum(['indoor', 'outdoor']).nullable(),
  zoneName: z.string().nullable(),
  zoneRule: z.string().nullable(),
  timeServers: z.array(z.string()),
  nameServers: z.array(z.string()),
  users: z.array(z.string()),
  /** Those of them that may change anything. */
  administrators: z.array(z.string()).default([]),
  /** Whether a rule says that they may. */
  administratorsMay: z.boolean().default(false),
  wired,
  gateway: z.string().nullable(),
  networks: z.array(deviceNetworkSchema),
  radios: z.array(deviceRadioSchema),
  httpsOnly: z.boolean(),
  ssh: z.boolean(),
  telnet: z.boolean(),
  lights: z.boolean(),
  syslog: z.string().nullable(),
  mail: z.object({ server: z.string(), to: z.string() }).nullable(),
  restart: z.object({ day, at: z.string() }).nullable(),
  /** Of a controller: the login that it gives to units that join it. */
  pushed: z.object({ user: z.string(), password: z.string() }).nullable().default(null),
  /** Of an access point that is managed: where it looks for its controller first. */
  controllers: z.array(z.string()).default([]),
  /** Of a controller. */
  points: z.array(managedPointSchema).default([]),
  snmp: z.object({ user: z.string(), authentication: z.string(), privacy: z.string() }).nullable(),
})
export type DeviceSettings = z.infer<typeof deviceSettingsSchema>

/** A network as a device that was told nothing more of it takes it. */
export const plainNetwork: Omit<DeviceNetwork, 'id' | 'name' | 'bands' | 'mode' | 'passphrase'> = {
  on: false,
  hidden: false,
  vlan: null,
  isolated: false,
  multicastToUnicast: false,
  clientRate: null,
  totalRate: null,
  clientLimit: null,
  hours: null,
  steer: 'client-decides',
  steerAbove: null,
  letGoBelow: null,
  roaming: false,
  roamingDomain: null,
  clients: null,
  meantOpen: false,
  cipher: 'ccmp',
  frames: null,
  radius: null,
}
