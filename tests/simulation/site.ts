/** The job of a simulation: kit cards, brief, kit list and plan, made from traits. */
import { createHash } from 'node:crypto'
import { type Brief, newBrief, secretName } from '../../src/core/brief/brief'
import { newNetwork } from '../../src/core/brief/wireless-network'
import type { AskingJob } from '../../src/core/config/asked'
import { type KitCard, kitCardSchema, modelName } from '../../src/core/kit/kit-card'
import type { Unit } from '../../src/core/kit/unit'
import { makePlan, plannedNothing } from '../../src/core/plan/plan'
import type { RadioPlan } from '../../src/core/radio/channels/radio-plan'
import type { CountryRules } from '../../src/core/regulatory/database'
import { loadRegulatory } from '../../src/store/regulatory-file'
import type { SiteTraits, UnitTraits } from './traits'

/** Shorter than in life, so that a muster takes fewer looks: what counts is which comes first. */
export const timing = { start: 12, apply: 6, restart: 14, image: 10 } as const
/** Seconds after which a session that nobody uses ends by itself, where it outlives its connection. */
export const lingerSeconds = 40
/** What a factory ships, as the firmware is numbered. */
export const firmwareVersions = { older: '6.9.0', wanted: '7.1.0' } as const

const country = loadRegulatory().get('NZ') as CountryRules
const can = [
  'unit.name',
  'unit.location',
  'unit.country',
  'clock.time-zone',
  'clock.ntp-servers',
  'clock.time',
  'unit.firmware',
  'management.method',
  'management.address',
  'management.prefix',
  'management.gateway',
  'management.dns-servers',
  'admin.user',
  'admin.password',
  'services.https-only',
  'services.ssh',
  'services.syslog',
  'network.ssid',
  'network.enabled',
  'network.bands',
  'network.security',
  'network.cipher',
  'network.pmf',
  'network.passphrase',
  'network.vlan',
  'network.hidden',
  'network.isolation',
  'radio.enabled',
  'radio.channel',
  'radio.width',
  'radio.power',
] as const
const ofController = ['unit.name', 'unit.location', 'management.method', 'management.address', 'management.prefix']

const radios = [
  { name: 'a', band: '2.4', widths: [20], steps: [5, 11, 17, 20], gain: 3, mostNetworks: 8 },
  { name: 'b', band: '5', widths: [20, 40, 80], steps: [5, 11, 17, 20], gain: 4, mostNetworks: 8 },
]
const common = {
  maker: 'Drawn',
  recognise: { macPrefixes: [] as string[], realm: '' },
  power: { poe: 'mains', watts: 10 },
  timing: { start: timing.start, apply: timing.apply, restart: timing.restart },
  lights: { white: 'ready', green: 'on air' },
  reset: { steps: ['Hold the button 10 s.'], seconds: 10 },
  limits: {
    namePattern: '^[a-z0-9-]+$',
    passwordShortest: 8,
    passwordLongest: 64,
    mostNetworks: 8,
    security: ['wpa2-personal', 'wpa3-personal', 'open'],
  },
}

/** What a card states; other traits are the unit's own. */
const stated = [
  'applies',
  'saves',
  'country',
  'boxed',
  'secrets',
  'sessions',
  'reachedBy',
  'speed',
  'ping',
  'firmware',
] as const

const known = new Map<string, KitCard>()
let base: KitCard | undefined

/** Reading a card is slow: one is read, always the same, and others take from it what they do not say. */
function shaped(card: KitCard): KitCard {
  base ??= kitCardSchema.parse(directCardText('plain', plainTraits, 'access-point'))
  return {
    ...base,
    ...card,
    factory: { ...base.factory, ...card.factory },
    limits: { ...base.limits, ...card.limits },
    does: { ...base.does, ...card.does },
    radios: card.radios.map((radio) => ({ ...radioDefaults, ...radio })),
    can: Object.fromEntries(
      Object.entries(card.can).map(([id, detail]) => [id, Object.assign({ readable: 'yes' }, detail)]),
    ),
    dialect:
      card.dialect.kind === 'netconf'
        ? Object.assign({ showsMac: 'yes', joinsBy: 'module' }, card.dialect)
        : card.dialect,
  } as KitCard
}
const radioDefaults = { chains: 2, leftOut: [], stepsAre: 'total', modes: [] }
function once(name: string, make: (model: string) => unknown): KitCard {
  const card = known.get(name) ?? shaped(make(name) as KitCard)
  known.set(name, card)
  return card
}

