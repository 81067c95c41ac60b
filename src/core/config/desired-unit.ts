/** What is desired of a unit as a whole, where the brief does not hold it as it is. */

import { parseCidr } from '../address/ipv4'
import { adminSecretName, type Brief, managedWithTag, pushedSecretName, secretName } from '../brief/brief'
import { imageFor } from '../brief/policies'
import { posixTimeZone } from '../catalogue/posix-time-zone'
import { adminUser, modelName } from '../kit/kit-card'
import { message } from '../message/message'
import type { DesiresOf } from './asking'

const isStatic = ({ addressing }: Brief): boolean => addressing === 'static'

export const unitDesires: DesiresOf<'unit'> = {
  'unit.name': { desired: ({ unit }) => unit.name },
  'unit.location': { desired: ({ unit }) => unit.location },
  'unit.country': { desired: ({ brief }) => brief.country },
  'unit.environment': { desired: ({ brief, plan }) => plan.radios[0]?.environment ?? brief.radio.environment },
  'unit.firmware': {
    desired: ({ brief: { aftercare }, unit }) =>
      imageFor(aftercare, unit.model)?.version ?? (aftercare.firmware || undefined),
  },
  'clock.time-zone': {
    desired: ({ brief, card, today }) =>
      card.can['clock.time-zone']?.as === 'posix'
        ? (posixTimeZone(brief.timeZone, today) ?? brief.timeZone)
        : brief.timeZone,
    unfit: (zone, { card }) =>
      card.can['clock.time-zone']?.as === 'posix' && zone.includes('/') && !zone.includes(',')
        ? message('zone-without-rule', { model: modelName(card), zone })
        : undefined,
  },
  'clock.ntp-servers': { desired: ({ brief }) => brief.ntpServers },
  'clock.time': { desired: () => 0 },
  'management.method': { desired: ({ brief }) => brief.addressing },
  'management.address': { desired: ({ plan }) => plan.address },
  'management.prefix': { desired: ({ brief }) => parseCidr(brief.management.cidr)?.prefix },
  'management.gateway': { desired: ({ brief }) => (isStatic(brief) ? brief.management.gateway : undefined) },
  'management.dns-servers': { desired: ({ brief }) => (isStatic(brief) ? brief.management.dnsServers : undefined) },
  'management.vlan': { desired: ({ brief }) => managedWithTag(brief)[0] ?? null },
  'admin.user': { desired: ({ brief, card }) => adminUser(card, brief.admin.user) },
  'admin.password': { desired: ({ brief, unit, secrets }) => secrets.get(adminSecretName(brief.admin, unit.id)) },
  'admin.further-users': {
    desired: ({ brief }) => brief.admin.furtherUsers,
    unfit: (users, { brief, card }) => {
      const admin = adminUser(card, brief.admin.user)
      return users.some(({ name }) => name === admin)
        ? message('user-is-admin', { user: admin, model: modelName(card) })
        : undefined
    },
  },
  'admin.further-passwords': {
    desired: ({ brief, secrets }) => {
      const passwords = brief.admin.furtherUsers.flatMap(({ name }) => {
        const password = secrets.get(secretName.userPassword(name))
        return password === undefined ? [] : [[name, password]]
      })
      return passwords.length === 0 ? undefined : Object.fromEntries(passwords)
    },
  },
  'licence.units': { desired: ({ manages }) => manages || undefined },
  'pushed.user': { desired: ({ card }) => (card.role === 'controller' ? card.factory.login.user : undefined) },
  'pushed.password': {
    desired: ({ brief, unit, card, secrets }) =>
      card.role === 'controller' ? secrets.get(pushedSecretName(brief.admin, unit.id)) : undefined,
  },
  'services.ssh': { desired: ({ brief }) => brief.aftercare.ssh === 'on' },
  'services.telnet': { desired: () => false },
  'services.snmp-user': { desired: ({ brief }) => brief.aftercare.snmp?.user ?? null },
  'services.snmp-authentication': {
    desired: ({ brief, secrets }) => (brief.aftercare.snmp ? secrets.get(secretName.snmpAuthentication) : undefined),
  },
  'services.snmp-privacy': {
    desired: ({ brief, secrets }) => (brief.aftercare.snmp ? secrets.get(secretName.snmpPrivacy) : undefined),
  },
  'services.syslog': { desired: ({ brief }) => brief.aftercare.syslog },
  'services.mail': { desired: ({ brief }) => brief.aftercare.mail },
  'services.lights': { desired: ({ brief }) => brief.admin.lights === 'on' },
  'services.restart': { desired: ({ brief }) => brief.aftercare.restart },
  'services.controller': { desired: ({ controller }) => (controller === undefined ? undefined : [controller]) },
}
