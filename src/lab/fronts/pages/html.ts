/** HTML of a unit's pages: whatever stands in it is escaped. */

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

export const escaped = (text: string | number): string => String(text).replace(/[&<>"']/g, (sign) => signs[sign] ?? '')

/** @param body  of HTML */
export function document(title: string, body: string): string {
  return (
    '<!doctype html><html lang="en"><head><meta ' +
    `charset="utf-8"><title>${escaped(title)}</title></head><body>${body}</body></html>`
  )
}

interface Input {
  readonly name: string
  readonly label: string
  readonly value: string
  readonly type?: 'text' | 'password'
  readonly most?: number
}

export function input({ name, label, value, type = 'text', most }: Input): string {
  const bound = most === undefined ? '' : ` maxlength="${most}"`
  return (
    `<p><label>${escaped(label)} <input name="${name}" type="${type}" ` +
    `value="${escaped(value)}"${bound}></label></p>`
  )
}

export function tick(name: string, label: string, ticked: boolean): string {
  return (
    `<p><label><input name="${name}" type="checkbox" value="yes"${ticked ? ' checked' : ''}> ` +
    `${escaped(label)}</label></p>`
  )
}

type Choice = readonly [value: string, label: string]

export function select(name: string, label: string, choices: readonly Choice[], chosen: string): string {
  const options = choices.map(
    ([value, text]) =>
      `<option value="${escaped(value)}"${value === chosen ? ' selected' : ''}>${escaped(text)}</option>`,
  )
  return `<p><label>${escaped(label)} <select name="${name}">${options.join('')}</select></label></p>`
}

export function buttons(name: string, choices: readonly Choice[], chosen: string): string {
  return choices
    .map(
      ([value, text]) =>
        `<p><label><input name="${name}" type="radio" value="${value}"${value === chosen ? ' checked' : ''}> ` +
        `${escaped(text)}</label></p>`,
    )
    .join('')
}
