/** A job file from a path: JSON, or YAML where somebody wrote it by hand. */

import { parseDocument } from 'yaml'
import { jobYamlBounds, parseJson, yamlFault } from '../core/input/bounded-text'
import { type JobDocument, largestJobFile, readJobDocument } from '../core/job/job-document'
import { sentence } from '../words/en/sentence'
import { CommandError, readText } from './command-error'

/** @throws CommandError naming the file, the place and the fault */
export function documentOf(path: string): JobDocument {
  const reading = readJobDocument(parsed(path, readText(path)))
  if (!reading.ok) throw new CommandError(2, reading.faults.map((fault) => `${path}: ${sentence(fault)}`).join('\n'))
  if (reading.document.secrets)
    throw new CommandError(
      2,
      `${path} brings sealed secrets: take it in on the Jobs page, where its passphrase can be typed.`,
    )
  return reading.document
}

function parsed(path: string, text: string): unknown {
  if (text.trimStart().startsWith('{')) {
    const json = parseJson(text, largestJobFile)
    if (json.ok) return json.value
    throw new CommandError(2, `${path}: ${sentence(json.reason)}.`)
  }
  const unfit = yamlFault(text, jobYamlBounds)
  if (unfit) throw new CommandError(2, `${path} line ${unfit.line}: ${sentence(unfit.reason)}.`)
  const document = parseDocument(text)
  const [fault] = document.errors
  if (fault)
    throw new CommandError(
      2,
      `${path} line ${fault.linePos?.[0].line ?? 1} is not YAML: ` +
        `${fault.message.split('\n')[0]?.replace(/ at line .*/, '') ?? ''}.`,
    )
  return document.toJS()
}
