/** Sentences of a showing: hands set one unit, and what they did becomes a card for the others. */

import type { SettingId } from '../../core/catalogue/catalogue'
import { settingOf } from '../../core/catalogue/catalogue'
import type { PressRole } from '../../core/showing/act'
import type { SaidState } from '../../core/showing/join-states'
import type { MissingPart } from '../../core/showing/missing-part'
import { prose } from '../prose'

export const showing = {
  title: 'Showing',
  other: 'What it is to be',
  begin: 'Show how this model is set',
  why: 'Set this unit by hand, in full. What you do is noted, and becomes a card by which the others are set.',
  make: 'Make the card',
  /** Forgets all that was shown of this unit so far. */
  anew: 'Begin anew',
  keep: 'Keep the card',
  /** Where there is one of this model: another firmware calls things otherwise. */
  add: 'Add it to the card',
  kept: 'The card is kept. The next muster sets the units of this model by it.',
  read: 'Read it over',
  nothing: 'Nothing was done yet.',
  rehearse: 'Read it by its card',
  rehearseWhy:
    'Once hands have set it and it answers where it is to be: it is read by its card, and nothing is written.',
  pressed: 'Press',
  put: 'Put in',
  stood: 'Right already:',
  steps: [
    'Begin as it comes out of its box: what it asks first, and its sign-in.',
    'Open, and leave again, one row of its table of networks, and take away the one it came with; then add yours.',
    'Save each page, and end with what puts all into effect.',
  ],
  /** For an access point that is set through the unit. */
  stepsJoined: [
    'Open the page that lists it, and let it in where it waits for that.',
    'Reload that page until its row says that it has joined.',
    'Open its row, set it as it is to be, and save it.',
  ],
} as const

/** Beside a setting that hands have put in, or found right, while they show. */
export const wasShown = 'shown'
export const shownOf = (count: number, all: number): string => `${count} of ${all} shown`

export const roleWords: Readonly<Record<PressRole, string>> = {
  way: 'leads on',
  saves: 'saves what was put in',
  effect: 'puts all into effect',
  restart: 'restarts it',
  'sign-out': 'signs out',
  remove: 'takes the row away',
  'take-in': 'lets it in',
  close: 'leaves it as it is',
  'left-out': 'leave it out',
}

/** Above the words that stood in the row of an access point. */
export const statesTitle = 'What its row has said'
export const stateAsks = (words: string): string => `What ${words} means`
export const stateWords: Readonly<Record<SaidState, string>> = {
  run: 'it has joined',
  'not-listed': 'it waits to be let in',
  absent: 'it is not there',
  discovered: 'it was seen',
  joining: 'it is joining',
  image: 'it takes its firmware',
  configuring: 'it is being set',
  'licence-full': 'turned away: no room for more',
  clock: 'turned away: wrong time',
  country: 'turned away: another country',
  certificate: 'turned away: its certificate',
  login: 'turned away: its login',
  'image-failed': 'turned away: its firmware failed',
  none: 'no state of it',
}
export const whoseValues = 'Whose values'
export const itself = (name: string): string => `${name} itself`
export const throughIt = (name: string): string => `${name}, set through it`

export const meaningWords = {
  always: 'always so',
  factory: 'its login out of the box',
  ticked: 'always so',
  unknown: 'what is it?',
  'left-out': 'left out',
} as const

export const settingName = (id: SettingId): string => settingOf(id).words

export const readBackWords = {
  'as-asked': 'read as asked',
  otherwise: 'read as something else',
  'not-readable': 'not readable',
} as const

export const rehearsalFaultWords = ({ kind, reason }: { kind: string; reason: string }): string =>
  `It could not be read by its card (${kind}): ${reason}.`

export function missingWords(part: MissingPart): string {
  switch (part.code) {
    case 'no-sign-in':
      return 'No sign-in was shown: a name and a password that are put in and sent.'
    case 'no-settings':
      return 'No page of settings was shown.'
    case 'no-address':
      return 'It was not shown where its address is set.'
    case 'no-row':
      return 'No row was seen that is called as one of the networks is.'
    case 'no-add':
      return 'It was not shown how a network is added.'
    case 'no-open':
      return 'It was not shown how a row of the table of networks is opened: open one, and leave it again.'
    case 'no-remove':
      return 'It was not shown how a network is taken away: take the one away that it came with.'
    case 'no-security':
      return 'No security of a network was shown: choose it while you add one, also where it stands right already.'
    case 'no-unit-row':
      return 'No row was seen that shows the MAC or serial number of the access point: open the page that lists them.'
    case 'no-unit-open':
      return 'It was not shown how the row of an access point is opened.'
    case 'no-unit-settings':
      return 'It was not shown how the settings of an access point are saved.'
    case 'no-joined-state':
      return prose`No words in its row are known to say that the access point has joined: wait until it has, open the
        list again, and say which they are.`
    case 'unknown-state':
      return `"${part.words}": say what it means of an access point, or that it is no state.`
    case 'only-at-first':
      return prose`${settingName(part.id)} was asked for at first alone: open the page on which it stands now, and
        save it there.`
    case 'not-at-band':
      return `${settingName(part.id)} was shown for one radio, and not at ${part.band} GHz: choose it there too.`
    case 'unknown':
      return `"${part.label}": say what was put in there, or leave it out.`
  }
}
