/** Sends a file to the server as a stream of its bytes: nothing is copied, encoded or kept whole on the way. */

import { failed, type Outcome } from '../../core/job/outcome'
import { fromText, message } from '../../core/message/message'

/** @param path  below `/api/upload/` @param headers  text in any language */
export async function sendFile<T>(
  path: string,
  body: Blob,
  headers: Readonly<Record<string, string>> = {},
): Promise<Outcome<T>> {
  const encoded = Object.fromEntries(
    Object.entries(headers).map(([name, text]) => [name, name === 'content-type' ? text : encodeURIComponent(text)]),
  )
  const reply = await fetch(`/api/upload/${path}`, { method: 'POST', body, headers: encoded })
  if (reply.headers.get('content-type')?.startsWith('application/json')) return (await reply.json()) as Outcome<T>
  const text = (await reply.text()).trim()
  return failed(text === '' ? message('pages-do-not-answer') : fromText(text))
}
