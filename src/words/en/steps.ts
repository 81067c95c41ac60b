/** Steps of a muster, as they head a column of the roll. */
import type { Step } from '../../core/muster/procedure'

export const stepTitles: Readonly<Record<Step, string>> = {
  reach: 'Reach',
  'sign-in': 'Sign in',
  backup: 'Backup',
  firmware: 'Firmware',
  country: 'Country',
  clock: 'Clock',
  networks: 'Networks',
  radios: 'Radios',
  services: 'Services',
  password: 'Password',
  address: 'Address',
  apply: 'Apply',
  return: 'Return',
  save: 'Save',
  joined: 'Joined',
  'on-air': 'On air',
  proof: 'Proof',
}
