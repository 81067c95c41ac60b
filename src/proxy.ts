/**
 * Until there is a sign-in, only this laptop may ask, and only pages of ours: a foreign Host (a name that was made to
 * point here) or a foreign Origin (another site's page in the same browser) is refused.
 */
import { type NextRequest, NextResponse } from 'next/server'

const ownNames: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]'])

export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host') ?? ''
  const origin = request.headers.get('origin')
  const hostIsOurs = ownNames.has(host.replace(/:\d+$/, ''))
  const originIsOurs = origin === null || origin === `http://${host}`
  if (hostIsOurs && originIsOurs) return NextResponse.next()
  return new NextResponse('Air Muster answers this laptop alone. Open it at the address that npm run demo printed.\n', { status: 403 })
}
