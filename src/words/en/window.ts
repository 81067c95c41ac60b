/** Sentences of the window on a unit's pages. */

import type { Unit } from '../../core/kit/unit'
import type { Told, WindowClosed, WindowRefusal } from '../../core/showing/window-talk'
import { prose } from '../prose'
import { sentenceOfText } from './sentence'

const doorsInWords = (ports: readonly number[]): string =>
  [ports.slice(0, -1).join(', '), ports.at(-1)].filter((each) => each !== '').join(' or ')

/** Why no window is opened, and what the hands do. */
export function refusalWords(refusal: WindowRefusal | 'no-runner', { name }: Pick<Unit, 'name'>): string {
  if (refusal === 'no-runner')
    return 'Nobody works the bench at the moment, so no window can be opened. Start Air Muster again, then open it.'
  switch (refusal.code) {
    case 'no-such-unit':
      return 'This unit is no longer on the kit list.'
    case 'not-seen':
      return refusal.addresses.length === 0
        ? `${name} was not seen on the wire yet, and no address of it is known. Plug it in, and sweep the bench.`
        : prose`${name} answers at none of its addresses (${refusal.addresses.join(', ')}). Plug it in, wait until it
          has started, then open it again.`
    case 'being-mustered':
      return `${name} is being mustered. Pause the muster, or wait until it is done with this unit.`
    case 'no-pages':
      return prose`${name} shows nothing at ${refusal.address}: neither pages nor a prompt listen at port
        ${doorsInWords(refusal.ports)}.`
    case 'wire':
      return `${name} cannot be shown: ${sentenceOfText(refusal.reason)}.`
  }
}

/** In the place of a picture, for what has a prompt and no pages. */
export const terminalWords = {
  pages: 'Its own pages',
  its: 'Its prompt',
  again: 'Connect again',
  label: (name: string): string => `The prompt of ${name}: keys go to the unit, Shift and Tab leave`,
} as const

/** Logins that the job knows; no password is told to the browser. */
export const loginWords = { factory: 'Its factory login', 'to-be': 'Its new login' } as const

export const promptWords = ({ over, port }: Extract<Told, { kind: 'terminal' }>): string =>
  over === 'ssh'
    ? `SSH at port ${port}`
    : over === 'telnet'
      ? `Telnet at port ${port}: what is typed goes over the wire in clear`
      : `Console at port ${port}: what is typed goes over the wire in clear`

export const acceptOld = 'I accept it for this unit alone: open its pages'
export const trustIt = 'It was reset: trust its new certificate'

export const closedWords = (why: WindowClosed): string =>
  ({
    'by-hand': 'The window is closed. What was done on the pages stays as it is.',
    idle: 'The window was closed after ten minutes without a hand. What was done on the pages stays as it is.',
    ended: 'The window was closed, since the runner has ended.',
    lost: 'The window is gone: the runner, or the way to it, was lost. Open it again.',
  })[why]

export function failedWords({ code, reason }: Extract<Told, { kind: 'failed' }>): string {
  if (code === 'elsewhere') return 'A window shows this unit alone: an address of another host is not opened.'
  if (code === 'untrusted')
    return prose`It shows another certificate than before, so nothing was sent to it (${reason}). Compare the MAC on
      its label with the one above.`
  if (code === 'refused') return `It refuses this login (${reason}).`
  if (code === 'outdated')
    return `Its pages are not opened: ${reason}. Whoever is on its wire may read along, or stand between.`
  return `This page could not be had: ${reason}. Reload when the unit answers.`
}

export const cannotWords = ({ what, name }: Extract<Told, { kind: 'cannot' }>): string =>
  what === 'give-file'
    ? 'This file is not there any more, so the page was given none.'
    : `The page offers ${name || 'a file'}, which could not be kept: a window keeps files of 8 MB at most.`

export const keptWords = ({ name, bytes }: Extract<Told, { kind: 'kept' }>): string =>
  prose`${name} (${bytes < 10_000 ? `${bytes} bytes` : `${Math.round(bytes / 1000)} kB`}) is kept, sealed, among the
    copies of this unit: its slip has it.`

export const wantsFile = {
  title: 'The page asks for a file',
  fromPages: 'What its pages gave before',
  none: 'There is none to give: firmware images are given to the brief, and a copy is kept when the page offers one.',
  giveNone: 'Give none',
} as const

export const movedWords = ({ address }: Extract<Told, { kind: 'moved' }>): string =>
  `It answers at ${address} now, where it is to be.`
export const followIt = 'Open its pages there'

/** For a unit that was seen nowhere. */
export const saidAddress = { label: 'Its label or its maker says that it answers at', open: 'Open it there' } as const

/** For a browser on the machine that works the bench. */
export const ownLaneWords = {
  ask: 'Lane for this browser',
  why: 'Opens a port of this laptop that leads to this unit alone. What is done there is not noted in a showing.',
  there: 'Open its pages in a tab',
  untilClosed: 'The lane stays as long as this window is open. Your browser asks about its certificate.',
} as const
