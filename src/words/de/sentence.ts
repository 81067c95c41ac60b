/** The sentence of a message in German. */
import type { Message } from '../../core/message/message'
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
