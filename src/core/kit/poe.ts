/**
 * Power over Ethernet: what the units of each switch draw, against what it gives.
 *
 * In: the units with their cards. Out: the load of each switch by class, as it budgets before it asks, and by watts, as
 * they leave its ports when the units draw the most that they can.
 */
import { type Message, message } from '../message/message'
import { type KitCard, modelName } from './kit-card'
import type { Unit } from './unit'

/** Watts that a switch sets aside for a port by class, IEEE 802.3-2018 table 145-11 (class 0 as class 3). */
const classWatts: readonly number[] = [15.4, 4, 7, 15.4, 30, 45, 60, 75, 90]
/** Watts that a unit of a class may draw, IEEE 802.3-2018 tables 33-18 and 145-26. */
const mostDrawn: readonly number[] = [12.95, 3.84, 6.49, 12.95, 25.5, 40, 51, 62, 71.3]
/** The highest class of each type; ports that give 802.3bt say in their card which of its two types they are. */
const highestClass = { '802.3af': 3, '802.3at': 4, '802.3bt': 8 } as const

/**
 * What feeds a class of unit over 100 m of cable: the least voltage of the switch, V, and the resistance of the loop,
 * ohms (IEEE 802.3-2018, 33.1.4 and 145.1.3). By them 12.95, 25.5, 51 and 71.3 W at the unit are 15.4, 30, 60 and 90 W
 * at the switch.
 */
function feedOf(powerClass: number): { readonly volts: number; readonly ohms: number } {
  if (powerClass <= 3) return { volts: 44, ohms: 20 }
  if (powerClass === 4) return { volts: 50, ohms: 12.5 }
  return { volts: powerClass <= 6 ? 50 : 52, ohms: 6.25 }
}

/** What leaves the switch while a unit draws `watts`, W: the cable takes its part. */
export function drawAtSource(watts: number, powerClass: number): number {
  const { volts, ohms } = feedOf(powerClass)
  const drawn = Math.min(watts, mostDrawn[powerClass] ?? watts)
  return (volts * (volts - Math.sqrt(volts ** 2 - 4 * ohms * drawn))) / (2 * ohms)
}

/**
 * Class of a unit, by its card; where that names the type alone, the highest of the type, and with 802.3bt the lowest
 * from 5 on that covers what it draws. Undefined where it has a supply of its own.
 */
export function classOf({ poe, class: said, watts }: KitCard['power']): number | undefined {
  if (poe === 'mains') return undefined
  if (said !== undefined) return said
  if (poe !== '802.3bt') return highestClass[poe]
  return [5, 6, 7].find((each) => watts <= (mostDrawn[each] ?? 0)) ?? 8
}

/** Highest class that the ports of a switch feed. */
export const classGiven = ({ poe, class: said }: NonNullable<KitCard['supplies']>): number => said ?? highestClass[poe]

export interface PoeLoad {
  /** Switches on the list that give together; none where the list has none for these units. */
  readonly switches: readonly string[]
  readonly budgetWatts: number | undefined
  /** Sum of what is set aside by class, W. */
  readonly byClassWatts: number
  /** Sum of what leaves the ports while every unit draws the most that it can, W. */
  readonly byDrawWatts: number
  readonly poweredUnits: number
}

export interface PoeFault extends Message<PoeFaultCode> {
  readonly unit: string | undefined
}
export type PoeFaultCode = 'power-beyond-budget' | 'power-set-aside' | 'power-beyond-port' | 'port-beyond-switch'

/** Switches that give together, and the units that they feed. */
interface Feeding {
  readonly switches: readonly Unit[]
  readonly fed: readonly { readonly unit: Unit; readonly card: KitCard; readonly powerClass: number }[]
}

/**
 * Who feeds whom. A switch of the list that units name as theirs on site feeds those; all others are on the bench, at
 * the switches that nobody names, which give together.
 */
