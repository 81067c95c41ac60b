/**
 * What the models on the kit list cannot be set to of what the brief asks: better said here than found out by a guest.
 */

import type { Brief } from '../brief/brief'
import { settingOf } from '../catalogue/catalogue'
import { spokenOf } from '../config/outcomes'
import { isDirect, type KitCard, modelName } from '../kit/kit-card'
import { type Message, message } from '../message/message'
import type { BriefFault } from './fault'

/** @param today  by which rules of time zones are looked up */
export function reviewFeatures(brief: Brief, models: readonly KitCard[], today: Date): BriefFault[] {
  const byHand = new Map<string, { field: string; name: string; hands: Message; models: string[] }>()
  for (const card of models.filter(isDirect)) {
    const unit = {
      id: 'unit',
      name: 'unit',
      location: '',
      model: modelName(card),
      mac: '',
      serial: '',
      port: null,
      siteSwitch: '',
      sitePort: '',
    }
    const plan = { unit: 'unit', address: brief.management.cidr, radios: [] }
    for (const { id, of, name, outcome } of spokenOf({ brief, unit, plan, card, secrets: new Map(), today })) {
      const { scope, asked } = settingOf(id)
      if (outcome.kind !== 'by-hand' || asked === undefined) continue
      const index = brief.networks.findIndex((network) => network.id === of)
      const field = scope === 'network' ? `networks.${index}.${asked}` : asked
      const known = byHand.get(`${id} ${of}`) ?? { field, name, hands: outcome.hands, models: [] }
      byHand.set(`${id} ${of}`, { ...known, models: [...known.models, modelName(card)] })
    }
  }
  return [...byHand.values()].map(({ field, ...params }) => ({
    field,
    ...message('set-by-hand', params),
    weight: 'know',
  }))
}
