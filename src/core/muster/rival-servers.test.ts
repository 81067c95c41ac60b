import { expect, it } from 'vitest'
import { rivalServers } from './rival-servers'

it('finds two servers of one network, and takes one of another VLAN for none of theirs', () => {
  const [untagged, also] = [
    { vlan: null, address: '10.0.0.1' },
    { vlan: null, address: '10.0.0.2' },
  ]
  const tagged = { vlan: 44, address: '10.44.8.1' }
  expect(rivalServers([untagged, tagged])).toEqual([])
  expect(rivalServers([untagged, tagged, also])).toEqual([untagged, also])
  expect(rivalServers([tagged, { ...tagged, address: '10.44.8.2' }])).toHaveLength(2)
})
