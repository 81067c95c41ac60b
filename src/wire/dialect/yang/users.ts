/**
 * Users beside the admin: they stand in ietf-system (RFC 7317), and those that may change anything in a group of
 * ietf-netconf-acm (RFC 8341), with the rule that lets its members do so: a group by itself grants nothing. Whoever is
 * in no group may look, as its defaults have it (RFC 8341, 3.4.4 and 3.4.5).
 */
import type { FurtherUser } from '../../../core/brief/policies'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config } from '../../../core/config/unit-config'
import { entry } from '../../codec/resource-path'
import type { YangEdit } from '../../codec/yang-patch'
import { dig } from './fields'

const group = 'administrators'
const authentication = '/ietf-system:system/authentication'
const accessControl = '/ietf-netconf-acm:nacm'

/** @param admin  user who is signed in, and stays */
export function furtherUsersIn(data: unknown, admin: string): FurtherUser[] {
  const users = dig(data, ['ietf-system:system', 'authentication', 'user'])
  const found = dig(data, ['ietf-netconf-acm:nacm', 'groups', 'group'])
  const members = Array.isArray(found)
    ? dig(
        found.find((each) => dig(each, ['name']) === group),
        ['user-name'],
      )
    : undefined
  const administers = new Set(Array.isArray(members) && mayDoEverything(data) ? members : [])
  return namesOf(users)
    .filter((name) => name !== admin)
    .map((name) => ({ name, role: administers.has(name) ? 'administers' : 'reads' }))
}

/** RFC 8341, 3.2.3: any operation on anything. */
const everything = { name: 'everything', 'module-name': '*', 'access-operations': '*', action: 'permit' }

/** Is what a group may do there, by a rule-list that names it and permits everything? */
function mayDoEverything(data: unknown): boolean {
  const found = dig(data, ['ietf-netconf-acm:nacm', 'rule-list'])
  return (Array.isArray(found) ? found : []).some((each) => {
    const [members, rules] = [dig(each, ['group']), dig(each, ['rule'])]
    return (
      Array.isArray(members) &&
      members.includes(group) &&
      Array.isArray(rules) &&
      rules.some((rule) => dig(rule, ['access-operations']) === '*' && dig(rule, ['action']) === 'permit')
    )
  })
}

const namesOf = (users: unknown): string[] =>
  (Array.isArray(users) ? users : []).flatMap((each) => {
    const name = dig(each, ['name'])
    return typeof name === 'string' ? [name.slice(0, 64)] : []
  })

/** Do these differences concern them? */
export function concernUsers(differences: readonly Difference[]): boolean {
  return differences.some((each) => each.kind === 'value' && each.id.startsWith('admin.further'))
}

/** Those that are wanted with their passwords, and those away that are there and are not. */
export function userEdits(unit: Config<Clear>['unit'], present: unknown, admin: string): Omit<YangEdit, 'edit-id'>[] {
  const wanted = unit['admin.further-users'] ?? []
  const passwords = unit['admin.further-passwords'] ?? {}
  const surplus = furtherUsersIn(present, admin).filter(({ name }) => !wanted.some((each) => each.name === name))
  const administrators = wanted.filter(({ role }) => role === 'administers').map(({ name }) => name)
  return [
    ...surplus.map(({ name }) => ({
      operation: 'remove' as const,
      target: `${authentication}/${entry('user', name)}`,
    })),
    ...wanted.map(({ name }) => passwordEdit(name, passwords[name] ?? '')),
    {
      operation: 'replace',
      target: `${accessControl}/groups/${entry('group', group)}`,
      value: { 'ietf-netconf-acm:group': [{ name: group, 'user-name': [admin, ...administrators] }] },
    },
    {
      operation: 'replace',
      target: `${accessControl}/${entry('rule-list', group)}`,
      value: { 'ietf-netconf-acm:rule-list': [{ name: group, group: [group], rule: [everything] }] },
    },
  ]
}

/** RFC 7317: "$0$" marks clear text that the unit is to hash. */
export function passwordEdit(user: string, password: string): Omit<YangEdit, 'edit-id'> {
  return {
    operation: 'merge',
    target: `${authentication}/${entry('user', user)}`,
    value: { 'ietf-system:user': [{ name: user, password: `$0$${password}` }] },
  }
}
