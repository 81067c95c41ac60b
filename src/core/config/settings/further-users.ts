/** Who may sign in to a unit beside its admin, and with what. */
import { z } from 'zod'
import { secretName } from '../../brief/brief'
import { type FurtherUser, userRoles } from '../../brief/policies'
import { adminUser, modelName } from '../../kit/kit-card'
import { ofUnit, sameSet } from './setting'

const words = ({ name, role }: FurtherUser): string => `${name} (${role})`

export const furtherUsers = {
  'admin.further-users': ofUnit<FurtherUser[]>({
    step: 'services',
    words: 'Further users',
    plural: true,
    value: z.array(z.object({ name: z.string(), role: z.enum(userRoles) })),
    nothing: [],
    needs: ['admin.further-passwords'],
    ask: ({ brief }) => brief.admin.furtherUsers,
    unfit: (users, { brief, card }) => {
      const admin = adminUser(card, brief.admin.user)
      return users.some(({ name }) => name === admin) ? `${admin} is the admin of every ${modelName(card)}` : undefined
    },
    same: (wanted, found) => sameSet(wanted.map(words), found.map(words)),
    show: (users) => users.map(words).join(', ') || 'none',
  }),
  /** By user. */
  'admin.further-passwords': ofUnit<Record<string, string>>({
    step: 'services',
    words: 'Passwords of further users',
    plural: true,
    value: z.record(z.string(), z.string()),
    secret: true,
    byAsking: true,
    needs: ['admin.further-users'],
    ask: ({ brief, secrets }) => {
      const passwords = brief.admin.furtherUsers.flatMap(({ name }) => {
        const password = secrets.get(secretName.userPassword(name))
        return password === undefined ? [] : [[name, password]]
      })
      return passwords.length === 0 ? undefined : Object.fromEntries(passwords)
    },
  }),
} as const
