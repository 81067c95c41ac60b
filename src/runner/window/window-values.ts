/** What the window on a unit takes from its job, and what it leaves there: values, the label, files. */
import { secretName } from '../../core/brief/brief'
import { askingWithMarks } from '../../core/config/asked'
import { loginOf } from '../../core/config/compile'
import { spokenOf } from '../../core/config/outcomes'
import { jsonIn } from '../../core/input/json'
import { ofOneBox } from '../../core/kit/kit-card'
import type { MusterEvent } from '../../core/muster/events'
import { type FileFromPages, fileFromPagesSchema } from '../../core/showing/file-from-pages'
import { keptRecord, recordIn } from '../../core/showing/kept-record'
import { typedText } from '../../core/showing/put-in'
import type { ShownRecord } from '../../core/showing/record'
import type { Hand } from '../../core/showing/window-talk'
import type { PageFile } from '../../wire/window/page-files'
import type { AwakeClock } from '../ports/awake-clock'
import type { Records } from '../ports/records'
import type { ActedFor } from './unit-showing'

export interface WindowOn {
  readonly jobId: number
  readonly unit: string
}

interface Parts {
  readonly records: Records
  readonly clock: AwakeClock
}

/** What a setting of this unit is to be, as a person would type it. */
export async function typedValueOf(
  parts: Parts,
  on: WindowOn,
  { id, of }: { id: string; of: string },
): Promise<string | undefined> {
  const found = (await spokenOfUnit(parts, on))?.spoken.find((each) => each.id === id && each.of === of)
  return found && typedText(found)
}

/** What this unit is to be, secrets included. */
export async function spokenOfUnit({ records, clock }: Parts, { jobId, unit: id }: WindowOn) {
  const [job, { secrets, times }] = await Promise.all([records.job(jobId), records.secrets(jobId)])
  const unit = job?.units.find((each) => each.id === id)
  if (!job || !unit) return undefined
  const { brief, units, plans, cards } = job
  const marked = askingWithMarks({ brief, units, plans, cards, secretTimes: times, today: clock.date() }, unit)
  const asking = marked && { ...marked, secrets }
  return asking && { unit, card: asking.card, asking, spoken: spokenOf(asking) }
}

/** An access point that is set through a unit, for which hands act; undefined where they act for the unit itself. */
export async function actedFor(parts: Parts, on: WindowOn, valuesOf: WindowOn): Promise<ActedFor | undefined> {
  const of = valuesOf.unit === on.unit ? undefined : await spokenOfUnit(parts, valuesOf)
  return of && { ...of.unit, spoken: of.spoken, isDescribed: of.card.isBare !== true }
}

export async function onLabel({ records }: Parts, jobId: number, mac: string): Promise<string | undefined> {
  return (await records.secrets(jobId)).secrets.get(secretName.labelPassword(mac))
}

/** A login that the job knows: of a unit as it comes, or as it is to be. */
export async function knownLogin(
  parts: Parts,
  on: WindowOn,
  as: 'factory' | 'to-be',
): Promise<{ user: string; password: string } | undefined> {
  const of = await spokenOfUnit(parts, on)
  if (!of) return undefined
  if (as === 'factory')
    return ofOneBox(of.card, { labelPassword: await onLabel(parts, on.jobId, of.unit.mac) }).factory.login
  const { user, password } = loginOf(of.asking)
  return password === undefined ? undefined : { user, password }
}

interface KeepParts extends Parts {
  readonly tell: (jobId: number, event: MusterEvent) => Promise<void>
}

/** What its pages offered is sealed as a copy of it; another takes the place of the one before. */
export async function keep(
  { records, clock, tell }: KeepParts,
  { jobId, unit }: WindowOn,
  mac: string,
  { name, bytes }: PageFile,
): Promise<void> {
  const text = JSON.stringify({ name, base64: Buffer.from(bytes).toString('base64') } satisfies FileFromPages)
  await records.keepBackup(jobId, mac, 'from-pages', text, clock.date())
  await tell(jobId, { kind: 'kept', unit, copy: 'from-pages' })
}

/** What was shown is sealed with the job: the next window on this unit goes on from it. */
export async function keepShowing(
  { records, clock }: Parts,
  { jobId }: WindowOn,
  mac: string,
  record: ShownRecord,
): Promise<void> {
  await records.keepBackup(jobId, mac, 'showing', keptRecord(record), clock.date())
}

export async function shownBefore(
  { records }: Pick<Parts, 'records'>,
  { jobId }: Pick<WindowOn, 'jobId'>,
  mac: string,
): Promise<ShownRecord | undefined> {
  return recordIn(await records.backup(jobId, mac, 'showing'))
}

/** A file of the job's that a page may be given; undefined where there is none. */
export async function fileOf(
  { records }: Parts,
  { jobId, unit: id }: WindowOn,
  file: Extract<Hand, { kind: 'give' }>['file'],
): Promise<PageFile | undefined> {
  const bench = await records.bench(jobId)
  const unit = bench?.units.find((each) => each.id === id)
  if (!file || !bench || !unit) return undefined
  if (file.of === 'from-pages') {
    const kept = fileFromPagesSchema.safeParse(jsonIn((await records.backup(jobId, unit.mac, 'from-pages')) ?? '')).data
    return kept && { name: kept.name, bytes: Buffer.from(kept.base64, 'base64') }
  }
  const image = bench.brief.aftercare.images.find(({ sha256 }) => sha256 === file.sha256)
  if (!image) return undefined
  const parts: Uint8Array[] = []
  for await (const part of records.fileParts(image.sha256)) parts.push(part)
  return { name: image.file, bytes: Buffer.concat(parts) }
}
