/** HTTP Digest access authentication (RFC 7616), with SHA-256 and MD5, for units that ask for it. */
import { createHash, randomBytes } from 'node:crypto'
import type { Credentials } from '../../../core/secrets/credentials'

export interface Challenge {
  readonly scheme: 'basic' | 'digest'
  readonly fields: Readonly<Record<string, string>>
}

/** The challenges of a `WWW-Authenticate` header, in its order. */
export function challengesIn(header: string | string[] | undefined): Challenge[] {
  const headers = typeof header === 'string' ? [header] : (header ?? [])
  return headers.slice(0, 8).flatMap((text) => {
    const parts = text.slice(0, 2000).split(/(?:^|,)\s*(?=(?:Basic|Digest)\b)/i)
    return parts.flatMap((part): Challenge[] => {
      const scheme = /^(basic|digest)\b/i.exec(part)?.[1]?.toLowerCase()
      if (scheme !== 'basic' && scheme !== 'digest') return []
      const fields = [...part.matchAll(/([a-z-]{1,30})=(?:"((?:[^"\\]|\\.){0,500})"|([^\s,"]{1,200}))/gi)].map(
        ([, name = '', quoted, plain]) => [name.toLowerCase(), quoted?.replace(/\\(.)/g, '$1') ?? plain ?? ''],
      )
      return [{ scheme, fields: Object.fromEntries(fields) as Record<string, string> }]
    })
  })
}

const algorithms: Readonly<Record<string, string>> = { 'SHA-256': 'sha256', MD5: 'md5' }

/** The challenge that we can answer best: SHA-256 before MD5; undefined where there is none. */
export function bestDigest(challenges: readonly Challenge[]): Challenge | undefined {
  const digests = challenges.filter(({ scheme }) => scheme === 'digest')
  return Object.keys(algorithms)
    .map((name) => digests.find(({ fields }) => (fields.algorithm ?? 'MD5').toUpperCase() === name))
    .find((found) => found !== undefined)
}

/**
 * @param count   how many requests went with this nonce, from 1
 * @param cnonce  of ours; made where none is given
 * @returns       the value of an `Authorization` header
 */
export function digestAnswer(
  { fields }: Challenge,
  { user, password }: Credentials,
  request: { readonly method: string; readonly path: string; readonly count: number },
  cnonce = randomBytes(12).toString('hex'),
): string {
  const algorithm = (fields.algorithm ?? 'MD5').toUpperCase()
  const hash = (text: string): string =>
    createHash(algorithms[algorithm] ?? 'md5')
      .update(text)
      .digest('hex')
  const { realm = '', nonce = '', opaque } = fields
  const withQop = fields.qop?.split(',').some((each) => each.trim() === 'auth') ?? false
  const nc = request.count.toString(16).padStart(8, '0')
  const secret = hash(`${user}:${realm}:${password}`)
  const asked = hash(`${request.method}:${request.path}`)
  const response = hash(withQop ? `${secret}:${nonce}:${nc}:${cnonce}:auth:${asked}` : `${secret}:${nonce}:${asked}`)
  const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`
  return [
    `Digest username=${quoted(user)}`,
    `realm=${quoted(realm)}`,
    `nonce=${quoted(nonce)}`,
    `uri=${quoted(request.path)}`,
    `response="${response}"`,
    ...(fields.algorithm === undefined ? [] : [`algorithm=${algorithm}`]),
    ...(withQop ? [`cnonce="${cnonce}"`, 'qop=auth', `nc=${nc}`] : []),
    ...(opaque === undefined ? [] : [`opaque=${quoted(opaque)}`]),
  ].join(', ')
}
