/** Words after a command, as what they stand for. Each throws a Refusal where a word is none of its kind. */
import { Refusal } from '../../device/refusal'

export function misunderstood(): never {
  throw new Refusal('malformed-message', 'not understood')
}

export const need = (word: string | undefined): string => word ?? misunderstood()
export const list = (text: string): string[] => text.split(' ').filter(Boolean)
export const numberOr = (word: string | undefined, none: string): number | null => (word === none ? null : whole(word))

export function whole(word: string | undefined): number {
  return /^\d{1,6}$/.test(need(word)) ? Number(word) : misunderstood()
}

export function either(word: string | undefined, yes: string, no: string): boolean {
  if (word !== yes && word !== no) misunderstood()
  return word === yes
}
