// Two rules that no linter knows. Sentences for people stand in src/words: string literals of five words or more in
// core, runner, wire and store are for programs (SQL, commands of a system, markup) or for programmers, and few. Lines
// end at 120 columns, prose too.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import ts from 'typescript'

const mostLiterals = 40
const shortest = 5
const mostColumns = 120

const tracked = execFileSync('git', ['ls-files'], { encoding: 'utf8' }).split('\n').filter(Boolean)

/** Literals of so many words or more in a file, each with its line. */
function literalsOf(file) {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true)
  const found = []
  const look = (node) => {
    const text = textOf(node)
    if (text !== undefined && wordsIn(text) >= shortest) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart())
      found.push(`${file}:${line + 1}: ${text.trim().slice(0, 80).replaceAll('\n', ' ')}`)
    }
    ts.forEachChild(node, look)
  }
  look(source)
  return found
}

/** What a literal says, without what is put into it; undefined for what is none, or is tagged: a tag is a language. */
function textOf(node) {
  if (ts.isTaggedTemplateExpression(node.parent ?? node)) return undefined
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text
  if (!ts.isTemplateExpression(node)) return undefined
  return [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join(' ')
}

const wordsIn = (text) => text.split(/\s+/).filter((word) => /\p{L}/u.test(word)).length

const layers = /^src\/(core|runner|wire|store)\/.*\.tsx?$/
const literals = tracked.filter((file) => layers.test(file) && !file.includes('.test.')).flatMap(literalsOf)

/** What is written by programs, or by others, or is a table that no line can be broken in. */
const unbound =
  /\.(json|yaml|yang|sealed|svg|png|sql|lock|pem|xml|txt|csv|html)$|^(LICENSE|data\/|models\/|docs\/messages\.md$)/

function longLinesOf(file) {
  const inTable = (line) => file.endsWith('.md') && /^\s*(\||\{")/.test(line)
  return readFileSync(file, 'utf8')
    .split('\n')
    .flatMap((line, at) => ([...line].length > mostColumns && !inTable(line) ? [`${file}:${at + 1}`] : []))
}
const long = tracked.filter((file) => !unbound.test(file)).flatMap(longLinesOf)

if (process.argv.includes('--list')) process.stdout.write(`${[...literals, '', ...long].join('\n')}\n`)
process.stdout.write(`${literals.length} literals of ${shortest} words or more, ${long.length} lines too long\n`)
if (literals.length > mostLiterals || long.length > 0) {
  process.stderr.write('Run node scripts/check-words.mjs --list to see them.\n')
  process.exitCode = 1
}
