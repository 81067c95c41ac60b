/**
 * The restconf dialect: RFC 8040 over HTTPS with a pinned certificate, changes as one YANG Patch (RFC 8072).
 */
import { z } from 'zod'
import type { Difference } from '../../../core/config/compare'
import type { UnitConfig } from '../../../core/config/unit-config'
import { entry } from '../../codec/resource-path'
import { toUnitConfig, type YangConfig, yangAirSchema, yangConfigSchema } from '../../codec/yang-data'
import {
  errorsIn,
  type YangEdit,
  yangDataType,
  yangPatch,
  yangPatchStatusSchema,
  yangPatchType,
} from '../../codec/yang-patch'
import type { Lane } from '../../host/host'
import { plainReason, WireError } from '../../wire-error'
import type { Credentials, Dialect, RadioOnAir } from '../dialect'
import { editsFor } from './edits'
import { type HttpsReply, HttpsSession, type PinCheck } from './https-session'

export interface RestconfSettings {
  readonly port: number
  readonly managementInterface: string
  readonly pin: PinCheck
}

const data = '/restconf/data'
const operations = '/restconf/operations'
const configReply = z.object({ 'ietf-restconf:data': yangConfigSchema })
const interfaceReply = z.object({ 'ietf-interfaces:interface': z.tuple([z.object({ 'phys-address': z.string() })]) })

export function restconf(lane: Lane, settings: RestconfSettings): Dialect {
  return new Restconf(lane, settings)
}

class Restconf implements Dialect {
  readonly #lane: Lane
  readonly #settings: RestconfSettings
  readonly #session: HttpsSession
  #authorization: string | undefined
  #patches = 0

  constructor(lane: Lane, settings: RestconfSettings) {
    this.#lane = lane
    this.#settings = settings
    this.#session = new HttpsSession(lane, settings.port, settings.pin)
  }

  async identify(): Promise<string> {
    const reply = await this.#session.ask({ method: 'GET', path: data, headers: { accept: yangDataType } })
    const challenge = String(reply.headers['www-authenticate'] ?? '')
    const realm = /^Basic realm="([^"]{1,80})"/.exec(challenge)?.[1]
    if (!realm) throw new WireError('garbled', `it does not say who it is (${reply.status})`)
    return realm
  }

  async signIn({ user, password }: Credentials): Promise<void> {
    this.#authorization = `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}`
    const path = `${data}/ietf-interfaces:interfaces/${entry('interface', this.#settings.managementInterface)}?content=nonconfig`
    const mac = (await this.#get(path, interfaceReply))['ietf-interfaces:interface'][0]['phys-address'].toLowerCase()
    if (mac !== this.#lane.mac) throw new WireError('wrong-unit', `${mac} answers where ${this.#lane.mac} should`)
  }

  async read(): Promise<UnitConfig> {
    return toUnitConfig(await this.#config(), this.#settings.managementInterface)
  }

  async backup(): Promise<string> {
    return JSON.stringify(await this.#config(), null, 2)
  }

  async write(differences: readonly Difference[], wanted: UnitConfig): Promise<void> {
    const edits = editsFor(differences, wanted, this.#settings.managementInterface)
    if (edits.length > 0) await this.#patch(edits)
  }

  async changePassword(user: string, password: string): Promise<void> {
    // RFC 7317: "$0$" marks clear text that the unit is to hash.
    await this.#patch([
      {
        operation: 'merge',
        target: `/ietf-system:system/authentication/${entry('user', user)}`,
        value: { 'ietf-system:user': [{ name: user, password: `$0$${password}` }] },
      },
    ])
  }

  async changesWait(): Promise<'none' | 'waiting' | 'applying'> {
    const state = (await this.#air())['air-muster-wireless:wireless-state']
    return state.applying ? 'applying' : state['changes-waiting'] ? 'waiting' : 'none'
  }

  async apply(): Promise<void> {
    await this.#operate('air-muster-wireless:apply')
  }

  /** What is applied is kept: this dialect's units have no separate saving. */
  async save(): Promise<void> {}

  async restart(): Promise<void> {
    await this.#operate('ietf-system:system-restart')
  }

  async air(): Promise<readonly RadioOnAir[]> {
    return (await this.#air())['air-muster-wireless:wireless-state'].radio.map((radio) => ({
      band: radio.band,
      condition: radio.condition,
      listensFor: radio['listens-for'] ?? 0,
      channel: radio.channel,
      width: radio.width,
      networks: radio.network,
    }))
  }

  close(): void {
    this.#session.close()
  }

  #air(): Promise<z.infer<typeof yangAirSchema>> {
    return this.#get(`${data}/air-muster-wireless:wireless-state`, yangAirSchema)
  }

  async #config(): Promise<YangConfig> {
    return (await this.#get(`${data}?content=config`, configReply))['ietf-restconf:data']
  }

  async #get<T>(path: string, schema: z.ZodType<T>): Promise<T> {
    const reply = await this.#session.ask({ method: 'GET', path, headers: this.#headers() })
    throwUnlessGood(reply)
    return parseReply(reply.text, schema, path)
  }

  async #patch(edits: readonly Omit<YangEdit, 'edit-id'>[]): Promise<void> {
    this.#patches += 1
    const body = JSON.stringify(yangPatch(`change-${this.#patches}`, edits))
    const reply = await this.#session.ask({
      method: 'PATCH',
      path: data,
      headers: { ...this.#headers(), 'content-type': yangPatchType },
      body,
    })
    throwUnlessGood(reply)
    const status = parseReply(reply.text, yangPatchStatusSchema, 'the answer to a change')
    if (!status['ietf-yang-patch:yang-patch-status'].ok)
      throw new WireError('rejected', reasonIn(reply) ?? 'the unit did not say that the change is done')
  }

  async #operate(operation: string): Promise<void> {
    throwUnlessGood(
      await this.#session.ask({ method: 'POST', path: `${operations}/${operation}`, headers: this.#headers() }),
    )
  }

  #headers(): Record<string, string> {
    return {
      accept: yangDataType,
      ...(this.#authorization === undefined ? {} : { authorization: this.#authorization }),
    }
  }
}

function throwUnlessGood(reply: HttpsReply): void {
  if (reply.status >= 200 && reply.status < 300) return
  if (reply.status === 401 || reply.status === 403) throw new WireError('refused', `sign-in refused (${reply.status})`)
  if (reply.status >= 400 && reply.status < 500)
    throw new WireError('rejected', reasonIn(reply) ?? `HTTP ${reply.status}`)
  throw new WireError('garbled', reasonIn(reply) ?? `HTTP ${reply.status}`)
}

/** The unit's own words, where the reply has any. */
function reasonIn(reply: HttpsReply): string | undefined {
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
    throw new WireError('garbled', `${what} is not JSON`, { cause })
  }
  const parsed = schema.safeParse(json)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  // The path alone: the value could be a secret.
  throw new WireError('garbled', plainReason(`${what}: ${issue?.path.join('/') ?? ''} ${issue?.code ?? ''}`))
}
