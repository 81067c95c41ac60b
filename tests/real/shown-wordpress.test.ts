/**
 * WordPress out of its box, four of it at one address: the first is shown by hand in its window, from its first run on,
 * the others follow by the card that came of it. Tags play the part of networks, their description that of a key.
 */
import { join } from 'node:path'
import { createConnection, type RowDataPacket } from 'mysql2/promise'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { answered, type ShownRecord } from '../../src/core/showing/record'
import { endBrowser } from '../../src/wire/browser/chromium'
import { type PeerBench, peerBench } from '../support/peers/peer-bench'
import { follows, type Hands, type PeerUnit, shownOn } from '../support/peers/shown'
import { databaseOf, wordpress } from '../support/peers/wordpress'

const socket = join(inject('databaseFolder'), 'data/db.sock')
let bench: PeerBench

beforeAll(async () => {
  bench = await peerBench(wordpress(socket), 4)
})
afterAll(async () => {
  await endBrowser()
  bench?.close()
})

const network = (ssid: string): Config<Clear>['networks'][string] => ({
  ...{ 'network.ssid': ssid, 'network.passphrase': `${ssid}-keeps-7-out`, 'network.bands': ['2.4', '5'] },
})
const desiredOf = (index: number): Config<Clear> => ({
  unit: {
    'unit.name': `hall-0${index + 1}`,
    'unit.location': `by the desk ${index + 1}`,
    'clock.time-zone': 'Pacific/Auckland',
    'admin.user': 'keeper',
    'admin.password': 'Ours-since-today-7!',
  },
  networks: { crew: network('crew-of-hall'), guests: network('guests-of-hall') },
  radios: {},
})
const unit = (index: number): PeerUnit => ({
  ...{ lane: bench.lane(index), port: 80, factory: { user: '', password: '' }, desired: desiredOf(index) },
})

async function show({ press, put, type, sees, pick, go, yes }: Hands): Promise<void> {
  await put({ label: 'Site Title' }, 'unit.name')
  await put({ label: 'Username' }, 'admin.user')
  await put({ label: 'Password' }, 'admin.password')
  await type({ label: 'Your Email' }, 'somebody@box.test')
  await press({ text: 'Install WordPress' })
  await press({ text: 'Log In' })
  await put({ label: 'Username or Email Address' }, 'admin.user')
  await put({ label: 'Password' }, 'admin.password')
  await press({ text: 'Log In' })
  await sees({ text: 'At a Glance' })

  go('/wp-admin/options-general.php')
  await put({ label: 'Tagline' }, 'unit.location')
  await put({ label: 'Site Title' }, 'unit.name')
  await pick({ label: 'Timezone' }, 'Auckland')
  await press({ text: 'Save Changes' })
  await sees({ text: 'Settings saved.' })

  go('/wp-admin/edit-tags.php?taxonomy=post_tag')
  const add = async (id: string): Promise<void> => {
    await put({ label: 'Name', id: 'tag-name' }, 'network.ssid', id)
    await put({ label: 'Description', id: 'tag-description' }, 'network.passphrase', id)
    await press({ text: 'Add New Tag' })
    await sees({ text: 'Tag added.' })
  }
  await add('crew')
  await press({ text: 'crew-of-hall' })
  await press({ text: 'Delete' })
  await yes()
  await sees({ text: 'No tags found.' })
  await add('crew')
  await press({ text: 'crew-of-hall' })
  await put({ label: 'Name', id: 'name' }, 'network.ssid', 'crew')
  await put({ label: 'Description', id: 'description' }, 'network.passphrase', 'crew')
  await press({ text: 'Update' })
  await sees({ text: 'Tag updated.' })
}

/** Whatever nobody knows the meaning of is always so. */
const emailIsAlwaysSo = (record: ShownRecord): ShownRecord =>
  Object.entries(record.texts).reduce(
    (before, [number, text]) => answered(before, Number(number), { kind: 'always', text }),
    record,
  )

it('is shown once, and the others follow', async () => {
  const { yaml, missing } = await shownOn(unit(0), show, emailIsAlwaysSo)
  expect(missing).toEqual([{ code: 'no-address' }])
  const database = await createConnection({ user: 'root', socketPath: socket })
  for (const index of [1, 2, 3]) {
    expect(await follows(unit(index), yaml)).toEqual([])
    const kept = async (query: string): Promise<unknown[]> => {
      await database.query(`use ${databaseOf(bench.folder(index))}`)
      const [rows] = await database.query<string[][] & RowDataPacket[]>({ sql: query, rowsAsArray: true })
      return rows.flat()
    }
    const { unit: asked, networks } = desiredOf(index)
    const options = 'select option_value from wp_options where option_name in'
    expect(await kept(`${options} ('blogname', 'blogdescription', 'timezone_string') order by option_name`)).toEqual([
      ...[asked['unit.location'], asked['unit.name'], asked['clock.time-zone']],
    ])
    const tags =
      'select name, description from wp_terms join wp_term_taxonomy using (term_id) ' + "where taxonomy = 'post_tag'"
    expect(await kept(`${tags} order by name`)).toEqual(
      Object.values(networks).flatMap((each) => [each['network.ssid'], each['network.passphrase']]),
    )
    expect(await kept('select user_login from wp_users')).toEqual(['keeper'])
  }
  await database.end()
})
