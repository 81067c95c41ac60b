/**
 * The netconf dialect (RFC 6241): each change is written to the candidate, validated and committed as one. A move of
 * its address is a confirmed commit (RFC 6241, 8.4): it takes itself back unless it is confirmed from the new one.
 */

import { createHash } from 'node:crypto'
import { z } from 'zod'
import { settingOf } from '../../../core/catalogue/catalogue'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { Evidence } from '../../../core/kit/recognise'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { childOf, type Element, xmlText } from '../../codec/xml'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { changedByAnother } from '../../netconf/config-change'
import { NetconfSession, RpcRejection } from '../../netconf/session'
import { bannerOf } from '../../ssh/ssh-client'
import type { PinCheck } from '../../trust/pin'
import type { ConfirmedMove, Copies, Dialect, Firmware, RadioOnAir, Reading, Saving } from '../dialect'
import type { TreeController } from '../managed/controller'
import { radiosOnAir, wirelessState } from '../yang/air'
import { type Edit, editsFor } from '../yang/edits'
import { firmwareModule, sendImage } from '../yang/image'
import { asksDhcp, toObserved } from '../yang/read'
import { concernUsers, passwordEdit } from '../yang/users'
import { dataOf, dataXml, editsXml } from './data-xml'
import { namespaces } from './schema'

type NetconfCard = DirectCard & { readonly dialect: { readonly kind: 'netconf' } }

/** Seconds in which a move must be confirmed: as long as the longest way back takes. */
const confirmWithin = 600

/** More than that nobody reads. */
const mostOthers = 8

const interfaces = z.object({
  'ietf-interfaces:interfaces': z.object({
    interface: z.array(z.object({ name: z.string(), 'phys-address': z.string().optional() })).max(200),
  }),
})

export function netconf(lane: Lane, card: NetconfCard, pin: PinCheck): Dialect {
  return new Netconf(lane, card, pin)
}

/** A session with a controller, and all that it keeps of the access points that it manages. */
export function controllerOver(lane: Lane, card: NetconfCard, pin: PinCheck): TreeController {
  return new Netconf(lane, card, pin)
}

class Netconf implements TreeController {
  readonly #lane: Lane
  readonly #card: NetconfCard
  readonly #pin: PinCheck
  #session: NetconfSession | undefined
  /** Who is signed in. */
  #user = ''
  #password = ''
  readonly #others = new Set<string>()
  /** Whether this session has looked for a move that waits to be confirmed. */
  #looked = false

  constructor(lane: Lane, card: NetconfCard, pin: PinCheck) {
    this.#lane = lane
    this.#card = card
    this.#pin = pin
  }