const plainTraits = { applies: 'at-once', saves: 'itself', sessions: 'many', boxed: 'static' } as UnitTraits

/** The card of a unit that is spoken to itself. */
function directCard(traits: UnitTraits, role: 'access-point' | 'controller', noAddress?: true): KitCard {
  const name = [role === 'controller' ? 'C' : 'A', ...stated.map((each) => traits[each])].join(' ')
  const card = once(name, (model) => directCardText(model, traits, role))
  return noAddress ? { ...card, factory: { ...card.factory, address: null, addressing: 'dhcp-only' } } : card
}

function directCardText(model: string, traits: UnitTraits, role: 'access-point' | 'controller'): unknown {
  return {
    ...common,
    model,
    role,
    recognise: { macPrefixes: [], realm: model },
    factory: {
      address: '192.168.77.1',
      addressing: traits.boxed,
      login: { user: 'admin', password: 'boxed' },
      port: 443,
    },
    timing: traits.firmware === 'older' && traits.sessions !== 'one-lingers' ? timing : common.timing,
    radios: role === 'controller' ? [] : radios,
    limits: { ...common.limits, ...(role === 'controller' ? { mostUnits: 32 } : {}) },
    can: Object.fromEntries(
      can
        .filter((id) => role !== 'controller' || !id.startsWith('radio.'))
        .map((id) => [id, id === 'network.passphrase' && traits.secrets !== 'shown' ? { readable: 'no' } : null]),
    ),
    does: {
      applies: traits.applies,
      saves: traits.saves,
      reachedBy: traits.reachedBy,
      countryResetsChannels: traits.country === 'resets-radios',
      ignoresPing: traits.ping === 'silent',
      sessions: traits.sessions === 'many' ? 'many' : 'one',
      slow: traits.speed === 'slow',
    },
    dialect:
      role === 'controller'
        ? { kind: 'netconf', managementInterface: 'uplink' }
        : { kind: 'restconf', managementInterface: 'uplink' },
  }
}

/** The card of a unit that hands set. */
function byHandCard({ ping }: UnitTraits): KitCard {
  return once(`H ${ping}`, (model) => ({
    ...common,
    model,
    role: 'access-point',
    factory: { address: '192.168.77.1', addressing: 'static', login: { user: 'admin', password: 'boxed' }, port: 443 },
    radios,
    can: {},
    does: { applies: 'at-once', saves: 'itself', ignoresPing: ping === 'silent' },
    dialect: { kind: 'by-hand' },
  }))
}

/**
 * What only cards of pages say: when a session that outlives its connection ends, and that whoever comes first makes
 * the admin.
 */
function ofPages(card: KitCard, { sessions }: UnitTraits, firstAdmin: true | undefined): KitCard {
  const isLingering = sessions === 'one-lingers'
  if (!isLingering && !firstAdmin) return card
  const signIn = { by: 'form', first: firstAdmin ? [{}] : [] }
  const dialect = { kind: 'pages', scheme: 'https', sessionEnds: isLingering ? lingerSeconds : 0, signIn }
  return { ...card, dialect: dialect as unknown as KitCard['dialect'] }
}

function managedCard(controller: KitCard): KitCard {
  return once(`M ${controller.model}`, (model) => ({
    ...common,
    model,
    role: 'managed-access-point',
    factory: { address: null, addressing: 'dhcp-only', login: { user: 'admin', password: 'boxed' }, port: 22 },
    radios,
    can: Object.fromEntries(
      can
        .filter((id) => id.startsWith('network.') || id.startsWith('radio.') || ofController.includes(id))
        .map((id) => [id, null]),
    ),
    does: { applies: 'at-once', saves: 'on-command' },
    dialect: { kind: 'managed', by: [modelName(controller)] },
  }))
}

