/**
 * The brief: what the site is to have, as agreed with the client. It holds no secrets; it names them, and the vault
 * keeps them.
 */

import { z } from 'zod'
import { asksRadius, takesPassphrase } from '../catalogue/security-mode'
import { lineSchema } from '../input/line'
import { messageText } from '../message/message'
import { type AdminPolicy, adminPolicySchema, aftercareSchema, radioPolicySchema } from './policies'
import { siteSubnetSchema, subnetSchema } from './subnet'
import { type WirelessNetwork, wirelessNetworkSchema } from './wireless-network'

/** One direction in which clients may open connections; the ids are those of subnets. */
export const talkSchema = z.object({ from: z.string(), to: z.string() })

/** Languages in which the papers for a client can be printed, ISO 639-1. */
export const paperLanguages = ['en', 'de'] as const
export type PaperLanguage = (typeof paperLanguages)[number]

export const briefSchema = z.object({
  country: z.string().regex(/^([A-Z]{2}|00)$/, messageText('country-two-capitals')),
  client: lineSchema(120).default(''),
  site: lineSchema(120).min(1, messageText('site-without-name')),
  /** Of the papers that the client gets. */
  papersIn: z.enum(paperLanguages).default('en'),
  timeZone: z.string().refine(isTimeZone, messageText('time-zone-unknown')),
  ntpServers: z.array(lineSchema(253).min(1)).min(1, messageText('no-time-server')).max(3),
  management: subnetSchema,
  /** How units get their address: from the plan, or by DHCP with the planned one reserved for them. */
  addressing: z.enum(['static', 'dhcp']).default('static'),
  /** Units are managed on the VLAN of management with a tag: each of their switch ports must carry it. */
  managementTagged: z.boolean().default(false),
  subnets: z.array(siteSubnetSchema).max(64).default([]),
  /** Who may reach whom; what is not named is kept apart. */
  talks: z.array(talkSchema).max(4096).default([]),
  networks: z.array(wirelessNetworkSchema).max(16),
  radio: radioPolicySchema,
  admin: adminPolicySchema,
  aftercare: aftercareSchema.prefault({}),
})
export type Brief = z.infer<typeof briefSchema>

/** The VLAN in which units are managed with a tag; none where they are managed without one. */
export const managedWithTag = ({ managementTagged, management: { vlan } }: Brief): number[] =>
  managementTagged && vlan !== null ? [vlan] : []

/** Names under which the vault keeps a job's secrets. */
export const secretName = {
  passphrase: (network: Pick<WirelessNetwork, 'id'>) => `network/${network.id}/passphrase`,
  radius: (network: Pick<WirelessNetwork, 'id'>) => `network/${network.id}/radius`,
  jobPassword: 'admin/password',
  unitPassword: (unit: string) => `admin/password/${unit}`,
  pushedPassword: 'admin/pushed-password',
  /** The password that is printed on the label of a box: its own, where each has another. */
  labelPassword: (mac: string) => `label/${mac}/password`,
  /** A login that the client uses today, for units that somebody set up before: of all of them, or of one box. */
  loginToday: 'today/login',
  boxLoginToday: (mac: string) => `today/${mac}/login`,
  userPassword: (user: string) => `user/${user}/password`,
  /** A private key for SSH, of somebody who set units up before: tried beside the passwords, where a job has one. */
  sshKey: 'admin/ssh-key',
  snmpAuthentication: 'snmp/authentication',
  snmpPrivacy: 'snmp/privacy',
} as const

/** The name under which a unit's admin password is kept, by the policy. */
export function adminSecretName(policy: AdminPolicy, unit: string): string {
  return policy.passwords === 'one-per-job' ? secretName.jobPassword : secretName.unitPassword(unit)
}

/** The name under which the password is kept that a controller gives to its units: one of their own, or its own too. */
export function pushedSecretName(policy: AdminPolicy, controller: string): string {
  return policy.pushedLogin === 'own' ? secretName.pushedPassword : adminSecretName(policy, controller)
}

/** Is it a password that units are signed in with, under either policy? */
export function isAdminSecret(name: string): boolean {
  return name === secretName.jobPassword || name.startsWith(secretName.unitPassword(''))
}

/** Names of all the secrets that a brief needs for these units. */
export function neededSecrets(brief: Brief, units: readonly string[]): string[] {
  const names = [
    ...brief.networks
      .filter(({ security }) => takesPassphrase(security))
      .map((network) => secretName.passphrase(network)),
    ...brief.networks.filter(({ security }) => asksRadius(security)).map((network) => secretName.radius(network)),
    secretName.jobPassword,
    ...units.map((unit) => adminSecretName(brief.admin, unit)),
    ...(brief.admin.pushedLogin === 'own' ? [secretName.pushedPassword] : []),
    ...brief.admin.furtherUsers.map(({ name }) => secretName.userPassword(name)),
    ...(brief.aftercare.snmp ? [secretName.snmpAuthentication, secretName.snmpPrivacy] : []),
  ]
  return [...new Set(names)]
}

/** A formatter is slow to make, and the same few zones are asked for again and again. */
const knownZones = new Set<string>()

function isTimeZone(name: string): boolean {
  if (knownZones.has(name)) return true
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    knownZones.add(name)
    return true
  } catch {
    return false
  }
}

/** A brief as a new job begins: one subnet, one staff network, policies that do no harm. */
export function newBrief(site: string, country: string, timeZone: string): Brief {
  return briefSchema.parse({
    country,
    site,
    timeZone,
    ntpServers: ['10.20.0.1'],
    management: {
      name: 'Management',
      cidr: '10.20.0.0/24',
      vlan: null,
      gateway: '10.20.0.1',
      dnsServers: ['10.20.0.1'],
      dhcpPool: { first: '10.20.0.100', last: '10.20.0.199' },
    },
    networks: [],
    radio: {
      environment: 'indoor',
      bands: [
        { band: '2.4', width: 20 },
        { band: '5', width: 40 },
      ],
      radar: 'avoid',
    },
    admin: { passwords: 'one-per-job', lights: 'on' },
  })
}
