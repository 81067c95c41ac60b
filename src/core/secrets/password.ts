/** What a model asks of an admin password. */
import { matches } from '../input/pattern'
import { type KitCard, modelName } from '../kit/kit-card'

/** What is wrong with a password for this model, a sentence each; none where it is taken. */
export function passwordFaults(password: string, card: KitCard): string[] {
  const { passwordShortest, passwordLongest, passwordRules } = card.limits
  const faults: string[] = []
  if (password.length < passwordShortest || password.length > passwordLongest)
    faults.push(`${modelName(card)} takes an admin password of ${passwordShortest} to ${passwordLongest} characters.`)
  for (const { pattern, words } of passwordRules)
    if (!matches(pattern, password)) faults.push(`${modelName(card)} takes an admin password with ${words} only.`)
  return faults
}
