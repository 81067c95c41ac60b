/**
 * How a value stands in a command, so that nothing that a brief holds can end the command early. What a unit cannot
 * be told this way is refused before it is sent.
 */

import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import type { Escape } from '../../../core/kit/prompt-template'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'

/** C0 and C1 controls, line and paragraph separators: each may end a line somewhere. */
const endsALine = /[\p{Cc}\p{Zl}\p{Zp}]/u

/** @throws WireError rejected */
function oneLine(value: string): string {
  if (endsALine.test(value)) throw new WireError('rejected', message('xml-control-character'))
  return value
}

export const escapes: Readonly<Record<PromptDialect['escape'], Escape>> = {
  /** One word of a POSIX shell (IEEE Std 1003.1-2017, 2.2.2): within single quotes nothing has a meaning. */
  shell: (value) => `'${oneLine(value).replaceAll("'", `'\\''`)}'`,
  /** Between double quotes, with backslashes before what would end them. */
  quoted: (value) => `"${oneLine(value).replace(/["\\]/g, '\\$&')}"`,
  /** As it is: only what no command line gives a meaning to. */
  bare: (value) => {
    if (!/^[A-Za-z0-9._:@/+-]+$/.test(value)) throw new WireError('rejected', message('prompt-bare-only'))
    return value
  },
}

/** Signs that act as soon as they are typed are typed so that they stand for themselves. @throws WireError rejected */
export function typedAt({ over, prompt }: Pick<PromptDialect, 'over' | 'prompt'>, written: Escape): Escape {
  const { acts = '', literal } = prompt ?? {}
  return (value) => {
    // Its terminal has seven bits (RFC 854): the eighth would be lost on the way, without a word.
    if (over === 'telnet' && /[^ -~]/.test(value)) throw new WireError('rejected', message('telnet-ascii-only'))
    return [...written(value)]
      .map((sign) => {
        if (!acts.includes(sign)) return sign
        if (literal === undefined) throw new WireError('rejected', message('sign-acts-at-prompt', { sign }))
        return literal + sign
      })
      .join('')
  }
}

/** In what goes to a command's input: one line, as it is. */
export const inInput: Escape = oneLine
