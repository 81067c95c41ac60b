/** JSON that may be none. @returns undefined where it is not; whoever asks parses what it is */
export function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
