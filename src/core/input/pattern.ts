/**
 * Regular expressions that a kit card brings, in an engine that takes linear time whatever they are: a pattern such as
 * `^([a-z]+)+$` would keep the usual engine busy for ever over thirty letters.
 */

import { RE2JS } from 're2js'
import { z } from 'zod'
import { messageText } from '../message/message'

const longestPattern = 500

export const patternSchema = z
  .string()
  .max(longestPattern, messageText('pattern-too-long', { most: longestPattern }))
  .superRefine((text, context) => {
    try {
      RE2JS.compile(text)
    } catch (error) {
      const reason =
        error instanceof Error ? error.message.replace(/^error parsing regexp: /, '') : messageText('unknown-reason')
      context.addIssue({ code: 'custom', message: messageText('pattern-unfit', { text: text.slice(0, 60), reason }) })
    }
  })

const compiled = new Map<string, RE2JS>()
const mostCompiled = 500

function expressionOf(pattern: string): RE2JS {
  let expression = compiled.get(pattern)
  if (!expression) {
    if (compiled.size >= mostCompiled) compiled.clear()
    expression = RE2JS.compile(pattern)
    compiled.set(pattern, expression)
  }
  return expression
}

/** Does any part of the text match? @param pattern  one that `patternSchema` took */
export function matches(pattern: string, text: string): boolean {
  return expressionOf(pattern).matcher(text).find()
}

/** A match in many lines: where it stands, and its named groups as far as they took part. */
export interface Found {
  readonly start: number
  readonly end: number
  readonly groups: Readonly<Record<string, string>>
}

/** The first match; `^` and `$` are the ends of a line. */
export const findFirst = (pattern: string, text: string): Found | undefined => findSome(pattern, text, 1)[0]

/** All matches, in order; `^` and `$` are the ends of a line. */
export const findAll = (pattern: string, text: string): Found[] => findSome(pattern, text, Number.POSITIVE_INFINITY)

function findSome(pattern: string, text: string, most: number): Found[] {
  const expression = expressionOf(`(?m:${pattern})`)
  const matcher = expression.matcher(text)
  const names = Object.keys(expression.namedGroups())
  const found: Found[] = []
  while (found.length < most && matcher.find()) {
    const groups = names.flatMap((name): [string, string][] => {
      const value = matcher.group(name)
      return value === null || value === undefined ? [] : [[name, value]]
    })
    found.push({ start: matcher.start(), end: matcher.end(), groups: Object.fromEntries(groups) })
  }
  return found
}
