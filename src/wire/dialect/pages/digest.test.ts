import { expect, it } from 'vitest'
import { bestDigest, challengesIn, digestAnswer } from './digest'

const common =
  'realm="http-auth@example.org", qop="auth, auth-int", ' +
  'nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", ' +
  'opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"'
const cnonce = 'f2/wE4q74E6zIJEtWaHKaf5wv/H5QzzpXusqGemxURZJ'
const login = { user: 'Mufasa', password: 'Circle of Life' }
const request = { method: 'GET', path: '/dir/index.html', count: 1 }

it('answers as the example of RFC 7616, 3.9.1 does, the stronger hash first', () => {
  const [md5, sha] = [`Digest ${common}, algorithm=MD5`, `Digest ${common}, algorithm=SHA-256`]
  const best = bestDigest(challengesIn([md5, sha]))
  expect(best?.fields.algorithm).toBe('SHA-256')
  if (!best) return
  expect(digestAnswer(best, login, request, cnonce)).toContain(
    'response="753927fa0e85d155564e2e272a28d1802ca10daf4496794697cf8db5856cb6c1"',
  )
  const [only] = challengesIn(md5)
  if (!only) throw new Error('no challenge')
  const answer = digestAnswer(only, login, request, cnonce)
  expect(answer).toContain('response="8ca523f5e9506fed4657c9700eebdbec"')
  expect(answer).toContain('nc=00000001')
})

it('reads several challenges in one header, and passes over what it does not know', () => {
  const header = `Basic realm="a, b", Digest realm="x", nonce="n", algorithm=SHA-512, Digest realm="y", nonce="n"`
  const found = challengesIn(header)
  expect(found.map(({ scheme, fields }) => [scheme, fields.realm])).toEqual([
    ['basic', 'a, b'],
    ['digest', 'x'],
    ['digest', 'y'],
  ])
  expect(bestDigest(found)?.fields.realm).toBe('y')
  expect(bestDigest(challengesIn(undefined))).toBeUndefined()
})
