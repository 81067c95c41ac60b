/** What the docs promise about the project itself. */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const pages = [
  'README.md',
  ...readdirSync(join(root, 'docs')).flatMap((name) => (name.endsWith('.md') ? `docs/${name}` : [])),
]

it('every file of ours that a page names is there', () => {
  const missing = pages.flatMap((page) =>
    [...readFileSync(join(root, page), 'utf8').matchAll(/`((?:src|tests|scripts|data|models|docs)\/[^`*{ ]+)`/g)]
      .map(([, path = '']) => path)
      .filter((path) => !existsSync(join(root, path)))
      .map((path) => `${page}: ${path}`),
  )
  expect(missing).toEqual([])
})

it('a line of prose ends at 120 columns', () => {
  const long = pages.flatMap((page) => {
    let isCode = false
    return readFileSync(join(root, page), 'utf8')
      .split('\n')
      .flatMap((line, at) => {
        if (line.trimStart().startsWith('```')) isCode = !isCode
        const isRow = line.trimStart().startsWith('|')
        return isCode || isRow || [...line].length <= 120 ? [] : [`${page}:${at + 1}`]
      })
  })
  expect(long).toEqual([])
})
