/** Sentences about addresses that the laptop lends on the bench. */
import { prose } from '../prose'

export const lendingWords = {
  title: 'Addresses for boxes that wait for one',
  off: prose`Some boxes have no address out of their carton, and wait until a DHCP server gives them one. This laptop
    can lend them one for the bench: only to units of the list, and never where another server answers.`,
  lend: 'Lend addresses',
  stop: 'Lend no more',
  starting: 'Listening first whether another server answers …',
  serving: 'This laptop lends addresses of minutes to units of the list. None is lent yet.',
  siteGives: 'Units of this job keep what the DHCP server of the site gives: plug that one in.',
  cannot: 'This laptop has no wire helper, so it cannot lend addresses.',
} as const

export const anotherServes = (servers: readonly string[]): string =>
  `None is lent: ${servers.join(' and ') || 'another server'} gives addresses here. Take its cable out, or use it.`

export const lentUntil = (time: string): string => `until ${time}, longer while it is used`

export const lendingSaid = {
  on: 'Addresses are lent to units of this job that wait for one, unless another server answers.',
  off: 'No address is lent any more.',
} as const
