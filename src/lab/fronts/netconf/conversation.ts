/** One session of a NETCONF server (RFC 6241): its framing, its hello, and what each operation does. */
import { type Element, isTag } from 'domhandler'
import { parseDocument } from 'htmlparser2'
import shape from '../../../../models/shape.json'
import type { Device } from '../../device/device'
import { Refusal } from '../../device/refusal'
import { encodeOperational } from '../yang/encode'
import type { Node } from '../yang/tree'
import { editsIn, filtered, localName, tagsIn, textIn, treeXml } from './data'
import type { Datastores } from './datastores'

const base = 'urn:ietf:params:xml:ns:netconf:base:1.0'
const capabilities = [
  'urn:ietf:params:netconf:base:1.0',
  'urn:ietf:params:netconf:base:1.1',
  ...[
    'candidate:1.0',
    'confirmed-commit:1.1',
    'interleave:1.0',
    'notification:1.0',
    'rollback-on-error:1.0',
    'startup:1.0',
    'validate:1.1',
  ].map((name) => `urn:ietf:params:netconf:capability:${name}`),
  ...(['air-muster-wireless', 'air-muster-controller', 'air-muster-firmware'] as const).map(
    (module) => `${shape.namespaces[module]}?module=${module}&amp;revision=${shape.revisions[module]}`,
  ),
]
const notifications = 'urn:ietf:params:xml:ns:netconf:notification:1.0'
const changes = 'urn:ietf:params:xml:ns:yang:ietf-netconf-notifications'
const longest = 1024 * 1024
const endMark = ']]>]]>'

const looks = new Set(['get', 'get-config', 'create-subscription', 'close-session'])

type Answer = string | { readonly afterwards: () => void }

export class Conversation {
  #rest = ''
  #chunked = false
  #greeted = false
  readonly number: number
  readonly #user: string

  constructor(
    private readonly unit: Device,
    private readonly stores: Datastores,
    { number, user }: { readonly number: number; readonly user: string },
    private readonly write: (text: string) => void,
    private readonly hangUp: () => void,
  ) {
    this.number = number
    this.#user = user
    const told = capabilities.map((each) => `<capability>${each}</capability>`).join('')
    this.#send(`<hello xmlns="${base}"><capabilities>${told}</capabilities><session-id>${number}</session-id></hello>`)
  }

