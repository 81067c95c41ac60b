/** Who changes a server's configuration beside us: the notification `netconf-config-change` (RFC 6470, 2.1). */
import { childOf, type Element } from '../codec/xml'

const base = 'urn:ietf:params:xml:ns:yang:ietf-netconf-notifications'
const longestName = 64

/**
 * @param event  a notification (RFC 5277, 4)
 * @param own    number of the session that asks: its own changes are no news
 * @returns      as `chief from 10.44.8.9`; undefined where it is of something else, or its own, or the server's
 */
export function changedByAnother(event: Element, own: string): string | undefined {
  const change = event.children.find(({ name, namespace }) => name === 'netconf-config-change' && namespace === base)
  const by = change && childOf(change, 'changed-by')
  const text = (name: string): string => {
    const found = by && childOf(by, name)?.text.trim().slice(0, longestName)
    return found?.replace(/[^\x20-\x7e\u00a0-\uffff]/g, '') ?? ''
  }
  const user = text('username')
  if (user === '' || text('session-id') === own) return undefined
  const from = text('source-host')
  return from === '' ? user : `${user} from ${from}`
}
