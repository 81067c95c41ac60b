/**
 * Who may ask. Until there is a sign-in: this laptop alone (a foreign Host is a name that was made to point here, a
 * foreign Origin another site's page), and whoever has the key of this start, since other users of the machine reach
 * the port as well. The printed address carries the key once; then a cookie does.
 */
import { timingSafeEqual } from 'node:crypto'

/** The address of this start; a developer who runs the pages by themselves has the usual ones. */
const ownNames: ReadonlySet<string> = new Set(
  process.env.AIR_MUSTER_ADDRESS ? [process.env.AIR_MUSTER_ADDRESS] : ['127.0.0.1', 'localhost', '[::1]'],
)

/** Name of the query parameter that carries the key of a start. */
export const keyParameter = 'key'

/** Cookies do not tell ports apart: each installation has an address and a name of its own. */
export function cookieName(host: string): string {
  return `air-muster-${/:(\d+)$/.exec(host)?.[1] ?? '80'}`
}

/** Asked of whoever starts them, so that the pages can be seen to be theirs; it tells nothing else. */
const openPaths: ReadonlySet<string> = new Set(['/api/health'])

/** @returns the answer to who may not ask; undefined for who may */
export function refusal(request: Request): Response | undefined {
  const host = request.headers.get('host') ?? ''
  const origin = request.headers.get('origin')
  const hostIsOurs = ownNames.has(host.replace(/:\d+$/, ''))
  const originIsOurs = origin === null || origin === `http://${host}`
  if (!hostIsOurs || !originIsOurs)
    return plain(403, 'Air Muster answers this laptop alone. Open it at the address that npm run demo printed.')
  if (openPaths.has(new URL(request.url).pathname) || hasKey(request, host)) return undefined
  return plain(
    401,
    'Air Muster does not know this browser. Open it at the whole address that its terminal printed, with the ' +
      'key at its end; npm run demo prints it again.',
  )
}

/** Is this the key of this start? */
export function isKey(given: string): boolean {
  const key = process.env.AIR_MUSTER_KEY
  // Without a key nobody is let in, but where a developer runs the pages by themselves.
  if (!key) return process.env.NODE_ENV !== 'production'
  const [a, b] = [Buffer.from(given), Buffer.from(key)]
  return a.length === b.length && timingSafeEqual(a, b)
}

function hasKey(request: Request, host: string): boolean {
  const name = cookieName(host)
  const cookie = (request.headers.get('cookie') ?? '').split(/;\s*/).find((each) => each.startsWith(`${name}=`))
  return isKey(cookie?.slice(name.length + 1) ?? '')
}

function plain(status: number, sentence: string): Response {
  return new Response(`${sentence}\n`, {
    status,
    headers: { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' },
  })
}
