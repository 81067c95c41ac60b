/** Sends a file to the server as a stream of its bytes: nothing is copied, encoded or kept whole on the way. */
import type { Outcome } from '../../core/job/outcome'

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
  return {
    ok: false,
    sentence: (await reply.text()).trim() || 'Air Muster does not answer. Nothing was changed; try again when it runs.',
  }
}
