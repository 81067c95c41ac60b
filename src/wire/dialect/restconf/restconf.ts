/**
 * The restconf dialect: RFC 8040 over HTTPS with a pinned certificate, changes as one YANG Patch (RFC 8072).
 */

import { z } from 'zod'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { Evidence } from '../../../core/kit/recognise'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { entry } from '../../codec/resource-path'
import { parseXml } from '../../codec/xml'
import { errorsIn, yangDataType, yangPatch, yangPatchStatusSchema, yangPatchType } from '../../codec/yang-patch'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { type HttpQuestion, type HttpReply, HttpSession } from '../../http/http-session'
import type { PinCheck } from '../../trust/pin'
import type { Copies, Dialect, Firmware, RadioOnAir, Reading, Saving, Staging } from '../dialect'
import { radiosOnAir, wirelessState } from '../yang/air'
import { type Edit, editsFor } from '../yang/edits'
import { firmwareModule, sendImage } from '../yang/image'
import { asksDhcp, toObserved } from '../yang/read'
import { concernUsers, passwordEdit } from '../yang/users'

export interface RestconfSettings {
  readonly port: number
  readonly managementInterface: string
  readonly pin: PinCheck
  /** A slow unit is waited for three times as long. */
  readonly slow?: boolean
}

/** Resources below the root: RFC 8040, 3.3. */
const data = '/data'
/** RFC 8527: what the unit is, beside what it was told to be. */
const operational = '/ds/ietf-datastores:operational'
const operations = '/operations'
const usualRoot = '/restconf'
/** A path on the unit itself. */
const rootForm = /^(?:\/[A-Za-z0-9._~-]{1,64}){1,8}\/?$/
/** RFC 6415, 2. */
const xrdType = 'application/xrd+xml'
const longestReplyMs = 8000
const slowReplyMs = 24_000

const dataReply = z.object({ 'ietf-restconf:data': z.record(z.string(), z.unknown()) })
const interfaceReply = z.object({ 'ietf-interfaces:interface': z.tuple([z.object({ 'phys-address': z.string() })]) })
const changesReply = z.object({
  'air-muster-wireless:changes': z.object({
    standing: z.enum(['none', 'waiting', 'applying']),
    unsaved: z.boolean().default(false),
  }),
})
const airReply = z.object({ 'air-muster-wireless:wireless': wirelessState })

export function restconf(lane: Lane, settings: RestconfSettings): Dialect {
  return new Restconf(lane, settings)
}

class Restconf implements Dialect {
  readonly #lane: Lane
  readonly #settings: RestconfSettings
  readonly #session: HttpSession
  #authorization: string | undefined
  /** Who is signed in. */
  #user = ''
  #patches = 0
  #root: Promise<string> | undefined
  /** Entity-tag of the configuration as it was read or written last. */
  #tag: string | undefined

