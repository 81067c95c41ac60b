/**
 * Django's administration, four of it at one address: the first is shown by hand in its window, the others follow by
 * the card that came of it. Users play the part of networks, the name of a site that of a unit.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { endBrowser } from '../../src/wire/browser/chromium'
import { django, djangoLogin, inDjango } from '../support/peers/django'
import { type PeerBench, peerBench } from '../support/peers/peer-bench'
import { follows, type Hands, type PeerUnit, shownOn } from '../support/peers/shown'

let bench: PeerBench
let made: string

beforeAll(async () => {
  made = mkdtempSync(join(tmpdir(), 'air-muster-django-'))
  bench = await peerBench(django(made), 4)
})
afterAll(async () => {
  await endBrowser()
  bench?.close()
  rmSync(made, { recursive: true, force: true })
})

const bands = ['2.4', '5']
const network = (ssid: string) =>
  ({ 'network.ssid': ssid, 'network.passphrase': `${ssid}-keeps-7-out`, 'network.bands': bands }) as const
const desiredOf = (index: number): Config<Clear> =>
  ({
    unit: { 'unit.name': `hall-0${index + 1}`, 'unit.location': `desk${index + 1}.hall` },
    networks: { crew: network('crew-of-hall'), guests: network('guests-of-hall') },
    radios: {},
  }) as Config<Clear>
const unit = (index: number): PeerUnit => ({
  ...{ lane: bench.lane(index), port: 8000, factory: djangoLogin, desired: desiredOf(index) },
})

async function show({ press, put, type, sees }: Hands): Promise<void> {
  await type({ label: 'Username' }, djangoLogin.user)
  await type({ label: 'Password' }, djangoLogin.password)
  await press({ text: 'Log in' })
  await press({ text: 'Sites', nth: 2 })
  await press({ text: 'example.com' })
  await put({ label: 'Domain name' }, 'unit.location')
  await put({ label: 'Display name' }, 'unit.name')
  await press({ text: 'Save' })
  await press({ text: 'Home' })
  await press({ text: 'Users' })
  // Whoever may do everything stands in no list of those who may come.
  await press({ text: 'No', nth: 2 })
  await sees({ text: '0 users' })
  const add = async (id: string): Promise<void> => {
    await press({ text: 'Add user' })
    await put({ label: 'Username' }, 'network.ssid', id)
    await put({ label: 'Password' }, 'network.passphrase', id)
    await put({ label: 'Password confirmation' }, 'network.passphrase', id)
    await press({ text: 'Save' })
    await sees({ text: 'Personal info' })
    await press({ text: 'Users', nth: 1 })
    await press({ text: 'No', nth: 2 })
    await sees({ text: 'Select user to change' })
  }
  await add('crew')
  await press({ text: 'crew-of-hall' })
  await press({ text: 'Delete' })
  await press({ text: 'Yes, I’m sure' })
  await add('crew')
  await add('guests')
}

it('is shown once, and the others follow', async () => {
  const { yaml, missing } = await shownOn(unit(0), show)
  expect(missing).toEqual([{ code: 'no-address' }])
  for (const index of [1, 2, 3]) {
    expect(await follows(unit(index), yaml)).toEqual([])
    const { unit: asked, networks } = desiredOf(index)
    const letsIn = (name = '', password = ''): string =>
      `User.objects.get(username='${name}').check_password('${password}')`
    const words = [
      'from django.contrib.auth.models import User',
      'from django.contrib.sites.models import Site',
      `print(list(Site.objects.values_list('name', 'domain')))`,
      ...Object.values(networks).map((each) => `print(${letsIn(each['network.ssid'], each['network.passphrase'])})`),
      'print(User.objects.count())',
    ]
    const kept = inDjango(made, bench.folder(index), 'shell', '-c', words.join('\n'))
    expect(kept.trim().split('\n')).toEqual([
      ...[`[('${asked['unit.name']}', '${asked['unit.location']}')]`, 'True', 'True', '3'],
    ])
  }
})
