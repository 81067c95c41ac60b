/** The sentence of a message in English. */
import { fromText, type Message } from '../../core/message/message'
import { sentenceIn, sentencesAlike } from '../sentence-in'
import { briefSentences } from './messages/brief'
import { kitSentences } from './messages/kit'
import { musterSentences } from './messages/muster'
import { planSentences } from './messages/plan'
import { reviewSentences } from './messages/review'
import { storeSentences } from './messages/store'
import { wireSentences } from './messages/wire'

export const sentences = {
  ...sentencesAlike,
  ...briefSentences,
  ...kitSentences,
  ...musterSentences,
  ...planSentences,
  ...reviewSentences,
  ...storeSentences,
  ...wireSentences,
}

export const sentence = (message: Message): string => sentenceIn(sentences, message)

/** Of what carries a message as text: an `Error`, an issue of Zod, a column of the database. */
export const sentenceOfText = (text: string): string => sentence(fromText(text))
