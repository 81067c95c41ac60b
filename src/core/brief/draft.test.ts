import { describe, expect, it } from 'vitest'
import { demoBrief } from '../../../tests/support/data'
import { readBriefDraft } from './draft'

interface Loose {
  site: unknown
  management: object | string
  networks?: object[] | number
}
const changed = (change: (brief: Loose) => void): unknown => {
  const copy = structuredClone(demoBrief) as unknown as Loose
  change(copy)
  return copy
}

describe('a brief that was half typed before a reload', () => {
  it('comes back, with what was not whole yet', () => {
    const draft = changed((brief) => {
      brief.site = ''
      Object.assign(brief.management, { cidr: '10.44.8', gateway: 'x' })
      Object.assign((brief.networks as object[])[0] ?? {}, { ssid: '' })
    })
    expect(readBriefDraft(draft)).toEqual(draft)
    expect(readBriefDraft(demoBrief)).toEqual(demoBrief)
  })

  it.each([
    ['no brief at all', 'a text'],
    ['nothing', null],
    ['a brief without its networks', changed((brief) => delete brief.networks)],
    ['a brief whose networks are a number', changed((brief) => Object.assign(brief, { networks: 5 }))],
    ['a brief whose subnet is a text', changed((brief) => Object.assign(brief, { management: '10.44.8.0/24' }))],
    ['a brief of an older program', { country: 'NZ', site: 'Quay' }],
  ])('is let go where it is %s: the page would not survive it', (_what, value) => {
    expect(readBriefDraft(value)).toBeUndefined()
  })
})
