/** One site that is mustered in Chromium: its frame, a first muster, many tabs, and parts that die. */
import { describe } from 'vitest'
import { isLong } from '../support/long'
import { sharedSite } from '../support/site'
import { benchWalk } from './browser'
import { frameWalk } from './frame'
import { tabsWalk } from './tabs'

const open = sharedSite({ jobs: ['port-ellery'] })
describe.skipIf(isLong)('what surrounds the stages', () => frameWalk(open))
describe.skipIf(isLong)('from the bench to the handover', () => benchWalk(open))
describe('while a muster is watched', () => tabsWalk(open))
