/** A kit card of what was shown: a record, cut into the parts of a card by what was done. */
import { parse, stringify } from 'yaml'
import type { SettingId } from '../catalogue/catalogue'
import type { Spoken } from '../config/outcomes'
import { firstCard } from '../kit/bare-card'
import type { Act } from './act'
import { type CardRadio, withOffered } from './card-radios'
import type { MissingPart } from './missing-part'
import type { Door, ShownRecord } from './record'
import { pressesOf, savedWords } from './saved-words'
import { alwaysOf, ats, canOf, confirmsOf, idOf, pagesOf } from './shown-fields'
import { rowsOf } from './shown-rows'
import { joinedCard, unitsOf } from './shown-units'
import { type Single, type Turn, turnsOf } from './turns'

/** Where it answers now, and what opens it out of its box. */
export interface ShownUnit extends Door {
  /** `maker model`. */
  readonly model: string
  readonly mac: string
  readonly factory: { readonly user: string; readonly password: string }
  /** What it is to be, with its secrets. */
  readonly spoken: readonly Spoken[]
  /** The access point that hands have acted for, where nobody has described its model. */
  readonly undescribed?: { readonly model: string; readonly mac: string } | undefined
}

export interface ShownCard {
  readonly yaml: string
  readonly missing: MissingPart[]
  /** A card for the model of the access points that are set through it, where they have none. */
  readonly joined: string | undefined
}

const isOf = (act: Act, id: SettingId): boolean =>
  act.does.kind === 'puts' && act.does.value.kind === 'setting' && act.does.value.id === id
const isLogin = (act: Act): boolean =>
  isOf(act, 'admin.password') || (act.does.kind === 'puts' && act.does.value.kind === 'factory')

export function shownCard(record: ShownRecord, unit: ShownUnit): ShownCard {
  const { address, scheme, port } = record.from ?? unit
  const own = record.acts.filter((act) => act.for === 'itself')
  const { turns, singles } = turnsOf(own, record.acts)
  const card = parse(firstCard(unit.model)) as Record<string, unknown>
  const missing: MissingPart[] = record.acts.flatMap((act) =>
    act.does.kind === 'puts' && act.does.value.kind === 'unknown'
      ? [{ code: 'unknown', act: act.number, label: act.label } as const]
      : [],
  )
  const passwordFills = (turn: Turn): number => turn.fills.filter(isLogin).filter((act) => !isUser(act)).length
  const at = turns.findIndex(
    (turn) => turn.press && passwordFills(turn) === 1 && turn.fills.every((act) => isLogin(act) || isUser(act)),
  )
  const signIn = turns[at]
  if (!signIn && !record.login) missing.push({ code: 'no-sign-in' })
  const first = turns.slice(0, Math.max(0, at))
  const later = turns.slice(at + 1)
  const passwordTurn = later.find((turn) => passwordFills(turn) >= 2)
  const ofNetworks = later.filter((turn) => turn.fills.some((act) => idOf(act)?.startsWith('network.')))
  const settings = later.filter(
    (turn) => turn !== passwordTurn && turn !== signIn && !ofNetworks.includes(turn) && passwordFills(turn) === 0,
  )
  const saved = savedWords([...settings, ...ofNetworks].flatMap(pressesOf))
  const pages = pagesOf(settings, saved)
  if (pages.length === 0) missing.push({ code: 'no-settings' })
  const isAddressed = settings.some(({ fills }) => fills.some((act) => idOf(act) === 'management.address'))
  if (pages.length > 0 && !isAddressed) missing.push({ code: 'no-address' })
  const rows = ofNetworks.length === 0 ? undefined : rowsOf(record, ofNetworks, singles, saved, missing)
  const isSecured = unit.spoken.some(({ id, value }) => id === 'network.security' && value !== 'open')
  if (rows && isSecured && !('network.security' in rows.fields)) missing.push({ code: 'no-security' })
  const onPages = new Set(later.flatMap(({ fills }) => fills.flatMap((act) => idOf(act) ?? [])))
  const atFirst = new Set(first.flatMap(({ fills }) => fills.flatMap((act) => idOf(act) ?? [])))
  for (const id of atFirst)
    if (!onPages.has(id) && !id.startsWith('admin.') && !id.startsWith('network.'))
      missing.push({ code: 'only-at-first', id })
  missing.push(...missingAtBands(pages))
  const bands = (card.radios as CardRadio[]).map(({ band }) => band)
  const isOnAll = rows !== undefined && !('network.bands' in rows.fields)
  const effect = singles.find(({ press }) => press.does.kind === 'press' && press.does.role === 'effect')
  const restart = singles.find(({ press }) => press.does.kind === 'press' && press.does.role === 'restart')
  const units = unitsOf(record, missing)
  const can = { ...canOf([...first, ...later]), ...(isOnAll ? { 'network.bands': null } : {}) }
  Object.assign(card, {
    radios: withOffered(card.radios as CardRadio[], own),
    recognise: { macPrefixes: [unit.mac.slice(0, 8)] },
    factory: { address, prefix: 24, addressing: 'static', login: unit.factory, port },
    can,
    does: { applies: effect ? 'staged' : 'at-once', saves: 'itself', countryResetsChannels: true },
    dialect: {
      kind: 'pages',
      engine: 'browser',
      scheme,
      signIn: record.login && !signIn ? { by: record.login, page: '/' } : formOf(signIn, first, turns),
      says: {
        ...(saved ? { saved } : {}),
        ...(signIn?.press ? { lost: signIn.press.at } : {}),
      },
      ...(record.mac ? { mac: { page: record.mac.path, at: record.mac.at } } : {}),
      pages,
      ...(rows ? { rows } : {}),
      ...(units ? { units } : {}),
      ...(isOnAll ? { networksAre: { 'network.bands': bands } } : {}),
      ...(passwordTurn ? { password: passwordPage(passwordTurn) } : {}),
      ...(effect ? effectParts(effect) : {}),
      ...(restart
        ? { restart: { page: restart.press.path, press: restart.press.at, confirms: ats(restart.confirms) } }
        : {}),
    },
  })
  return {
    yaml: `# Made by showing. Read it over: what a page says, a card believes.\n${stringify(card, { lineWidth: 118 })}`,
    missing,
    joined: unit.undescribed && units && joinedCard(record, unit.undescribed, unit.model, can),
  }
}

