// Our YANG modules as yanglint has compiled them: every type, grouping and augment in its place.
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './root.mjs'

const ietf = '/usr/share/yuma/modules/ietf'
const nmda = '/usr/share/yuma/nmda-modules/ietf'
const modules = [
  `${ietf}/ietf-system@2014-08-06.yang`,
  `${ietf}/ietf-netconf-acm@2018-02-14.yang`,
  `${ietf}/iana-if-type@2014-05-08.yang`,
  `${nmda}/ietf-interfaces@2018-02-20.yang`,
  `${nmda}/ietf-ip@2018-02-22.yang`,
  `${nmda}/ietf-routing@2018-03-13.yang`,
  `${nmda}/ietf-ipv4-unicast-routing@2018-03-13.yang`,
  ...['wireless', 'controller', 'firmware'].map((name) => join(root, `models/air-muster-${name}.yang`)),
]

/** What units have of the modules that others wrote; of our own they have everything. */
const served = {
  'ietf-system:system': {
    hostname: {},
    location: {},
    clock: { 'timezone-name': {} },
    ntp: { enabled: {}, server: { name: {}, udp: { address: {} } } },
    'dns-resolver': { server: { name: {}, 'udp-and-tcp': { address: {} } } },
    authentication: { user: { name: {}, password: {} } },
  },
  'ietf-netconf-acm:nacm': {
    groups: { group: { name: {}, 'user-name': {} } },
    'rule-list': { name: {}, group: {}, rule: { name: {}, 'module-name': {}, 'access-operations': {}, action: {} } },
  },
  'ietf-interfaces:interfaces': {
    interface: {
      name: {},
      type: {},
      'ietf-ip:ipv4': { address: { ip: {}, 'prefix-length': {} }, 'air-muster-wireless:method': {} },
      'air-muster-wireless:management-vlan': {},
    },
  },
  'ietf-routing:routing': {
    'control-plane-protocols': {
      'control-plane-protocol': {
        type: {},
        name: {},
        'static-routes': {
          'ietf-ipv4-unicast-routing:ipv4': {
            route: { 'destination-prefix': {}, 'next-hop': { 'next-hop-address': {} } },
          },
        },
      },
    },
  },
}

/** Statements of YANG (RFC 7950, 6.3): a keyword, an argument, and what stands in braces. */
function parse(text) {
  const tokens = text.match(/"(?:[^"\\]|\\.)*"|[{};]|[^\s{};"]+/g) ?? []
  const unquoted = (token) => (token.startsWith('"') ? token.slice(1, -1).replace(/\\(.)/g, '$1') : token)
  let at = 0
  const block = () => {
    const statements = []
    while (at < tokens.length && tokens[at] !== '}') {
      const keyword = tokens[at++]
      let argument = ''
      while (!['{', '}', ';'].includes(tokens[at])) argument += ` ${unquoted(tokens[at++])}`
      const children = tokens[at++] === '{' ? block() : []
      statements.push({ keyword, argument: argument.trim(), children })
    }
    at += 1
    return statements
  }
  return block()
}

const first = (node, keyword) => node.children.find((each) => each.keyword === keyword)?.argument
const all = (node, keyword) => node.children.filter((each) => each.keyword === keyword)
const isData = ({ keyword }) => ['container', 'list', 'leaf', 'leaf-list'].includes(keyword)
/** The cases of a choice stand in their parent, as in data. */
const dataIn = (node) =>
  node.children.flatMap((each) =>
    isData(each) ? [each] : ['choice', 'case'].includes(each.keyword) ? dataIn(each) : [],
  )

function typeOf(statement) {
  const range = (text) =>
    text?.split('|').map((part) => {
      const [low, high = low] = part.trim().split('..')
      return [Number(low), Number(high)]
    })
  return {
    base: statement.argument,
    range: range(first(statement, 'range')),
    length: range(first(statement, 'length')),
    fraction: Number(first(statement, 'fraction-digits') ?? 0),
    patterns: all(statement, 'pattern').map(({ argument }) => argument),
    enums: all(statement, 'enum').map(({ argument }) => argument),
    types: all(statement, 'type').map(typeOf),
  }
}

/** Keys of a list: yanglint prints several without a sign between them. */
function keysIn(text, names) {
  if (text === '') return []
  for (const name of names.filter((each) => text.startsWith(each))) {
    const rest = keysIn(text.slice(name.length), names)
    if (rest) return [name, ...rest]
  }
  return undefined
}

/** One node of the data with what it holds. `name` is that of a member (RFC 7951, 4). */
function nodeOf(statement, name, wanted) {
  const { keyword: kind } = statement
  const inner = dataIn(statement)
  const member = (each) =>
    wanted === undefined ? each.argument : Object.keys(wanted).find((key) => key.split(':').at(-1) === each.argument)
  const type = all(statement, 'type')[0]
  return {
    kind,
    name,
    keys: keysIn(
      (first(statement, 'key') ?? '').replaceAll(/[\s,]/g, ''),
      inner.map(({ argument }) => argument),
    ),
    isState: first(statement, 'config') === 'false',
    isPresence: first(statement, 'presence') !== undefined,
    isMandatory: first(statement, 'mandatory') === 'true',
    least: Number(first(statement, 'min-elements') ?? 0),
    default: first(statement, 'default'),
    type: type && typeOf(type),
    // Those of others are written with their own prefixes, and say nothing of what units have.
    rules:
      wanted === undefined
        ? ['must', 'when'].flatMap((rule) =>
            all(statement, rule).map((each) => ({
              kind: rule,
              test: each.argument,
              message: first(each, 'error-message') ?? '',
            })),
          )
        : [],
    children: inner.flatMap((each) => {
      const own = member(each)
      return own === undefined ? [] : [nodeOf(each, own, wanted?.[own])]
    }),
  }
}

/** Every module with its namespace, and the tops of the data that units have. */
export function compiledModels() {
  const text = execFileSync('yanglint', ['-p', nmda, '-p', ietf, '-f', 'info', ...modules], { encoding: 'utf8' })
  const found = parse(text).filter(({ keyword }) => keyword === 'module')
  const tops = found.flatMap((module) =>
    dataIn(module).flatMap((each) => {
      const name = `${module.argument}:${each.argument}`
      const isOurs = module.argument.startsWith('air-muster-')
      return isOurs || served[name] ? [nodeOf(each, name, isOurs ? undefined : served[name])] : []
    }),
  )
  const ofEach = (keyword) => Object.fromEntries(found.map((each) => [each.argument, first(each, keyword)]))
  return { namespaces: ofEach('namespace'), revisions: ofEach('revision'), tops }
}
