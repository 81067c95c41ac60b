/**
 * Firmware: where the brief has an image and the unit runs an older one, it is given that before any setting is
 * written. Its digest is checked first, here and by the unit; what it restarts into is read, and all the rest anew.
 */

import { createHash } from 'node:crypto'
import type { FirmwareImage } from '../../core/brief/policies'
import { isAtLeast } from '../../core/input/version'
import { type Message, message } from '../../core/message/message'
import { WireError } from '../../wire/errors/wire-error'
import { tellingLights } from '../unit/explain'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { wentAway } from './address'
import { CameBackUnchanged } from './come-back'
import { save } from './save'

export async function firmware(run: UnitRun): Promise<Message> {
  const { target, journal } = run
  const wanted = target.compiled.config.unit['unit.firmware']
  if (wanted === undefined) return message('whatever-it-brings')
  const found = await versionOf(run)
  if (found !== undefined && isAtLeast(wanted, found)) return message('firmware-already', { version: found })
  const { image } = target
  if (!image) {
    journal.say(message('firmware-without-image', { found: found ?? null, wanted }))
    return message('no-image-for-it')
  }
  return run.powerTurn(async () => {
    await checked(run, image)
    // It restarts with what it has saved: networks that it ships with would be on air again.
    if (target.card.does.saves === 'on-command') await save(run)
    await install(run, image)
    const runs = await restarted(run, image, found)
    run.willChange()
    journal.say(message('firmware-now', { version: runs, before: found ?? null }))
    return message('firmware-installed', { version: runs })
  })
}

async function versionOf(run: UnitRun): Promise<string | undefined> {
  const told = (await run.inEffect()).unit['unit.firmware']
  return told?.kind === 'value' ? told.value : undefined
}

/** What was kept is read once whole before the first part of it is sent. */
async function checked({ records }: UnitRun, { sha256, file, model }: FirmwareImage): Promise<void> {
  const hash = createHash('sha256')
  for await (const part of records.fileParts(sha256)) hash.update(part)
  if (hash.digest('hex') !== sha256) throw held('image-not-kept', { file, model })
}

async function install({ records, access, journal, waits, target }: UnitRun, image: FirmwareImage): Promise<void> {
  const { sha256, file, version } = image
  const { image: seconds = 0, restart } = target.card.timing
  const waitingFor = message('installing-firmware', { version })
  await journal.tell('firmware', { kind: 'waiting', until: waits.due(seconds + restart), waitingFor })
  try {
    const { firmware } = access.dialect
    if (!firmware) throw new WireError('rejected', message('takes-no-image'))
    await firmware.install({ sha256, parts: () => records.fileParts(sha256) })
  } catch (error) {
    if (error instanceof WireError && error.kind === 'rejected')
      throw held('image-refused', { file, reason: error.told })
    throw error
  }
}

/**
 * It goes, and comes back where it was, under the login that it had.
 * @param before  version that it ran @returns the version that it runs then
 * @throws CameBackUnchanged where it runs what it ran: its power was cut before it was done
 */
async function restarted(run: UnitRun, { version }: FirmwareImage, before: string | undefined): Promise<string> {
  const { access, waits, target } = run
  const { image: seconds = 0, restart } = target.card.timing
  const { here, credentials } = access
  let wasAway = false
  const look = async (): Promise<string | undefined> => {
    await waits.pause(2)
    try {
      if (credentials) await access.signIn(credentials, here)
      return await versionOf(run)
    } catch (error) {
      if (!wentAway(error)) throw error
      wasAway = true
      return undefined
    }
  }
  const runs = await waits.until(
    async () => {
      const found = await look()
      return found !== undefined && (wasAway || found !== before) ? found : undefined
    },
    (seconds + restart) * 2 + 60,
    5,
  )
  if (runs === undefined) throw held('did-not-return', { address: here, lights: tellingLights(target.card) })
  if (isAtLeast(version, runs)) return runs
  if (runs === before) throw new CameBackUnchanged(here)
  throw held('image-not-run', { found: runs, wanted: version })
}
