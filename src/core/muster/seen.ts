/** What a check expects and sees, where that is one of a few things. */
import { message } from '../message/message'

export const seen = {
  answers: message('seen-answers'),
  noAnswer: message('seen-no-answer'),
  stillAnswers: message('seen-still-answers'),
  left: message('seen-left'),
  open: message('seen-open'),
  shut: message('seen-shut'),
  accepted: message('seen-accepted'),
  refused: message('seen-refused'),
  right: message('seen-right'),
  told: message('seen-told'),
  notTold: message('seen-not-told'),
  notListed: message('seen-not-listed'),
  asAsked: message('seen-as-asked'),
  securedAsAsked: message('seen-secured-as-asked'),
  asTheirRolesSay: message('seen-as-roles-say'),
} as const
