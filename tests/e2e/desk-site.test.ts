/** One site that is decided on in Chromium: what the stages offer, and that everybody can read them. */
import { describe } from 'vitest'
import { isLong } from '../support/long'
import { sharedSite } from '../support/site'
import { accessibleWalk } from './accessible'
import { optionsWalk } from './options'

const open = sharedSite({ jobs: ['port-ellery', 'port-ellery-whole'] })
describe.skipIf(isLong)('what the stages offer', () => optionsWalk(open))
describe('each view', () => accessibleWalk(open))