/** Radios as a plan has them, by unit: the same for every simulation, so they are planned once. */
const plannedRadios = new Map<string, readonly RadioPlan[][]>()
function radioPlans(radar: SiteTraits['radar']): readonly RadioPlan[][] {
  const before = plannedRadios.get(radar)
  if (before) return before
  const card = directCard(plainTraits, 'access-point')
  const units = [0, 1, 2, 3, 4].map((index) => unitOf(index, modelName(card)))
  const brief = newBrief('Drawn site', 'NZ', 'Pacific/Auckland')
  const locks = radar === 'planned' ? ({ '5': 100 } as const) : {}
  const planning = makePlan({
    brief: { ...brief, radio: { ...brief.radio, radar: 'welcome' } },
    units,
    cards: new Map([[modelName(card), card]]),
    country,
    before: new Map(units.map((unit) => [unit.id, { ...plannedNothing, locks }])),
    effort: 'quick',
  })
  const made = planning.plans.map((plan) => [...plan.radios])
  plannedRadios.set(radar, made)
  return made
}

const unitOf = (index: number, model: string): Unit => ({
  id: `u${index}`,
  name: `ap-${index}`,
  location: index % 2 === 0 ? 'hall' : '',
  model,
  mac: `02:00:00:00:00:0${index + 1}`,
  serial: `S${index}`,
  port: index + 1,
  siteSwitch: '',
  sitePort: '',
})

export interface SimulatedJob extends Pick<AskingJob, 'brief' | 'units' | 'plans' | 'cards'> {
  readonly secrets: ReadonlyMap<string, string>
}

const plainBrief = newBrief('Drawn site', 'NZ', 'Pacific/Auckland')
const ssids = ['Crew', 'Guests']

/** Address that the plan gives to a unit. */
const plannedAddress = (index: number): string => `10.20.0.${21 + index}`

export function jobOf(traits: SiteTraits): SimulatedJob {
  const direct = traits.units.map((each, index) => {
    if (traits.byHand && index === traits.units.length - 1) return byHandCard(each)
    const role = index === 0 && traits.managed > 0 ? 'controller' : 'access-point'
    const card = directCard(each, role, traits.noAddress)
    return role === 'access-point' ? ofPages(card, each, traits.firstAdmin) : card
  })
  const [first] = direct
  const all = [...direct, ...Array.from({ length: traits.managed }, () => managedCard(first as KitCard))]
  const units = all.map((card, index) => unitOf(index, modelName(card)))
  const networks = traits.networks.map((security, index) => ({
    ...newNetwork(`n${index}`, ssids[index] ?? ''),
    security,
    openConfirmation: security === 'open' ? (ssids[index] ?? '') : '',
    bands: security === 'wpa3-personal' ? (['5'] as const) : (['2.4', '5'] as const),
  }))
  const brief: Brief = {
    ...plainBrief,
    addressing: traits.addressing,
    networks: networks as unknown as Brief['networks'],
    admin: { ...plainBrief.admin, passwords: traits.passwords },
    aftercare: {
      ...plainBrief.aftercare,
      images: all.flatMap((card, index) =>
        card.timing.image === undefined || all.findIndex((each) => each.model === card.model) !== index
          ? []
          : [
              {
                model: modelName(card),
                version: firmwareVersions.wanted,
                file: 'image.bin',
                bytes: 9,
                sha256: imageHash,
              },
            ],
      ),
    },
  }
  const radiosOf = radioPlans(traits.radar)
  const plans = new Map(
    units.map((unit, index) => [
      unit.id,
      {
        unit: unit.id,
        address: plannedAddress(index),
        radios: all[index]?.radios.length ? (radiosOf[index] ?? []) : [],
      },
    ]),
  )
  return {
    brief,
    units,
    cards: new Map(all.map((card) => [modelName(card), card])),
    plans,
    secrets: new Map([
      ...traits.networks.map(
        (_, index) => [secretName.passphrase({ id: `n${index}` }), `passphrase-of-n${index}`] as const,
      ),
      [secretName.jobPassword, 'Password-of-the-job-1'],
      ...units.map(({ id }) => [secretName.unitPassword(id), `Password-of-${id}-1`] as const),
    ]),
  }
}

export const rulesOfCountry = country
/** What every image holds, and its SHA-256. */
export const imageBytes = Buffer.from('an image.')
export const imageHash = createHash('sha256').update(imageBytes).digest('hex')