  constructor(lane: Lane, settings: RestconfSettings) {
    this.#lane = lane
    this.#settings = settings
    this.#session = new HttpSession(lane, {
      scheme: 'https',
      port: settings.port,
      pin: settings.pin,
      longestReplyMs: settings.slow ? slowReplyMs : longestReplyMs,
    })
  }

  async identify(): Promise<Evidence> {
    const reply = await this.#ask({ method: 'GET', path: data, headers: { accept: yangDataType } })
    const challenge = String(reply.headers['www-authenticate'] ?? '')
    const realm = /^Basic realm="([^"]{1,80})"/.exec(challenge)?.[1]
    if (!realm) throw new WireError('garbled', message('does-not-say-who', { status: reply.status }))
    return { realm: plainReason(realm) }
  }

  async signIn({ user, password }: Credentials): Promise<void> {
    this.#user = user
    this.#authorization = `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}`
    const path = `${operational}/ietf-interfaces:interfaces/${entry('interface', this.#settings.managementInterface)}`
    const mac = (await this.#get(path, interfaceReply))['ietf-interfaces:interface'][0]['phys-address'].toLowerCase()
    if (mac !== this.#lane.mac)
      throw new WireError('wrong-unit', message('other-mac-answers', { other: mac, mac: this.#lane.mac }))
  }

  async read(asked: Reading): Promise<ObservedConfig> {
    const configured = asked === 'configured' ? await this.#configured() : undefined
    // What DHCP gave is state; clock and firmware are asked for only where what is in effect is.
    const needsState = configured === undefined || asksDhcp(configured, this.#settings.managementInterface)
    const state = needsState ? (await this.#get(operational, dataReply))['ietf-restconf:data'] : undefined
    const { managementInterface } = this.#settings
    return toObserved({
      configured,
      operational: state,
      asked,
      managementInterface,
      admin: this.#user,
      at: Date.now(),
    })
  }

  readonly copies: Copies = { backup: async () => JSON.stringify(await this.#configured(), null, 2) }

  async write(differences: readonly Difference[], desired: Config<Clear>): Promise<void> {
    const present = concernUsers(differences) ? await this.#configured() : undefined
    const { managementInterface } = this.#settings
    const edits = editsFor(differences, desired, { managementInterface, admin: this.#user, present })
    if (edits.length > 0) await this.#patch(edits)
  }

  async changePassword(user: string, password: string): Promise<void> {
    await this.#patch([passwordEdit(user, password)])
  }

  async #changes() {
    const path = `${operational}/air-muster-wireless:changes`
    return (await this.#get(path, changesReply))['air-muster-wireless:changes']
  }

  readonly staging: Staging = {
    standing: async () => (await this.#changes()).standing,
    apply: () => this.#operate('air-muster-wireless:apply'),
    /** RFC 8040, 3.4.1.2: the entity-tag of the datastore. */
    revision: async () => {
      const reply = await this.#ask({ method: 'HEAD', path: `${data}?content=config`, headers: this.#headers() })
      throwUnlessGood(reply)
      return tagOf(reply)
    },
  }

  readonly saving: Saving = {
    isSaved: async () => !(await this.#changes()).unsaved,
    save: async () => {
      await this.#operate('air-muster-wireless:save')
      return !(await this.#changes()).unsaved
    },
  }

  async restart(): Promise<void> {
    await this.#operate('ietf-system:system-restart')
  }

  readonly firmware: Firmware = {
    install: (image) =>
      sendImage(image, (operation, input) =>
        this.#operate(`${firmwareModule}:${operation}`, { [`${firmwareModule}:input`]: input }),
      ),
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const reply = await this.#get(`${operational}/air-muster-wireless:wireless`, airReply)
    return radiosOnAir(reply['air-muster-wireless:wireless'])
  }

  close(): void {
    this.#session.close()
  }

  async #configured(): Promise<Record<string, unknown>> {
    const path = `${data}?content=config`
    const reply = await this.#ask({ method: 'GET', path, headers: this.#headers() })
    throwUnlessGood(reply)
    this.#tag = tagOf(reply)
    return parseReply(reply.text, dataReply, path)['ietf-restconf:data']
  }

  /** Asks below the root of its RESTCONF. */
  async #ask(question: HttpQuestion): Promise<HttpReply> {
    this.#root ??= rootOf(this.#session)
    return this.#session.ask({ ...question, path: `${await this.#root}${question.path}` })
  }

  async #get<T>(path: string, schema: z.ZodType<T>): Promise<T> {
    const reply = await this.#ask({ method: 'GET', path, headers: this.#headers() })
    throwUnlessGood(reply)
    return parseReply(reply.text, schema, path)
  }

  async #patch(edits: readonly Edit[]): Promise<void> {
    this.#patches += 1
    const body = JSON.stringify(yangPatch(`change-${this.#patches}`, edits))
    // RFC 8040, 3.4.1.2: what somebody else has changed since it was read is not written over.
    const unchanged = this.#tag === undefined ? {} : { 'if-match': this.#tag }
    const headers = { ...this.#headers(), 'content-type': yangPatchType, ...unchanged }
    const reply = await this.#ask({ method: 'PATCH', path: data, headers, body })
    this.#tag = tagOf(reply)
    throwUnlessGood(reply)
    const status = parseReply(reply.text, yangPatchStatusSchema, 'yang-patch-status')
    if (!status['ietf-yang-patch:yang-patch-status'].ok)
      throw new WireError('rejected', reasonIn(reply) ?? message('change-not-confirmed'))
  }

  /** @param input  RFC 8040, 3.6.1: what the operation is given, where it is given something */
  async #operate(operation: string, input?: Readonly<Record<string, unknown>>): Promise<void> {
    const path = `${operations}/${operation}`
    const given = input && { body: JSON.stringify(input) }
    const headers = { ...this.#headers(), ...(given && { 'content-type': yangDataType }) }
    throwUnlessGood(await this.#ask({ method: 'POST', path, headers, ...given }))
  }

  #headers(): Record<string, string> {
    return {
      accept: yangDataType,
      ...(this.#authorization === undefined ? {} : { authorization: this.#authorization }),
    }
  }
}

/** RFC 8040, 3.1: the unit tells where its RESTCONF is; one that does not has it where most do. */
async function rootOf(session: HttpSession): Promise<string> {
  const reply = await session.ask({ method: 'GET', path: '/.well-known/host-meta', headers: { accept: xrdType } })
  if (reply.status !== 200) return usualRoot
  try {
    const metadata = await parseXml(reply.text)
    const link = metadata.children.find(({ name, attributes: { rel } }) => name === 'Link' && rel === 'restconf')
    const href = link?.attributes.href ?? usualRoot
    return rootForm.test(href) ? href.replace(/\/$/, '') : usualRoot
  } catch (error) {
    // A page for people, as small web servers answer with to whatever they do not know.
    if (error instanceof WireError && error.kind === 'garbled') return usualRoot
    throw error
  }
}

/** RFC 8040, 3.4.1.2 */
function tagOf({ headers: { etag } }: HttpReply): string | undefined {
  return typeof etag === 'string' && etag.length <= 128 ? etag : undefined
}

function throwUnlessGood(reply: HttpReply): void {
  if (reply.status >= 200 && reply.status < 300) return
  if (reply.status === 412) throw new WireError('overtaken', message('changed-since-read'))
  if (reply.status === 401 || reply.status === 403) throw new WireError('refused', `sign-in refused (${reply.status})`)
  if (reply.status >= 400 && reply.status < 500)
    throw new WireError('rejected', reasonIn(reply) ?? `HTTP ${reply.status}`)
  throw new WireError('garbled', reasonIn(reply) ?? `HTTP ${reply.status}`)
}

/** The unit's own words, where the reply has any. */
function reasonIn(reply: HttpReply): string | undefined {
  try {
    const [first] = errorsIn(JSON.parse(reply.text))
    return (
      first &&
      plainReason(
        `${first['error-message'] ?? first['error-tag']}${first['error-path'] ? ` (${first['error-path']})` : ''}`,
      )
    )
  } catch {
    return undefined
  }
}

function parseReply<T>(text: string, schema: z.ZodType<T>, what: string): T {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (cause) {
    throw new WireError('garbled', message('answer-not-json', { what }), { cause })
  }
  const parsed = schema.safeParse(json)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  // The path alone: the value could be a secret.
  throw new WireError('garbled', plainReason(`${what}: ${issue?.path.join('/') ?? ''} ${issue?.code ?? ''}`))
}
