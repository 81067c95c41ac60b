/** What every request passes: who may ask, the key that becomes a cookie, and what a page may load. */
import { randomBytes } from 'node:crypto'
import { type NextRequest, NextResponse } from 'next/server'
import { cookieName, isKey, keyParameter, refusal } from './app/server/guard'

// Uploads ask the guard themselves: whatever passes here is held in memory whole.
export const config = { matcher: ['/((?!api/upload/).*)'] }

export function proxy(request: NextRequest): Response {
  if (!isReadable(request.nextUrl.pathname))
    return new Response('There is a % in this address that stands for nothing.\n', {
      status: 400,
      headers: { 'content-type': 'text/plain; charset=utf-8' },
    })
  const shown = request.nextUrl.searchParams.get(keyParameter)
  if (shown !== null && isKey(shown) && refusal(withCookie(request, shown)) === undefined)
    return withKeyAsCookie(request, shown)
  const refused = refusal(request)
  if (refused) return refused
  // What is no page brings a policy of its own where it needs one, as drawings do.
  if (request.nextUrl.pathname.startsWith('/api/')) return NextResponse.next()
  const nonce = randomBytes(16).toString('base64')
  const policy = pagePolicy(nonce)
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('content-security-policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  return response
}

/** A % that no sign follows (RFC 3986, 2.1) would be a fault of our own to whoever makes the page. */
function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path)
    return true
  } catch {
    return false
  }
}

/** Scripts are our own and those that they load; pictures and workers may be made in the page. */
function pagePolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "connect-src 'self' blob: data:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
}

function withCookie(request: NextRequest, key: string): Request {
  const headers = new Headers(request.headers)
  headers.set('cookie', `${cookieName(request.headers.get('host') ?? '')}=${key}`)
  return new Request(request.url, { headers })
}

/**
 * The key leaves the address at once: addresses are kept in histories and shown over shoulders. By a page that goes on
 * by itself, not by a redirect: a strict cookie is not sent along with one that began elsewhere, in a file or a mail.
 */
function withKeyAsCookie(request: NextRequest, key: string): Response {
  const { pathname, searchParams } = request.nextUrl
  const rest = new URLSearchParams(searchParams)
  rest.delete(keyParameter)
  const query = rest.toString()
  const next = `${pathname}${query === '' ? '' : `?${query}`}`.replace(
    /[^\w/?=.%+-]/g,
    (other) => `&#${other.codePointAt(0)};`,
  )
  const page =
    `<!doctype html><title>Air Muster</title><meta http-equiv="refresh" content="0;url=${next}"><a ` +
    `href="${next}">Open Air Muster</a>`
  return new Response(page, {
    status: 200,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': "default-src 'none'",
      'set-cookie': `${cookieName(request.headers.get('host') ?? '')}=${key}; Path=/; HttpOnly; SameSite=Strict`,
      'cache-control': 'no-store',
    },
  })
}
