/** The papers that a client gets, in the language that the job says. */
import type { PaperLanguage } from '../core/brief/brief'
import { germanPapers } from './de/papers'
import { englishPapers } from './en/papers'
import type { PaperWords } from './paper-words'

export const papersIn: Readonly<Record<PaperLanguage, PaperWords>> = { en: englishPapers, de: germanPapers }
