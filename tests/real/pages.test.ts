/**
 * Web pages that nobody here wrote: the administration of Debian's cups, which asks for HTTP Basic, has a hidden token
 * bound to a cookie in each form, and starts its service again after each page that was saved. Set and read back by a
 * card, with both engines.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { compare } from '../../src/core/config/compare'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { type DirectCard, readKitCard } from '../../src/core/kit/kit-card'
import { endBrowser } from '../../src/wire/browser/chromium'
import { dialectOf } from '../../src/wire/registry'
import { valuesIn } from '../support/config'
import { freePort } from '../support/free-port'
import { loopbackLane } from '../support/loopback-lane'
import { patience } from '../support/patience'

const mac = '02:63:75:00:00:01'
const login = { user: 'root', password: 'boxed pages' }

const openPages = await dialectOf('pages')

const cardText = (engine: string, port: number): string => `
maker: Bench
model: pages
role: access-point
recognise: { macPrefixes: ["02:63:75"], title: CUPS }
factory: { address: 127.0.0.1, prefix: 8, addressing: static, port: ${port},
  login: { user: ${login.user}, password: ${login.password} } }
power: { poe: mains, watts: 5 }
timing: { start: 2, apply: 5, restart: 5 }
lights: { none: it has none }
reset: { steps: [Make it anew.], seconds: 1 }
radios: []
limits: { namePattern: "^[0-9]+$", passwordShortest: 8, passwordLongest: 64, mostNetworks: 0 }
can: { unit.name, unit.location, services.lights, admin.user, admin.password }
does: { applies: at-once, saves: itself, reachedBy: ipv4 }
dialect:
  kind: pages
  engine: ${engine}
  scheme: http
  signIn: { by: basic, page: /admin }
  says: { saved: "img[alt='Busy Indicator']", refused: blockquote }
  mac: { page: /printers/bench, at: body, shows: "(?<value>02:63:75:[0-9a-f:]{8})" }
  pages:
    - path: /admin/?ADVANCEDSETTINGS=YES
      fields:
        unit.name: { at: "input[name=MAX_JOBS]" }
        unit.location: { at: "input[name=PRESERVE_JOB_FILES]" }
        services.lights: { at: "input[name=DEBUG_LOGGING]" }
      press: "input[name=CHANGESETTINGS]"
  password: { page: /, new: [input], press: input }
  restart: { page: /, press: input }
  air: { page: /, each: never, name: { at: b }, onAir: { at: b },
    networks: { each: li, ssid: { at: b }, security: { at: i } } }
`

let folder: string
let server: ChildProcess
let port: number
const started = (): string => {
  const file = (name: string): string => join(folder, name)
  for (const name of ['etc', 'cache', 'run', 'spool', 'log', 'tmp']) mkdirSync(file(name))
  // What serves its pages is not what administers it.
  chmodSync(folder, 0o755)
  chmodSync(file('tmp'), 0o1777)
  writeFileSync(
    file('etc/cups-files.conf'),
    `ServerRoot ${file('etc')}\nCacheDir ${file('cache')}\nStateDir ${file('run')}\nRequestRoot ` +
      `${file('spool')}\nTempDir ${file('tmp')}\nAccessLog ${file('log/access')}\nErrorLog ` +
      `${file('log/error')}\nPageLog ${file('log/page')}\nSystemGroup root\nFileDevice Yes\n`,
  )
  const guarded = (path: string): string =>
    `<Location ${path}>\n  AuthType Basic\n  Require user @SYSTEM\n  Order allow,deny\n  Allow all\n</Location>\n`
  writeFileSync(
    file('etc/cupsd.conf'),
    `LogLevel warn\nListen 127.0.0.1:${port}\nBrowsing No\nDefaultAuthType Basic\nWebInterface ` +
      `Yes\nDefaultEncryption Never\n<Location />\n  Order allow,deny\n  Allow ` +
      `all\n</Location>\n${guarded('/admin')}${guarded('/admin/conf')}<Policy default>\n  <Limit All>\n    ` +
      `Order deny,allow\n  </Limit>\n</Policy>\n`,
  )
  writeFileSync(
    file('etc/printers.conf'),
    `<Printer bench>\nInfo bench\nLocation ${mac}\nDeviceURI file:/dev/null\nState Idle\nAccepting Yes\n</Printer>\n`,
  )
  const hash = execFileSync('openssl', ['passwd', '-6', login.password], { encoding: 'utf8' }).trim()
  writeFileSync(file('shadow'), `root:${hash}:19000:0:99999:7:::\n`, { mode: 0o600 })
  return (
    `mount --bind ${file('shadow')} /etc/shadow && exec /usr/sbin/cupsd -f -c ${file('etc/cupsd.conf')} -s ` +
    `${file('etc/cups-files.conf')}`
  )
}

const kept = (): string => readFileSync(join(folder, 'etc/cupsd.conf'), 'utf8')
const lane = loopbackLane(mac)

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-pages-'))
  port = await freePort()
  server = spawn('unshare', ['-m', 'sh', '-c', started()], { stdio: 'ignore' })
  await vi.waitFor(async () => void (await lane.connect(port)).destroy(), patience)
})

afterAll(async () => {
  await endBrowser()
  const gone = new Promise((resolve) => server.once('exit', resolve))
  server.kill()
  await gone
  rmSync(folder, { recursive: true, force: true })
})

describe.each(['forms', 'browser'])('the administration of cups, turned by %s', (engine) => {
  const cardOf = (): DirectCard => {
    const reading = readKitCard(cardText(engine, port))
    if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
    return reading.card as DirectCard
  }
  const open = (desired?: Config<Clear>) => openPages(lane, cardOf(), async () => {}, desired)
  let asked: Config<Clear>
  beforeEach(() => {
    asked = {
      unit: {
        'unit.name': engine === 'forms' ? '417' : '418',
        'unit.location': '3d',
        'services.lights': engine === 'forms',
      },
      networks: {},
      radios: {},
    }
  })

  it('lets nobody in with another password', async () => {
    const unit = open()
    await expect(unit.signIn({ ...login, password: 'wrong' })).rejects.toMatchObject({ kind: 'refused' })
    unit.close()
  })

  it('is set by a card, keeps it in its own file, and shows it again after it has started anew', async () => {
    const unit = open(asked)
    await unit.signIn(login)
    const before = await unit.read('configured')
    await unit.write(compare(asked, before), asked)
    expect(valuesIn(await unit.read('configured'))).toEqual(asked)
    expect(kept()).toMatch(new RegExp(`^MaxJobs ${asked.unit['unit.name']}$`, 'm'))
    expect(kept()).toMatch(engine === 'forms' ? /^LogLevel debug/m : /^LogLevel warn/m)
    expect(compare(asked, await unit.read('configured'))).toEqual([])
    unit.close()
  })
})
