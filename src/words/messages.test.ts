import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { type Code, message } from '../core/message/message'
import { table } from '../core/message/table'
import type { Held, HeldCode } from '../core/muster/held'
import { messagesPage } from './messages-page'
import { papersIn } from './papers'
import { typicalHeld, typicalMessage } from './typical'

const codes = Object.keys(table) as Code[]
const heldCodes = Object.keys(typicalHeld) as HeldCode[]
const languages = Object.entries(papersIn)

/** What a sentence never holds: a value that nobody put into words, or a message that was not made into one. */
const unfinished = /undefined|null|NaN|\[object|=>|\$\{|^\s*$| {2}/

test.each(languages)('every code has its sentence, whole: %s', (_language, words) => {
  const said = codes.map((code) => [code, words.sentence(typicalMessage(code))] as const)
  expect(said.filter(([, text]) => unfinished.test(text))).toEqual([])
  expect(said).toHaveLength(codes.length)
})

test.each(languages)('every reason to hold a unit has its sentence, whole: %s', (_language, words) => {
  const said = heldCodes.map((code) => words.whyHeld({ code, params: typicalHeld[code] as Held['params'] }))
  expect(said.filter((text) => unfinished.test(text))).toEqual([])
})

test('no parameter is dropped on the way from one language to the other', () => {
  const named = (text: string): string[] => [...new Set(text.match(/‹\w+›/g))].sort()
  const [english, german] = [papersIn.en, papersIn.de]
  const apart = codes
    .map(typicalMessage)
    .map((each) => ({ code: each.code, en: named(english.sentence(each)), de: named(german.sentence(each)) }))
    .filter(({ en, de }) => en.join() !== de.join())
  expect(apart).toEqual([])
})

test('a value that is a word of English is one of German on German papers', () => {
  const say = (value: string): string => papersIn.de.sentence(message('hands-set', { setting: 'unit.country', value }))
  expect(say('sun at 03:30')).toBe('Land auf Sonntag, 03:30 setzen.')
  expect(say('mon, tue from 07:00 to 18:00')).toBe('Land auf Montag, Dienstag von 07:00 bis 18:00 setzen.')
})

test('docs/messages.md is made from the table', () => {
  expect(readFileSync('docs/messages.md', 'utf8')).toBe(messagesPage())
})
