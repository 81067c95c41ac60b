/** Settings of a unit's services: what it listens on, whom it tells, its lights and its planned restart. */
import { z } from 'zod'
import { flag } from './plain'
import { ofUnit } from './setting'
import { days } from './values'

const text = z.string()
const mail = z.object({ server: text, to: text })
const restart = z.object({ day: z.enum(days), at: text })
export type MailAlerts = z.infer<typeof mail>
export type PlannedRestart = z.infer<typeof restart>

const services = 'air-muster-wireless:services'
/** A service that a unit tells nothing of is not one that is off. */
const unsaid = { absent: 'unsupported' } as const

export const servicesSettings = {
  'services.https-only': flag('aftercare', 'httpsOnly', {
    words: 'HTTPS only',
    default: true,
    leaf: { path: `${services}/https-only` },
  }),
  'services.ssh': ofUnit<boolean>({
    step: 'services',
    words: 'SSH',
    value: z.boolean(),
    nothing: false,
    oftenOn: true,
    asked: 'aftercare.ssh',
    leaf: { path: `${services}/ssh`, ...unsaid },
  }),
  'services.telnet': ofUnit<boolean>({
    step: 'services',
    words: 'Telnet',
    value: z.boolean(),
    nothing: false,
    oftenOn: true,
    leaf: { path: `${services}/telnet`, ...unsaid },
  }),
  'services.snmp-user': ofUnit<string | null>({
    step: 'services',
    words: 'SNMP user',
    value: text.nullable(),
    nothing: null,
    needs: ['services.snmp-authentication', 'services.snmp-privacy'],
    asked: 'aftercare.snmp',
    leaf: { path: `${services}/snmp/user` },
  }),
  'services.snmp-authentication': ofUnit<string>({
    step: 'services',
    words: 'SNMP authentication key',
    value: text,
    secret: true,
    byAsking: true,
    needs: ['services.snmp-user', 'services.snmp-privacy'],
    leaf: { path: `${services}/snmp/authentication-key` },
  }),
  'services.snmp-privacy': ofUnit<string>({
    step: 'services',
    words: 'SNMP privacy key',
    value: text,
    secret: true,
    byAsking: true,
    needs: ['services.snmp-user', 'services.snmp-authentication'],
    leaf: { path: `${services}/snmp/privacy-key` },
  }),
  'services.syslog': ofUnit<string | null>({
    step: 'services',
    words: 'Syslog server',
    value: text.nullable(),
    nothing: null,
    asked: 'aftercare.syslog',
    leaf: { path: `${services}/syslog` },
  }),
  'services.mail': ofUnit<MailAlerts | null>({
    step: 'services',
    words: 'Mail alerts',
    plural: true,
    value: mail.nullable(),
    nothing: null,
    asked: 'aftercare.mail',
    leaf: { path: `${services}/mail` },
    show: (alerts) => (alerts ? `to ${alerts.to} through ${alerts.server}` : 'none'),
  }),
  'services.lights': ofUnit<boolean>({
    step: 'services',
    words: 'Indicator lights',
    plural: true,
    value: z.boolean(),
    nothing: true,
    asked: 'admin.lights',
    leaf: { path: `${services}/lights`, ...unsaid },
  }),
  'services.restart': ofUnit<PlannedRestart | null>({
    step: 'services',
    words: 'Planned restart',
    value: restart.nullable(),
    nothing: null,
    asked: 'aftercare.restart',
    leaf: { path: `${services}/restart` },
    show: (plan) => (plan ? `${plan.day} at ${plan.at}` : 'none'),
  }),
  /** Where it looks for its controller first, also after a power cut. */
  'services.controller': ofUnit<string[]>({
    step: 'address',
    words: 'Preset controllers',
    plural: true,
    value: z.array(z.string()),
    whereAsked: true,
  }),
} as const
