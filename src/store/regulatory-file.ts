/** The radio rules that come with the program, read once and kept. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type RegulatoryDatabase, readRegulatoryDatabase } from '../core/regulatory/database'
import { dataFolder } from './data-folder'

let regulatory: RegulatoryDatabase | undefined

/** @throws RegulatoryFormatError */
export function loadRegulatory(): RegulatoryDatabase {
  regulatory ??= readRegulatoryDatabase(readFileSync(join(dataFolder(), 'regulatory.db')))
  return regulatory
}

/** Day on which the radio rules were released, ISO 8601. */
export function regulatoryDate(): string {
  const notice = JSON.parse(readFileSync(join(dataFolder(), 'regulatory.json'), 'utf8')) as { released: string }
  return notice.released
}
