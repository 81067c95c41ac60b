/** The sentence of a message in German. */
import type { Message } from '../../core/message/message'
import { sentenceIn } from '../sentence-in'
import { briefSentences } from './messages/brief'
import { kitSentences } from './messages/kit'
import { musterSentences } from './messages/muster'
import { planSentences } from './messages/plan'
import { reviewSentences } from './messages/review'
import { storeSentences } from './messages/store'
import { wireSentences } from './messages/wire'

export const sentences = {
  'as-told': ({ text }: { text: string }) => text,
  together: ({ sentences: each }: { sentences: readonly string[] }) => each.join(' '),
  ...briefSentences,
  ...kitSentences,
  ...musterSentences,
  ...planSentences,
  ...reviewSentences,
  ...storeSentences,
  ...wireSentences,
}

export const sentence = (message: Message): string => sentenceIn(sentences, message)
