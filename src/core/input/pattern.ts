/**
 * Regular expressions that a kit card brings, in an engine that takes linear time whatever they are: a pattern such as
 * `^([a-z]+)+$` would keep the usual engine busy for ever over thirty letters.
 */
import { RE2JS } from 're2js'
import { z } from 'zod'

const longestPattern = 500

export const patternSchema = z
  .string()
  .max(longestPattern, `an expression has ${longestPattern} characters at the most`)
  .superRefine((text, context) => {
    try {
      RE2JS.compile(text)
    } catch (error) {
      const reason = error instanceof Error ? error.message.replace(/^error parsing regexp: /, '') : 'unknown reason'
      context.addIssue({ code: 'custom', message: `"${text.slice(0, 60)}" is not a regular expression: ${reason}` })
    }
  })

const compiled = new Map<string, RE2JS>()
const mostCompiled = 500

/** Does any part of the text match? @param pattern  one that `patternSchema` took */
export function matches(pattern: string, text: string): boolean {
  let expression = compiled.get(pattern)
  if (!expression) {
    if (compiled.size >= mostCompiled) compiled.clear()
    expression = RE2JS.compile(pattern)
    compiled.set(pattern, expression)
  }
  return expression.matcher(text).find()
}
