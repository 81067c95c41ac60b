/** Sentences of the window on a unit's pages. */
import type { Unit } from '../../core/kit/unit'
import type { Told, WindowClosed, WindowRefusal } from '../../core/showing/window-talk'

const doorsInWords = (ports: readonly number[]): string => ports.join(' or ')

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
        : `${name} answers at none of its addresses (${refusal.addresses.join(', ')}). Plug it in, wait until it has started, then open it again.`
    case 'being-mustered':
      return `${name} is being mustered. Pause the muster, or wait until it is done with this unit.`
    case 'no-pages':
      return `${name} shows no pages at ${refusal.address}: nothing listens at port ${doorsInWords(refusal.ports)}.`
    case 'wire':
      return `${name} cannot be shown: ${refusal.reason}.`
  }
}

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
    return `It shows another certificate than before, so nothing was sent to it (${reason}). Compare the MAC on its label; if it was reset, forget the former certificate on its slip.`
  return `This page could not be had: ${reason}. Reload when the unit answers.`
}

export const cannotWords = ({ what, name }: Extract<Told, { kind: 'cannot' }>): string =>
  what === 'give-file'
    ? 'The page asks for a file. A window cannot give one yet: open its pages in your own browser (muster lane) for that.'
    : `The page offers ${name || 'a file'}. A window does not keep files yet: open its pages in your own browser (muster lane) for that.`
