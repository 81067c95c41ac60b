/** What is desired of a radio, where the brief does not hold it as it is. A band that the brief leaves out is off. */

import { modelName } from '../kit/kit-card'
import { message } from '../message/message'
import type { RadioPlan } from '../radio/channels/radio-plan'
import { secondaryOf } from '../regulatory/blocks'
import type { AskedRadio, Asking, DesiresOf } from './asking'

/** What is planned for a radio; undefined for one that is to be off. */
export const planOf = ({ plan }: Asking, { band }: AskedRadio): RadioPlan | undefined =>
  plan.radios.find((radio) => radio.band === band)
const policyOf = ({ brief }: Asking, { band }: AskedRadio) => brief.radio.bands.find((each) => each.band === band)

export const radioDesires: DesiresOf<'radio'> = {
  'radio.enabled': { desired: (asking, subject) => planOf(asking, subject) !== undefined },
  'radio.mode': {
    desired: (asking, subject) => (planOf(asking, subject) ? policyOf(asking, subject)?.mode : undefined),
    unfit: (mode, { card }, { radio }) =>
      radio && !radio.modes.includes(mode)
        ? message('mode-unknown-to-model', { model: modelName(card), mode })
        : undefined,
  },
  'radio.channel': { desired: (asking, subject) => planOf(asking, subject)?.channel },
  'radio.width': { desired: (asking, subject) => planOf(asking, subject)?.width },
  'radio.secondary': {
    desired: (asking, subject) => {
      const plan = planOf(asking, subject)
      return plan && secondaryOf(plan)
    },
  },
  'radio.power': { desired: (asking, subject) => planOf(asking, subject)?.power.set },
}
