/** What a model asks of an admin password. */

import { matches } from '../input/pattern'
import { type KitCard, modelName } from '../kit/kit-card'
import { type Message, message } from '../message/message'

/** What is wrong with a password for this model, a message each; none where it is taken. */
export function passwordFaults(password: string, card: KitCard): Message[] {
  const { passwordShortest, passwordLongest, passwordRules } = card.limits
  const faults: Message[] = []
  if (password.length < passwordShortest || password.length > passwordLongest)
    faults.push(
      message('password-length-unfit', {
        model: modelName(card),
        shortest: passwordShortest,
        longest: passwordLongest,
      }),
    )
  for (const { pattern, words } of passwordRules)
    if (!matches(pattern, password))
      faults.push(message('password-characters-unfit', { model: modelName(card), allowed: words }))
  return faults
}