  async identify(): Promise<Evidence> {
    return { banner: await bannerOf(this.#lane, this.#card.factory.port) }
  }

  async signIn(login: Credentials): Promise<void> {
    this.close()
    this.#user = login.user
    this.#password = login.password
    this.#looked = false
    this.#session = await NetconfSession.open(this.#lane, this.#card.factory.port, login, this.#pin)
    await this.#listen(this.#session)
    const { managementInterface, showsMac } = this.#card.dialect
    // Where it does not tell, the lane alone says that it is this one.
    if (showsMac === 'no') return
    const told = interfaces.safeParse(await this.#state(`<interfaces xmlns="${namespaces['ietf-interfaces']}"/>`))
    const wired = told.data?.['ietf-interfaces:interfaces'].interface.find(({ name }) => name === managementInterface)
    const mac = wired?.['phys-address']?.toLowerCase()
    if (mac === undefined)
      throw new WireError('garbled', message('interface-without-mac', { name: managementInterface }))
    if (mac !== this.#lane.mac)
      throw new WireError('wrong-unit', message('other-mac-answers', { other: mac, mac: this.#lane.mac }))
  }

  /** Hears who else changes it, where it tells. */
  async #listen(session: NetconfSession): Promise<void> {
    try {
      await session.subscribe((event) => {
        const who = changedByAnother(event, session.id)
        if (who !== undefined && this.#others.size < mostOthers) this.#others.add(who)
      })
    } catch (error) {
      // One that offers it and does not do it is set all the same.
      if (!(error instanceof RpcRejection)) throw error
    }
  }

  othersWhoChanged(): readonly string[] {
    const others = [...this.#others]
    this.#others.clear()
    return others
  }

  configured(mac: string): Promise<Record<string, unknown>> {
    return this.#config('running', accessPoint(mac))
  }

  state(mac: string): Promise<Record<string, unknown>> {
    return this.#state(accessPoint(mac))
  }

  change(edits: readonly Edit[]): Promise<void> {
    return this.#change(edits, 'for-good')
  }

  async read(asked: Reading): Promise<ObservedConfig> {
    const { managementInterface } = this.#card.dialect
    const configured = asked === 'configured' ? await this.#config('running') : undefined
    const needsState = configured === undefined || asksDhcp(configured, managementInterface)
    const operational = needsState ? await this.#state() : undefined
    const admin = this.#user
    const observed = toObserved({ configured, operational, asked, managementInterface, admin, at: Date.now() })
    // Networks of a controller are those of the access points that it manages.
    return this.#card.role === 'controller' ? { ...observed, networks: {}, radios: {} } : observed
  }

  readonly copies: Copies = {
    backup: async () => {
      return JSON.stringify(await this.#config('running'), null, 2)
    },
  }

  async write(differences: readonly Difference[], desired: Config<Clear>): Promise<void> {
    const { managementInterface } = this.#card.dialect
    const present = concernUsers(differences) ? await this.#config('running') : undefined
    const edits = editsFor(differences, desired, { managementInterface, admin: this.#user, present })
    const moves = differences.some((each) => each.kind === 'value' && settingOf(each.id).step === 'address')
    if (edits.length > 0) await this.#change(edits, moves ? 'until-confirmed' : 'for-good')
  }

  async changePassword(user: string, password: string): Promise<void> {
    await this.#change([passwordEdit(user, password)], 'for-good')
    if (user === this.#user) this.#password = password
  }

  /**
   * All of it or none, where it has a candidate or takes back what it cannot do whole (RFC 6241, 8.5); on a running
   * configuration without that a part may stand, and is read.
   */
  async #change(edits: readonly Edit[], stands: 'for-good' | 'until-confirmed'): Promise<void> {
    const session = this.#open
    const target = session.can('candidate:1.0') ? 'candidate' : 'running'
    // A muster that ended in the middle may have left a move that still waits: it was found where it moved to, and
    // nothing else is committed before that is confirmed.
    if (!this.#looked) await this.#confirm()
    this.#looked = true
    await session.rpc(`<lock><target><${target}/></target></lock>`)
    try {
      // RFC 6241, 7.2: checked as it is written, and again by the commit. An operation of its own that checks it leaves
      // some servers with a candidate that they do not commit any more.
      const tested = session.can('validate:1.1') ? '<test-option>test-then-set</test-option>' : ''
      const whole = session.can('rollback-on-error:1.0') ? '<error-option>rollback-on-error</error-option>' : ''
      const config = `<config>${editsXml(edits)}</config>`
      await session.rpc(`<edit-config><target><${target}/></target>${tested}${whole}${config}</edit-config>`)
      if (target === 'candidate')
        await session.rpc(stands === 'until-confirmed' ? this.#confirmedCommit() : '<commit/>')
    } catch (error) {
      if (error instanceof RpcRejection && target === 'candidate')
        await session.rpc('<discard-changes/>').catch(() => undefined)
      throw error
    } finally {
      await session.rpc(`<unlock><target><${target}/></target></unlock>`).catch(() => undefined)
    }
  }

  /**
   * RFC 6241, 8.4.5.1: it outlives the session by a word that is the same after a crash, and that nobody knows who does
   * not know the password of this session.
   */
  #confirmedCommit(): string {
    if (!this.#open.can('confirmed-commit:1.1')) return '<commit/>'
    const within = `<confirm-timeout>${confirmWithin}</confirm-timeout>`
    return `<commit><confirmed/>${within}<persist>${this.#word}</persist></commit>`
  }

  get #word(): string {
    return createHash('sha256').update(`move ${this.#lane.mac} ${this.#password}`).digest('hex').slice(0, 16)
  }

  readonly confirmedMove: ConfirmedMove = { confirm: () => this.#confirm() }

  async #confirm(): Promise<void> {
    if (!this.#open.can('confirmed-commit:1.1')) return
    try {
      await this.#open.rpc(`<commit><persist-id>${this.#word}</persist-id></commit>`)
    } catch (error) {
      // Nothing waits for it: it was confirmed before, or taken back, and what it is now is read.
      if (!(error instanceof RpcRejection)) throw error
    }
  }

  /** Each commit takes effect at once; with a startup configuration of its own (RFC 6241, 8.7) it is saved apart. */
  readonly saving: Saving = {
    isSaved: async () => {
      if (!this.#open.can('startup:1.0')) return true
      const [running, startup] = [await this.#config('running'), await this.#config('startup')]
      return JSON.stringify(running) === JSON.stringify(startup)
    },
    save: async () => {
      if (this.#open.can('startup:1.0'))
        await this.#open.rpc('<copy-config><target><startup/></target><source><running/></source></copy-config>')
      return this.saving.isSaved()
    },
  }

  async restart(): Promise<void> {
    await this.#open.rpc(`<system-restart xmlns="${namespaces['ietf-system']}"/>`).catch((error: unknown) => {
      // It may be gone before the answer is here.
      if (!(error instanceof WireError && error.kind === 'unreachable')) throw error
    })
  }

  readonly firmware: Firmware = {
    install: (image) =>
      sendImage(image, async (operation, input) => {
        await this.#open.rpc(dataXml(`${firmwareModule}:${operation}`, input, ''))
      }),
  }

  async air(): Promise<readonly RadioOnAir[]> {
    if (this.#card.radios.length === 0) return []
    const state = await this.#state(`<wireless xmlns="${namespaces['air-muster-wireless']}"/>`)
    const parsed = wirelessState.safeParse(state['air-muster-wireless:wireless'])
    if (!parsed.success) throw new WireError('garbled', message('radios-not-shown'))
    return radiosOnAir(parsed.data)
  }

  close(): void {
    this.#session?.close()
    this.#session = undefined
  }

  /** @param subtree  all that is spoken of where it is left out */
  async #config(from: 'running' | 'startup', subtree = partsOf(this.#card)): Promise<Record<string, unknown>> {
    return contentOf(await this.#open.rpc(`<get-config><source><${from}/></source>${filterOf(subtree)}</get-config>`))
  }

  /** @param subtree  all that is spoken of where it is left out */
  async #state(subtree = partsOf(this.#card)): Promise<Record<string, unknown>> {
    return contentOf(await this.#open.rpc(`<get>${filterOf(subtree)}</get>`))
  }

  get #open(): NetconfSession {
    if (!this.#session) throw new WireError('unreachable', message('no-session-open'))
    return this.#session
  }
}

/** Top-level parts that are spoken of. */
const parts: readonly [module: string, name: string][] = [
  ['ietf-system', 'system'],
  ['ietf-system', 'system-state'],
  ['ietf-interfaces', 'interfaces'],
  ['ietf-routing', 'routing'],
  ['air-muster-wireless', 'wireless'],
  ['air-muster-wireless', 'services'],
  ['air-muster-controller', 'access-points'],
]
/** Of a unit whose access control is set: who may change anything. */
const accessControl = ['ietf-netconf-acm', 'nacm'] as const
const partsOf = ({ can }: Pick<NetconfCard, 'can'>): string =>
  [...parts, ...(can['admin.further-users'] ? [accessControl] : [])]
    .map(([module, name]) => `<${name} xmlns="${namespaces[module]}"/>`)
    .join('')
/** One of many: the others are none of its business. */
const accessPoint = (mac: string): string =>
  `<wireless xmlns="${namespaces['air-muster-wireless']}"/><access-points ` +
  `xmlns="${namespaces['air-muster-controller']}"><access-point><mac>${xmlText(mac)}</mac>` +
  '</access-point></access-points>'

/** RFC 6241, 6: what is not spoken of is not asked for. */
const filterOf = (subtree: string): string => `<filter type="subtree">${subtree}</filter>`

function contentOf(reply: Element): Record<string, unknown> {
  const data = childOf(reply, 'data')
  if (!data) throw new WireError('garbled', message('reply-without-data'))
  return dataOf(data)
}
