/** Settings of a unit's services: what it listens on, whom it tells, its lights and its planned restart. */
import { z } from 'zod'
import { secretName } from '../../brief/brief'
import { days } from '../../brief/wireless-network'
import { ofUnit } from './setting'

const text = z.string()
const mail = z.object({ server: text, to: text })
const restart = z.object({ day: z.enum(days), at: text })
export type MailAlerts = z.infer<typeof mail>
export type PlannedRestart = z.infer<typeof restart>

export const servicesSettings = {
  'services.https-only': ofUnit<boolean>({
    step: 'services',
    words: 'HTTPS only',
    value: z.boolean(),
    ask: ({ brief }) => brief.aftercare.httpsOnly,
  }),
  'services.ssh': ofUnit<boolean>({
    step: 'services',
    words: 'SSH',
    value: z.boolean(),
    nothing: false,
    oftenOn: true,
    ask: ({ brief }) => brief.aftercare.ssh === 'on',
  }),
  'services.telnet': ofUnit<boolean>({
    step: 'services',
    words: 'Telnet',
    value: z.boolean(),
    nothing: false,
    oftenOn: true,
    ask: () => false,
  }),
  'services.snmp-user': ofUnit<string | null>({
    step: 'services',
    words: 'SNMP user',
    value: text.nullable(),
    nothing: null,
    needs: ['services.snmp-authentication', 'services.snmp-privacy'],
    ask: ({ brief }) => brief.aftercare.snmp?.user ?? null,
  }),
  'services.snmp-authentication': ofUnit<string>({
    step: 'services',
    words: 'SNMP authentication key',
    value: text,
    secret: true,
    byAsking: true,
    needs: ['services.snmp-user', 'services.snmp-privacy'],
    ask: ({ brief, secrets }) => (brief.aftercare.snmp ? secrets.get(secretName.snmpAuthentication) : undefined),
  }),
  'services.snmp-privacy': ofUnit<string>({
    step: 'services',
    words: 'SNMP privacy key',
    value: text,
    secret: true,
    byAsking: true,
    needs: ['services.snmp-user', 'services.snmp-authentication'],
    ask: ({ brief, secrets }) => (brief.aftercare.snmp ? secrets.get(secretName.snmpPrivacy) : undefined),
  }),
  'services.syslog': ofUnit<string | null>({
    step: 'services',
    words: 'Syslog server',
    value: text.nullable(),
    nothing: null,
    ask: ({ brief }) => brief.aftercare.syslog,
  }),
  'services.mail': ofUnit<MailAlerts | null>({
    step: 'services',
    words: 'Mail alerts',
    plural: true,
    value: mail.nullable(),
    nothing: null,
    ask: ({ brief }) => brief.aftercare.mail,
    show: (alerts) => (alerts ? `to ${alerts.to} through ${alerts.server}` : 'none'),
  }),
  'services.lights': ofUnit<boolean>({
    step: 'services',
    words: 'Indicator lights',
    plural: true,
    value: z.boolean(),
    nothing: true,
    ask: ({ brief }) => brief.admin.lights === 'on',
  }),
  'services.restart': ofUnit<PlannedRestart | null>({
    step: 'services',
    words: 'Planned restart',
    value: restart.nullable(),
    nothing: null,
    ask: ({ brief }) => brief.aftercare.restart,
    show: (plan) => (plan ? `${plan.day} at ${plan.at}` : 'none'),
  }),
  /** Where it looks for its controller first, also after a power cut. */
  'services.controller': ofUnit<string[]>({
    step: 'address',
    words: 'Preset controllers',
    plural: true,
    value: z.array(z.string()),
    whereAsked: true,
    ask: ({ controller }) => (controller === undefined ? undefined : [controller]),
  }),
} as const
