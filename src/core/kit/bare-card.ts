/**
 * What is taken for granted of a model that nobody has described: an access point with a radio at 2.4 and one at 5 GHz,
 * set by hand. So its units have addresses, channels and a list of what each is to be, like all others.
 */
import { type KitCard, readKitCard } from './kit-card'

/** A card to begin with, YAML. @param model  `maker model`, as the kit list says it */
export function firstCard(model: string): string {
  const [maker = '', ...rest] = model.trim().split(/\s+/)
  const radio = (name: string, band: string, widths: string): string => `  - name: ${name}
    band: "${band}"
    widths: [${widths}]
    steps: [3, 6, 9, 12, 15, 18, 20]
    gain: 3
    mostNetworks: 8
`
  return `# Say what you know of this model. What you leave as it is, is taken for granted.
maker: ${JSON.stringify(maker)}
model: ${JSON.stringify(rest.join(' ') || maker)}
# access-point, controller, link-end or switch
role: access-point
environment: either
recognise:
  # How the MACs on its labels begin, such as ["02:4f:52"].
  macPrefixes: []
factory:
  # Where it answers out of its box, such as 192.168.1.1; null where nobody knows.
  address: null
  addressing: dhcp-first
  login: { user: "", password: "" }
  port: 443
power:
  # 802.3af, 802.3at, 802.3bt or mains
  poe: mains
  watts: 15
timing: { start: 120, apply: 60, restart: 180 }
lights: {}
reset:
  steps: [Its maker says how.]
  seconds: 0
radios:
${radio('low', '2.4', '20')}${radio('high', '5', '20, 40, 80')}limits:
  namePattern: ^.+$
  nameWords: any name
  passwordShortest: 8
  passwordLongest: 63
  mostNetworks: 8
  security: [wpa2-personal, wpa2-enterprise, wpa3-personal, wpa3-enterprise, wpa3-wpa2-mixed, owe, open]
can: {}
does: { applies: at-once, saves: itself }
dialect: { kind: by-hand }
`
}

let base: KitCard | undefined
const known = new Map<string, KitCard>()
const mostKnown = 1000

/** @throws Error where the card to begin with is faulty: that is a fault of ours */
function readOnce(): KitCard {
  const reading = readKitCard(firstCard('Some Model'))
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
  return reading.card
}

/** The same object for the same model: what is worked out from a card is kept with it. */
export function bareCard(model: string): KitCard {
  const before = known.get(model)
  if (before) return before
  base ??= readOnce()
  if (known.size >= mostKnown) known.clear()
  const card = { ...base, maker: '', model, isBare: true } as const
  known.set(model, card)
  return card
}

/** The cards, and a bare one for every model on the list that has none. */
export function withBareCards(
  cards: ReadonlyMap<string, KitCard>,
  units: readonly { readonly model: string }[],
): ReadonlyMap<string, KitCard> {
  const missing = units.filter(({ model }) => model !== '' && !cards.has(model))
  return missing.length === 0
    ? cards
    : new Map([...cards, ...missing.map(({ model }) => [model, bareCard(model)] as const)])
}
