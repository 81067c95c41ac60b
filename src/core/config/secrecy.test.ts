/**
 * What the compiler refuses: this file is held by `tsc`, and its one test by nothing more than that it was compiled.
 */
import { expect, it } from 'vitest'
import type { MusterEvent } from '../muster/events'
import type { Asked } from './asked'
import type { Asking, Secrets } from './asking'
import { desiredOf } from './compile'
import { expectedOf } from './outcomes'
import type { Clear, Config, Mark } from './unit-config'

declare const clear: Config<Clear>
declare const marks: Config<Mark>
declare const asking: Asking<Clear>
declare const vault: Secrets<Clear>
const asked = { mac: '02:4f:52:00:00:01', password: 'admin/password of 2026-11-25' }

/** Never called: its types are all that matters. */
const refused = {
  // @ts-expect-error clear secrets are not kept
  kept: (): Asked => ({ ...asked, config: clear }),
  // @ts-expect-error nor told in an event
  told: (): MusterEvent => ({ kind: 'proven', unit: 'hall-01', asked: { ...asked, config: clear } }),
  // @ts-expect-error nor printed as what is expected
  printed: () => expectedOf(asking),
  // @ts-expect-error what follows from clear secrets is clear
  made: (): Config<Mark> => desiredOf(asking),
  // @ts-expect-error a unit is not set to marks
  sent: (): Config<Clear> => marks,
  // @ts-expect-error the vault's own texts are no marks
  filed: (): Secrets<Mark> => vault,
  taken: (): MusterEvent => ({ kind: 'proven', unit: 'hall-01', asked: { ...asked, config: marks } }),
}

it('is refused by the compiler where a clear secret stands for a mark', () => {
  expect(Object.keys(refused)).toHaveLength(7)
})
