/** Steps of a muster in German, as they head a column of the roll. */
import type { Step } from '../../core/muster/procedure'

export const stepTitles: Readonly<Record<Step, string>> = {
  reach: 'Erreichen',
  'sign-in': 'Anmelden',
  backup: 'Sicherung',
  firmware: 'Firmware',
  country: 'Land',
  clock: 'Uhr',
  networks: 'Netze',
  radios: 'Funk',
  services: 'Dienste',
  password: 'Passwort',
  address: 'Adresse',
  apply: 'Anwenden',
  return: 'Rückkehr',
  save: 'Sichern',
  joined: 'Beigetreten',
  'on-air': 'Auf Sendung',
  proof: 'Nachweis',
}
