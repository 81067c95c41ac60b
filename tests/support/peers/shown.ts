/** A peer is shown by hands in its window, and another set by the card that came of it. */

import { expect } from 'vitest'
import { compare, stepOf } from '../../../src/core/config/compare'
import type { Spoken } from '../../../src/core/config/outcomes'
import { type Clear, type Config, keyText, type SettingKey } from '../../../src/core/config/unit-config'
import { type DirectCard, readKitCard } from '../../../src/core/kit/kit-card'
import type { Description } from '../../../src/core/kit/page-element'
import type { MissingPart } from '../../../src/core/showing/missing-part'
import type { Noted } from '../../../src/core/showing/noted'
import { nothingShown, type ShownRecord, withNoted } from '../../../src/core/showing/record'
import { shownCard } from '../../../src/core/showing/shown-card'
import type { Hand, Told } from '../../../src/core/showing/window-talk'
import type { Dialect } from '../../../src/wire/dialect/dialect'
import type { Lane } from '../../../src/wire/host/host'
import { dialectOf } from '../../../src/wire/registry'
import { UnitWindow } from '../../../src/wire/window/unit-window'
import { sentence } from '../../../src/words/en/sentence'
import { hands } from '../hands'

type Login = { readonly user: string; readonly password: string }

/** What hands are given: they press and type, put values of the unit in, and open an address. */
export type Hands = ReturnType<typeof hands> & {
  readonly put: (
    by: Parameters<ReturnType<typeof hands>['type']>[0],
    id: SettingKey['id'],
    of?: string,
  ) => Promise<void>
  readonly go: (path: string) => void
  /** Answers who is there, where the protocol itself asks. */
  readonly logIn: () => Promise<void>
  /** From a list, by its words. */
  readonly pick: (by: Description, option: string) => Promise<void>
  /** Says yes to what a page asks in a dialog of the browser's. */
  readonly yes: () => Promise<void>
}

export interface PeerUnit {
  readonly lane: Lane
  readonly port: number
  readonly factory: Login
  readonly desired: Config<Clear>
}

export const spokenIn = ({ unit, networks, radios }: Config<Clear>): Spoken[] => {
  const of = (scope: string, values: object): Spoken[] =>
    Object.entries(values).map(([id, value]) => ({ id, of: scope, value }) as unknown as Spoken)
  return [
    ...of('', unit),
    ...Object.entries(networks).flatMap(([id, values]) => of(id, values)),
    ...Object.entries(radios).flatMap(([band, values]) => of(band, values)),
  ]
}