function feedings(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): Feeding[] {
  const plain = (name: string): string => name.trim().toLowerCase()
  const switches = units.filter((unit) => cards.get(unit.model)?.supplies)
  const fed = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    const powerClass = card && classOf(card.power)
    return card && powerClass !== undefined ? [{ unit, card, powerClass }] : []
  })
  const at = (each: Unit) => fed.filter(({ unit }) => plain(unit.siteSwitch) === plain(each.name))
  const onSite = switches.map((each) => ({ switches: [each], fed: at(each) })).filter((each) => each.fed.length > 0)
  const benched = {
    switches: switches.filter((each) => !onSite.some((other) => other.switches.includes(each))),
    fed: fed.filter((each) => !onSite.some((other) => other.fed.includes(each))),
  }
  return benched.fed.length > 0 || onSite.length === 0 ? [...onSite, benched] : onSite
}

const suppliesOf = (each: Unit, cards: ReadonlyMap<string, KitCard>) => cards.get(each.model)?.supplies

function loadOf({ switches, fed }: Feeding, cards: ReadonlyMap<string, KitCard>): PoeLoad {
  const sum = (watts: readonly number[]): number => Math.round(watts.reduce((all, each) => all + each, 0) * 10) / 10
  return {
    switches: switches.map(({ name }) => name),
    budgetWatts: switches.length === 0 ? undefined : sum(switches.map((each) => suppliesOf(each, cards)?.watts ?? 0)),
    byClassWatts: sum(fed.map(({ powerClass }) => classWatts[powerClass] ?? 0)),
    byDrawWatts: sum(fed.map(({ card, powerClass }) => drawAtSource(card.power.watts, powerClass))),
    poweredUnits: fed.length,
  }
}

/** The load of each switch that units are said to be at on site, then of those on the bench together. */
export function poeLoads(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): PoeLoad[] {
  return feedings(units, cards).map((feeding) => loadOf(feeding, cards))
}

export function reviewPoe(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): PoeFault[] {
  return feedings(units, cards).flatMap((feeding) => [
    ...reviewBudget(loadOf(feeding, cards)),
    ...reviewPorts(feeding, cards),
  ])
}

function reviewBudget({ switches, budgetWatts, byClassWatts, byDrawWatts }: PoeLoad): PoeFault[] {
  if (budgetWatts === undefined) return []
  if (byDrawWatts > budgetWatts)
    return [
      {
        unit: undefined,
        ...message('power-beyond-budget', { watts: byDrawWatts, switches, budget: budgetWatts }),
      },
    ]
  if (byClassWatts > budgetWatts)
    return [
      {
        unit: undefined,
        ...message('power-set-aside', { switches, reserved: byClassWatts, budget: budgetWatts, watts: byDrawWatts }),
      },
    ]
  return []
}

/** What a port gives, and whether it is there. Where several switches give together, the best of them is meant. */
function reviewPorts({ switches, fed }: Feeding, cards: ReadonlyMap<string, KitCard>): PoeFault[] {
  const [best] = switches
    .flatMap((each) => suppliesOf(each, cards) ?? [])
    .sort((a, b) => classGiven(b) - classGiven(a) || b.ports - a.ports)
  if (!best) return []
  const names = switches.map(({ name }) => name)
  const most = Math.max(...switches.map((each) => suppliesOf(each, cards)?.ports ?? 0))
  return fed.flatMap(({ unit, card, powerClass }) => [
    ...(powerClass > classGiven(best)
      ? [
          {
            unit: unit.id,
            ...message('power-beyond-port', {
              name: unit.name,
              model: modelName(card),
              needs: typeWords(powerClass),
              switches: names,
              gives: typeWords(classGiven(best)),
            }),
          },
        ]
      : []),
    ...(unit.port !== null && unit.port > most
      ? [
          {
            unit: unit.id,
            ...message('port-beyond-switch', { name: unit.name, port: unit.port, switches: names, ports: most }),
          },
        ]
      : []),
  ])
}

/** A class as the standard of its ports: 802.3bt has two types, of 60 and of 90 W (IEEE 802.3-2018, 145.1). */
function typeWords(powerClass: number): string {
  if (powerClass <= 3) return '802.3af'
  if (powerClass === 4) return '802.3at'
  return powerClass <= 6 ? '802.3bt type 3' : '802.3bt type 4'
}
