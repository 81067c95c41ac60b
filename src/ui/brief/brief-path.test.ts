import { expect, it } from 'vitest'
import { demoBrief } from '../../../tests/support/data'
import { type Brief, briefSchema } from '../../core/brief/brief'
import { valueAt, wholeAgain, withValue } from './brief-path'

const issuesOf = (brief: Brief) => briefSchema.safeParse(brief).error?.issues ?? []

it('reads and writes by path', () => {
  expect(valueAt(demoBrief, 'networks.0.ssid')).toBe('Ellery Crew')
  expect(valueAt(demoBrief, 'aftercare.snmp.user')).toBeUndefined()
  expect(withValue(demoBrief, 'management.vlan', 7).management.vlan).toBe(7)
})

it('puts the value of before where a field is at fault, and keeps every other change', () => {
  const typing = withValue(withValue(demoBrief, 'management.gateway', '10.44.8.'), 'site', 'Quay')
  const whole = wholeAgain(typing, demoBrief, issuesOf(typing))
  expect(whole.management.gateway).toBe('10.44.8.1')
  expect(whole.site).toBe('Quay')
})

it('goes back to before where a field has no value of before', () => {
  const typing = withValue(demoBrief, 'networks', [
    ...demoBrief.networks,
    { ...demoBrief.networks[0], id: 'new', ssid: '' },
  ])
  expect(wholeAgain(typing, demoBrief, issuesOf(typing))).toEqual(demoBrief)
})