/** @param answer  what somebody says of what means nothing */
export async function shownOn(
  { lane, port, factory, desired }: PeerUnit,
  show: (hands: Hands) => Promise<void>,
  answer: (record: ShownRecord) => ShownRecord = (record) => record,
): Promise<{ yaml: string; missing: MissingPart[]; record: ShownRecord }> {
  const spoken = spokenIn(desired)
  const putIn: SettingKey[] = []
  let record = nothingShown
  /** Told where hands do not find what they look for. */
  let last: Noted | undefined
  const window = await UnitWindow.open(
    lane,
    async () => {},
    { scheme: 'http', port },
    async () => {},
  )
  try {
    await window.noteHands((noted) => {
      if (typeof noted !== 'string') last = noted
      record = withNoted(record, noted, { mac: lane.mac, spoken, factory, putIn })
    })
    const act = (hand: Hand): void => window.act(hand as Parameters<typeof window.act>[0])
    const own = hands({ act, placeOf: (at) => window.placeOf(at) })
    const put: Hands['put'] = async (by, id, of = '') => {
      await own.type(by, '')
      const value = spoken.find((each) => each.id === id && each.of === of)?.value
      if (value === undefined) throw new Error(`nobody said ${id} ${of}`)
      putIn.push({ id, of })
      act({ kind: 'text', text: String(value) })
    }
    let [asked, sure] = [0, 0]
    const open: { choices?: Extract<Told, { kind: 'choices' }> | undefined } = {}
    window.watch({
      told: (told) => {
        if (told.kind === 'wants-login') asked = told.question
        if (told.kind === 'asks') sure = told.question
        if (told.kind === 'choices') open.choices = told
      },
      picture: () => undefined,
    })
    const logIn = async (): Promise<void> => {
      await expect.poll(() => asked).toBeGreaterThan(0)
      act({ kind: 'login', question: asked, ...factory })
    }
    const yes = async (): Promise<void> => {
      await expect.poll(() => sure).toBeGreaterThan(0)
      act({ kind: 'answer', question: sure, says: 'yes' })
      sure = 0
    }
    const pick = async (by: Description, option: string): Promise<void> => {
      open.choices = undefined
      await own.open(by)
      await expect.poll(() => open.choices).toBeDefined()
      const { options = [], question = 0 } = open.choices ?? {}
      const at = options.findIndex(({ label }: { readonly label: string }) => label.trim() === option)
      if (at < 0) throw new Error(`it does not offer ${option}`)
      act({ kind: 'choose', question, options: [at] })
    }
    await show({ ...own, put, logIn, yes, pick, go: (path) => act({ kind: 'go', address: path }) })
  } catch (error) {
    const seen = last?.facts.map((each) => JSON.stringify(each, (_key, value) => (value === '' ? undefined : value)))
    throw new Error(`${String(error)}\nat ${last?.path}\n${seen?.join('\n')}`, { cause: error })
  } finally {
    await window.close('by-hand')
  }
  record = answer(record)
  const at = { mac: lane.mac, address: lane.address, scheme: 'http' as const, port }
  const unit = { model: 'Bench peer', ...at, factory, spoken }
  const card = shownCard(record, unit)
  // Nothing of the site goes into a card, nor any secret.
  for (const { id, value } of spoken)
    if (typeof value === 'string' && value.length >= 4 && id !== 'clock.time-zone')
      expect(card.yaml).not.toContain(value)
  return { ...card, record }
}

export function cardIn(yaml: string): DirectCard {
  const reading = readKitCard(yaml)
  if (!reading.ok) throw new Error(`${JSON.stringify(reading.faults)}\n${yaml}`)
  return reading.card as DirectCard
}

const openPages = await dialectOf('pages')
const steps = ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const

/** Set by the card alone. @returns what is otherwise than asked afterwards */
export async function follows({ lane, factory, desired }: PeerUnit, yaml: string): Promise<string[]> {
  const card = cardIn(yaml)
  const open = () => openPages(lane, card, async () => {}, desired)
  const unit = open()
  try {
    const { 'admin.user': user = factory.user, 'admin.password': password } = desired.unit
    await unit.signIn(factory, password === undefined ? undefined : { user, password })
    let stands = await unit.read('configured')
    for (const step of steps) {
      const differences = compare(desired, stands).filter((each) => stepOf(each) === step)
      if (differences.length === 0) continue
      await unit.write(differences, desired)
      stands = await unit.read('configured')
    }
    const isShown = ({ id }: { readonly id: SettingKey['id'] }): boolean => card.can[id]?.readable !== 'no'
    if (password !== undefined && !unit.madeLogin?.()) await changed({ unit, open, factory, login: { user, password } })
    return compare(desired, stands).flatMap((each) =>
      each.kind !== 'value' ? [sentence(each)] : isShown(each) ? [keyText(each)] : [],
    )
  } finally {
    unit.close()
  }
}

interface Changing {
  readonly unit: Dialect
  readonly open: () => Dialect
  readonly factory: Login
  readonly login: Login
}

/** Changes the password, and sees that it opens what the one of before does not. */
async function changed({ unit, open, factory, login }: Changing): Promise<void> {
  await unit.changePassword(login.user, login.password)
  const [before, since] = [open(), open()]
  try {
    await expect(before.signIn(factory)).rejects.toMatchObject({ kind: 'refused' })
    await since.signIn(login)
  } finally {
    before.close()
    since.close()
  }
}
