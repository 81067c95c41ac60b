/**
 * What a form sends, as a browser would send it (HTML Living Standard, 4.10.22.4): the fields as they stand, with what
 * is put into some of them, and the button that is pressed.
 */

import { randomUUID } from 'node:crypto'
import type { Cheerio, CheerioAPI } from 'cheerio/slim'
import type { AnyNode, Element } from 'domhandler'
import type { At } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import { type Entry, placeWords, selectorOf } from './engine'
import { parsed } from './parsed'

export interface Submission {
  readonly method: 'GET' | 'POST'
  /** As it stands on the page; empty for the page itself. */
  readonly action: string
  /** Undefined where it goes into the address. */
  readonly body: { readonly type: string; readonly text: string } | undefined
  /** What goes into the address. */
  readonly query: string | undefined
}

/** @throws WireError garbled where the page has no such field, button or form */
export async function submissionOf(html: string, entries: readonly Entry[], press: At): Promise<Submission> {
  const $ = await parsed(html)
  const button = one($, press, 'button')
  const form = formOf($, button)
  for (const entry of entries) put($, entry)
  const pairs = entryList($, form, button)
  const attribute = (name: string): string => button.attr(`form${name}`) ?? form.attr(name) ?? ''
  const action = attribute('action')
  if (attribute('method').toLowerCase() !== 'post')
    return { method: 'GET', action, body: undefined, query: new URLSearchParams(pairs).toString() }
  const body =
    attribute('enctype').toLowerCase() === 'multipart/form-data'
      ? multipart(pairs)
      : { type: 'application/x-www-form-urlencoded', text: new URLSearchParams(pairs).toString() }
  return { method: 'POST', action, body, query: undefined }
}

function one($: CheerioAPI, at: At, what: string): Cheerio<AnyNode> {
  const found = $(selectorOf(at)).first()
  if (found.length === 0) throw new WireError('garbled', message('not-on-page', { what, place: placeWords(at) }))
  return found
}

function formOf($: CheerioAPI, button: Cheerio<AnyNode>): Cheerio<AnyNode> {
  const named = button.attr('form')
  const form =
    named === undefined ? button.closest('form') : $('form').filter((_, each) => $(each).attr('id') === named)
  if (form.length === 0) throw new WireError('garbled', message('button-without-form'))
  return form.first()
}

function put($: CheerioAPI, entry: Entry): void {
  const field = one($, entry.at, 'field')
  if (entry.kind === 'tick') {
    if (entry.ticked) field.attr('checked', '')
    else field.removeAttr('checked')
    return
  }
  if (entry.kind === 'choose')
    throw new WireError('garbled', message('forms-cannot-open', { place: placeWords(entry.at) }))
  const name = (field.get(0) as Element).name
  if (name === 'select') {
    field.find('option').each((_, option) => {
      const value = $(option).attr('value') ?? $(option).text().trim().replace(/\s+/g, ' ')
      if (value === entry.text) $(option).attr('selected', '')
      else $(option).removeAttr('selected')
    })
  } else if (field.attr('type')?.toLowerCase() === 'radio') {
    $(selectorOf(entry.at)).each((_, each) => {
      if (($(each).attr('value') ?? 'on') === entry.text) $(each).attr('checked', '')
      else $(each).removeAttr('checked')
    })
  } else if (name === 'textarea') field.text(entry.text)
  else field.attr('value', entry.text)
}

function entryList($: CheerioAPI, form: Cheerio<AnyNode>, button: Cheerio<AnyNode>): [string, string][] {
  const id = form.attr('id')
  const apart =
    id === undefined
      ? []
      : $('[form]')
          .filter((_, each) => $(each).attr('form') === id)
          .toArray()
  const controls = [...form.find('input, select, textarea, button').toArray(), ...apart]
  return [...new Set(controls)].flatMap((control): [string, string][] => {
    const field = $(control)
    const { name = '', disabled, type = '' } = (control as Element).attribs
    if (name === '' || disabled !== undefined || field.closest('fieldset[disabled]').length > 0) return []
    if ((control as Element).name === 'select')
      return chosenOf($, field).map((value): [string, string] => [name, value])
    if ((control as Element).name === 'textarea') return [[name, field.text()]]
    const kind = (control as Element).name === 'button' ? type.toLowerCase() || 'submit' : type.toLowerCase()
    if (['submit', 'image', 'reset', 'button'].includes(kind))
      return control === button.get(0) ? [[name, field.attr('value') ?? '']] : []
    if (kind === 'checkbox' || kind === 'radio')
      return field.attr('checked') === undefined ? [] : [[name, field.attr('value') ?? 'on']]
    return [[name, field.attr('value') ?? '']]
  })
}

function chosenOf($: CheerioAPI, select: Cheerio<AnyNode>): string[] {
  const options = select.find('option').toArray()
  const chosen = options.filter((option) => $(option).attr('selected') !== undefined)
  const several = select.attr('multiple') !== undefined
  const shown = several ? chosen : [chosen.at(-1) ?? options[0]].filter((each) => each !== undefined)
  return shown
    .filter((option) => $(option).attr('disabled') === undefined)
    .map((option) => $(option).attr('value') ?? $(option).text().trim().replace(/\s+/g, ' '))
}

/** RFC 7578. */
function multipart(pairs: readonly [string, string][]): { type: string; text: string } {
  const boundary = `form-${randomUUID()}`
  const quoted = (text: string): string => text.replace(/["\r\n]/g, encodeURIComponent)
  const parts = pairs.map(
    ([name, value]) => `--${boundary}\r\ncontent-disposition: form-data; name="${quoted(name)}"\r\n\r\n${value}\r\n`,
  )
  return { type: `multipart/form-data; boundary=${boundary}`, text: `${parts.join('')}--${boundary}--\r\n` }
}
