/** The engine that a card names. */
import { describesElements, type PagesDialect } from '../../../core/kit/pages-dialect'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { BrowserEngine } from './browser-engine'
import type { PageEngine } from './engine'
import { type EngineSettings, FormsEngine } from './forms-engine'

const engines: { readonly [K in PagesDialect['engine']]: (settings: EngineSettings) => PageEngine } = {
  forms: (settings) => new FormsEngine(settings),
  browser: (settings) => new BrowserEngine(settings),
}

export function openEngine(dialect: PagesDialect, lane: Lane, pin: PinCheck, longestReplyMs: number): PageEngine {
  const { engine, signIn } = dialect
  return engines[engine]({ lane, pin, by: signIn.by, longestReplyMs, describes: describesElements(dialect) })
}