/** Settings that one radio of a page has a field for, and another has not. */
function missingAtBands(pages: readonly Record<string, unknown>[]): MissingPart[] {
  const radios = pages.flatMap(({ radios: own = {} }) => Object.entries(own as Record<string, object>))
  const ids = [...new Set(radios.flatMap(([, fields]) => Object.keys(fields)))]
  const bands = [...new Set(radios.map(([band]) => band))]
  const has = (id: string, band: string): boolean => radios.some(([of, fields]) => of === band && id in fields)
  return ids.flatMap((id) =>
    bands.filter((band) => !has(id, band)).map((band) => ({ code: 'not-at-band', id: id as SettingId, band }) as const),
  )
}

const isUser = (act: Act): boolean =>
  isOf(act, 'admin.user') ||
  (act.does.kind === 'puts' && act.does.value.kind === 'factory' && act.does.value.part === 'user')
/** @param first  what is asked before anybody can sign in */
function formOf(signIn: Turn | undefined, first: readonly Turn[], turns: readonly Turn[]) {
  const asked = first.map((turn) =>
    firstPage(
      turn,
      turns.filter((each) => each !== turn),
    ),
  )
  return {
    by: 'form',
    page: signIn?.path.split('#')[0] ?? '/',
    ...signInFields(signIn),
    ...(asked.length > 0 ? { first: asked } : {}),
  }
}

function signInFields(turn: Turn | undefined) {
  if (!turn) return { password: 'input[type=password]', press: 'button' }
  const user = turn.fills.find(isUser)
  const password = turn.fills.find((act) => !isUser(act))
  return { ...(user ? { user: user.at } : {}), password: password?.at, press: turn.press?.at }
}

/** What is put into a page that is asked once. */
function fillOf(act: Act): Record<string, unknown>[] {
  const { at, does } = act
  if (does.kind === 'puts' && does.value.kind === 'setting') return [{ at, setting: does.value.id, ...does.value.how }]
  return alwaysOf(act)
}

const isOfLogin = (act: Act): boolean => isLogin(act) || isUser(act)

/** A page that is asked once; it is known by what is on none of the others, its sign-in among them. */
function firstPage({ fills, press }: Turn, others: readonly Turn[]) {
  const shared = new Set(
    others.flatMap((turn) => turn.fills.flatMap(({ at }) => at.by.map((way) => JSON.stringify(way)))),
  )
  const own = fills.map((act) => ({
    act,
    at: { use: act.at.use, by: act.at.by.filter((way) => !shared.has(JSON.stringify(way))) },
  }))
  // A name and a password are asked for on the page of its sign-in too.
  const [known] = own
    .filter(({ at }) => at.by.length > 0)
    .toSorted((a, b) => Number(isOfLogin(a.act)) - Number(isOfLogin(b.act)) || b.at.by.length - a.at.by.length)
  return { sees: known?.at ?? fills[0]?.at, fills: fills.flatMap(fillOf), press: press?.at }
}

function passwordPage({ path, reach, fills, press, confirms }: Turn) {
  const old = fills.find(({ does }) => does.kind === 'puts' && does.value.kind === 'factory')
  return {
    page: path,
    ...(reach.length > 0 ? { reach: ats(reach) } : {}),
    ...(old ? { old: old.at } : {}),
    new: ats(fills.filter((act) => isOf(act, 'admin.password'))),
    press: press?.at,
    ...confirmsOf({ confirms }),
  }
}

/** What puts changes into effect stands there while some wait. */
function effectParts({ press, confirms }: Single) {
  const last = confirms.at(-1) ?? press
  const applying = last.appeared[0]
  return {
    changes: { page: press.path, waiting: press.at, applying: applying ?? '.applying' },
    apply: { page: press.path, press: press.at, ...(confirms.length > 0 ? { confirms: ats(confirms) } : {}) },
  }
}
