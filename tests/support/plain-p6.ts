/** The model that comes with the program is turned in a browser; its twin without one. */
import { pellworthP6 } from '../../src/lab/device/sheet'
import type { StandInSheet } from '../../src/lab/device/stand-in-sheet'
import { cardText } from './data'

const model = 'Pellworth P6'
const twin = 'Pellworth P6 plain'

export const plainP6: {
  readonly model: string
  readonly twin: string
  readonly card: string
  readonly variants: ReadonlyMap<string, StandInSheet>
} = {
  model,
  twin,
  card: cardText('pellworth-p6')
    .replace('model: P6', 'model: P6 plain')
    .replace('^Pellworth P6$', `^${twin}$`)
    .replace('engine: browser', 'engine: forms')
    .replace(/^ *scripted:.*\n/m, ''),
  variants: new Map([[twin, { ...pellworthP6, model: 'P6 plain' }]]),
}
