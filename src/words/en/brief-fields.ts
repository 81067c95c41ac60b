/** Sentences in which the brief asks for its plain settings: what stands before the field, in it, and after it. */
import type { PlainId } from '../../core/catalogue/catalogue'

export interface BriefField {
  /** Name of the field. */
  readonly label: string
  readonly before: string
  /** The words of each choice; of a flag, `yes` and `no`. */
  readonly choices?: Readonly<Record<string, string>>
  readonly after?: string
  /** In an empty field, and after it. */
  readonly none?: string
  readonly afterNone?: string
}

export const briefFields: Readonly<Record<PlainId, BriefField>> = {
  'network.hidden': { label: 'Hidden or shown', before: 'Its name is', choices: { yes: 'hidden', no: 'shown' } },
  'network.isolation': {
    label: 'Client isolation',
    before: 'Its clients',
    choices: { yes: 'are kept from each other', no: 'may reach each other' },
  },
  'network.multicast-to-unicast': {
    label: 'Multicast to unicast',
    before: 'Multicast goes out',
    choices: { yes: 'to each client by itself', no: 'once for all' },
  },
  'network.steering': {
    label: 'Steering of clients',
    before: 'The band',
    choices: {
      'client-decides': 'is left to the client',
      'lean-to-5': 'leans to 5 GHz',
      'insist-on-5': 'insists on 5 GHz',
      spread: 'spreads clients evenly',
    },
  },
  'network.least-signal': {
    label: 'Let go below, dBm',
    before: 'Clients below',
    none: 'no level',
    after: 'dBm are let go',
    afterNone: 'are let go',
  },
  'services.https-only': {
    label: 'HTTPS only',
    before: 'Units are managed over',
    choices: { yes: 'HTTPS only', no: 'HTTPS and plain HTTP' },
  },
  'radio.low-rates': {
    label: 'Low data rates',
    before: 'Low data rates are',
    choices: { kept: 'kept for reach', dropped: 'dropped for airtime' },
  },
  'radio.beacon-interval': {
    label: 'Beacon interval, time units',
    before: 'The time between beacons is',
    none: 'as shipped',
    after: 'time units',
  },
}
