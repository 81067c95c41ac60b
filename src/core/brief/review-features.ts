/** What the models on the kit list cannot be set to of what the brief asks: better said here than found out by a guest. */

import { spokenOf } from '../config/outcomes'
import type { SettingId } from '../config/setting-ids'
import { isDirect, type KitCard, modelName } from '../kit/kit-card'
import type { Brief } from './brief'
import type { BriefFault } from './fault'

/** Where in the brief each setting is asked; `#` is the place of its network. */
const fields: Readonly<Partial<Record<SettingId, string>>> = {
  'clock.time-zone': 'timeZone',
  'clock.ntp-servers': 'ntpServers',
  'management.method': 'addressing',
  'management.vlan': 'managementTagged',
  'admin.further-users': 'admin.furtherUsers',
  'services.https-only': 'aftercare.httpsOnly',
  'services.ssh': 'aftercare.ssh',
  'services.snmp-user': 'aftercare.snmp',
  'services.syslog': 'aftercare.syslog',
  'services.mail': 'aftercare.mail',
  'services.lights': 'admin.lights',
  'services.restart': 'aftercare.restart',
  'network.pmf': 'networks.#.pmf',
  'network.radius-servers': 'networks.#.radius',
  'network.radius-accounting': 'networks.#.accounting',
  'network.vlan': 'networks.#.vlan',
  'network.hidden': 'networks.#.hidden',
  'network.isolation': 'networks.#.isolation',
  'network.rate-per-client': 'networks.#.limits',
  'network.rate-shared': 'networks.#.limits',
  'network.most-clients': 'networks.#.limits',
  'network.hours': 'networks.#.hours',
  'network.steering': 'networks.#.steering',
  'network.steering-above': 'networks.#.steering',
  'network.least-signal': 'networks.#.leastDbm',
  'network.fast-roaming': 'networks.#.fastRoaming',
  'network.mac-list': 'networks.#.macList',
}

/** @param today  by which rules of time zones are looked up */
export function reviewFeatures(brief: Brief, models: readonly KitCard[], today: Date): BriefFault[] {
  const byHand = new Map<string, { field: string; sentence: string; models: string[] }>()
  for (const card of models.filter(isDirect)) {
    const unit = {
      id: 'unit',
      name: 'unit',
      place: '',
      model: modelName(card),
      mac: '',
      serial: '',
      port: null,
      siteSwitch: '',
      sitePort: '',
    }
    const plan = { unit: 'unit', address: brief.management.cidr, radios: [] }
    for (const { id, of, name, outcome } of spokenOf({ brief, unit, plan, card, secrets: new Map(), today })) {
      const field = fields[id]
      if (outcome.kind !== 'by-hand' || field === undefined) continue
      const place = field.replace('#', String(brief.networks.findIndex((network) => network.id === of)))
      const sentence = `${name === '' ? '' : `"${name}": `}${outcome.hands.replace(/^Set /, 'set ').replace(/\.$/, '')}`
      const known = byHand.get(`${id} ${of}`) ?? { field: place, sentence, models: [] }
      byHand.set(`${id} ${of}`, { ...known, models: [...known.models, modelName(card)] })
    }
  }
  return [...byHand.values()].map(({ field, sentence, models: names }) => ({
    field,
    code: 'set-by-hand',
    weight: 'know',
    sentence: `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)} by hand on ${names.join(', ')}: a muster cannot.`,
  }))
}
