/** A sentence over several lines of code: each break of the line, with what indents the next, is one space. */
export function prose(parts: TemplateStringsArray, ...values: readonly (string | number)[]): string {
  return parts.map((part, at) => `${part.replace(/\n\s*/g, ' ')}${values[at] ?? ''}`).join('')
}