  /** @param bytes  as they come, in UTF-8, which a chunk may cut anywhere */
  take(bytes: Buffer): void {
    this.#rest += bytes.toString('latin1')
    if (this.#rest.length > longest) return this.hangUp()
    for (let message = this.#next(); message !== undefined; message = this.#next())
      this.#hear(Buffer.from(message, 'latin1').toString('utf8'))
  }

  #next(): string | undefined {
    if (!this.#chunked) {
      const end = this.#rest.indexOf(endMark)
      if (end < 0) return undefined
      const message = this.#rest.slice(0, end)
      this.#rest = this.#rest.slice(end + endMark.length)
      return message
    }
    let at = 0
    let message = ''
    for (;;) {
      const head = /^\n#(\d+|#)\n/.exec(this.#rest.slice(at, at + 16))
      if (!head?.[1]) return undefined
      at += head[0].length
      if (head[1] === '#') break
      const size = Number(head[1])
      if (this.#rest.length < at + size) return undefined
      message += this.#rest.slice(at, at + size)
      at += size
    }
    this.#rest = this.#rest.slice(at)
    return message
  }

  #send(body: string): void {
    const text = `<?xml version="1.0" encoding="UTF-8"?>\n${body}`
    this.write(this.#chunked ? `\n#${Buffer.byteLength(text)}\n${text}\n##\n` : `${text}${endMark}`)
  }

  #hear(message: string): void {
    const root = parseDocument(message, { xmlMode: true }).children.find((child) => isTag(child))
    if (!root || !isTag(root)) return this.hangUp()
    if (!this.#greeted) {
      this.#greeted = true
      this.#chunked = message.includes('urn:ietf:params:netconf:base:1.1')
      return
    }
    const id = root.attribs['message-id'] ?? ''
    const reply = (inner: string): void =>
      this.#send(`<rpc-reply message-id="${id}" xmlns="${base}">${inner}</rpc-reply>`)
    try {
      const [operation] = tagsIn(root)
      if (localName(root) !== 'rpc' || !operation) throw new Refusal('malformed-message', 'no operation is asked for')
      const answer = this.#carryOut(operation)
      reply(typeof answer === 'string' ? answer : '<ok/>')
      if (typeof answer !== 'string') setImmediate(answer.afterwards)
    } catch (error) {
      const { tag, message: said } =
        error instanceof Refusal ? error : new Refusal('malformed-message', 'it did not understand')
      reply(
        `<rpc-error><error-type>application</error-type><error-tag>${tag}</error-tag>` +
          '<error-severity>error</error-severity>' +
          `<error-message>${said.replace(/[<&]/g, ' ')}</error-message></rpc-error>`,
      )
    }
  }

  #carryOut(operation: Element): Answer {
    const operate = Object.hasOwn(this.#operations, localName(operation))
      ? this.#operations[localName(operation)]
      : undefined
    if (!operate) throw new Refusal('unknown-element', `${localName(operation)} is not done here`)
    // RFC 8341, 3.1.3: looking and leaving are for everybody.
    if (!looks.has(localName(operation)) && !this.unit.mayChange(this.#user))
      throw new Refusal('access-denied', `${this.#user} may look, and change nothing`)
    return operate(operation) ?? '<ok/>'
  }

  readonly #operations: Readonly<Record<string, (asked: Element) => Answer | undefined>> = {
    get: (asked) => this.#data(encodeOperational(this.unit), asked),
    'get-config': (asked) => this.#data(this.#storeOf(child(asked, 'source')), asked),
    'edit-config': (asked) => {
      const config = child(asked, 'config')
      if (named(child(asked, 'target')) !== 'candidate' || !config)
        throw new Refusal('invalid-value', 'changes are written to the candidate')
      this.stores.edit(this.number, editsIn(config))
      return undefined
    },
    'copy-config': (asked) => {
      if (named(child(asked, 'target')) !== 'startup' || named(child(asked, 'source')) !== 'running')
        throw new Refusal('invalid-value', 'only the running one is copied, to the startup one')
      this.unit.save()
      return undefined
    },
    commit: (asked) => {
      const seconds = Number(textIn(child(asked, 'confirm-timeout')) || 600)
      const word = textIn(child(asked, 'persist')).trim() || undefined
      const confirm = child(asked, 'confirmed') ? { seconds, word } : undefined
      const by = { number: this.number, user: this.#user }
      this.stores.commit(by, confirm, textIn(child(asked, 'persist-id')).trim() || undefined)
      return undefined
    },
    'create-subscription': () => {
      if (this.stores.subscribers.has(this.number)) throw new Refusal('data-exists', 'it is subscribed already')
      this.stores.subscribers.set(this.number, ({ number, user }) => this.#tell(number, user))
      return undefined
    },
    'cancel-commit': (asked) => void this.stores.cancel(textIn(child(asked, 'persist-id')).trim() || undefined),
    'discard-changes': () => void this.stores.discard(this.number),
    validate: () => void this.stores.validate(),
    lock: (asked) => void (named(child(asked, 'target')) === 'candidate' && this.stores.lock(this.number)),
    unlock: (asked) => void (named(child(asked, 'target')) === 'candidate' && this.stores.unlock(this.number)),
    'image-part': (asked) => {
      const content = Buffer.from(textIn(child(asked, 'content')), 'base64')
      this.unit.takeImagePart(textIn(child(asked, 'image')), Number(textIn(child(asked, 'offset'))), content)
      return undefined
    },
    'install-image': (asked) => ({ afterwards: this.unit.install(textIn(child(asked, 'image'))) }),
    'system-restart': () => ({ afterwards: () => this.unit.restart() }),
    'close-session': () => ({ afterwards: this.hangUp }),
  }

  /** RFC 6470, 2.1, within RFC 5277, 4; once the answer to whoever did it is out. */
  #tell(session: number, user: string): void {
    const by = `<changed-by><username>${user}</username><session-id>${session}</session-id></changed-by>`
    const running = '<datastore>running</datastore>'
    const change = `<netconf-config-change xmlns="${changes}">${by}${running}</netconf-config-change>`
    const event = `<eventTime>${this.unit.time.toISOString()}</eventTime>${change}`
    setImmediate(() => this.#send(`<notification xmlns="${notifications}">${event}</notification>`))
  }

  #storeOf(source: Element | undefined): Node {
    const name = named(source)
    if (name === 'running') return this.stores.running()
    if (name === 'candidate') return this.stores.candidate()
    if (name === 'startup') return this.stores.startup()
    throw new Refusal('invalid-value', 'there is no such datastore')
  }

  #data(tree: Node, asked: Element): string {
    const filter = child(asked, 'filter')
    return `<data>${treeXml(filter ? filtered(tree, filter) : tree)}</data>`
  }
}

const child = (element: Element, name: string): Element | undefined =>
  tagsIn(element).find((each) => localName(each) === name)
const named = (element: Element | undefined): string =>
  element && tagsIn(element)[0] ? localName(tagsIn(element)[0] as Element) : ''
