/**
 * Power over Ethernet: what the list draws, against what the switch gives.
 *
 * In: the units with their cards. Out: the load by port class, as a switch budgets it before it asks, and by watts, as
 * the units draw at the most.
 */
import { type KitCard, modelName } from './kit-card'
import type { Unit } from './unit'

/** Watts that a switch sets aside for a port by class, IEEE 802.3-2018 table 145-11 (class 0 as class 3). */
const classWatts: readonly number[] = [15.4, 4, 7, 15.4, 30, 45, 60, 75, 90]
/** Class of a unit whose card names only the type: the highest of that type. */
const highestClass = { '802.3af': 3, '802.3at': 4, '802.3bt': 8 } as const
const typeOrder = ['802.3af', '802.3at', '802.3bt'] as const

export function classOf(power: KitCard['power']): number | undefined {
  return power.poe === 'mains' ? undefined : (power.class ?? highestClass[power.poe])
}

export interface PoeLoad {
  /** Switch on the list, if there is one. */
  readonly switchName: string | undefined
  readonly budgetWatts: number | undefined
  /** Sum of what the switch sets aside by class, W. */
  readonly byClassWatts: number
  /** Sum of what the units draw at the most, W. */
  readonly byDrawWatts: number
  readonly poweredUnits: number
}

export interface PoeFault {
  readonly unit: string | undefined
  readonly sentence: string
}

/** The load of all units that are fed over Ethernet. Several switches give together. */
export function poeLoad(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): PoeLoad {
  const switches = units.filter((unit) => cards.get(unit.model)?.supplies)
  const fed = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    const powerClass = card && classOf(card.power)
    return card && powerClass !== undefined ? [{ card, powerClass }] : []
  })
  const round = (watts: number): number => Math.round(watts * 10) / 10
  return {
    switchName: switches.length > 1 ? `${switches.length} switches` : switches[0]?.name,
    budgetWatts:
      switches.length === 0
        ? undefined
        : switches.reduce((sum, unit) => sum + (cards.get(unit.model)?.supplies?.watts ?? 0), 0),
    byClassWatts: round(fed.reduce((sum, { powerClass }) => sum + (classWatts[powerClass] ?? 0), 0)),
    byDrawWatts: round(fed.reduce((sum, { card }) => sum + card.power.watts, 0)),
    poweredUnits: fed.length,
  }
}

export function reviewPoe(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): PoeFault[] {
  const { switchName, budgetWatts, byClassWatts, byDrawWatts } = poeLoad(units, cards)
  const supply = units.map((unit) => cards.get(unit.model)?.supplies).find((each) => each !== undefined)
  if (!supply || budgetWatts === undefined) return []
  const faults: PoeFault[] = []
  if (byDrawWatts > budgetWatts)
    faults.push({
      unit: undefined,
      sentence: `The units may draw ${byDrawWatts} W and ${switchName} gives ${budgetWatts} W: the last ports stay dark. Plug in fewer at a time, or bring another switch.`,
    })
  else if (byClassWatts > budgetWatts)
    faults.push({
      unit: undefined,
      sentence: `By their classes ${switchName} sets ${byClassWatts} W aside and has ${budgetWatts} W; the units draw ${byDrawWatts} W at the most. Let it budget by what is drawn, or plug in fewer at a time.`,
    })
  for (const unit of units) {
    const card = cards.get(unit.model)
    if (!card || card.power.poe === 'mains') continue
    if (typeOrder.indexOf(card.power.poe) > typeOrder.indexOf(supply.poe))
      faults.push({
        unit: unit.id,
        sentence: `${unit.name} (${modelName(card)}) needs ${card.power.poe}; the ports of ${switchName} give ${supply.poe} at the most.`,
      })
    if (unit.port !== null && unit.port > supply.ports)
      faults.push({
        unit: unit.id,
        sentence: `${unit.name} is to be in port ${unit.port}; ${switchName} has ${supply.ports} ports.`,
      })
  }
  return faults
}
