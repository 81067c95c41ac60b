/** The runner as a process. It ends when told to, or when whoever started it is gone. */
import { hostname } from 'node:os'
import { pino } from 'pino'
import { standingOfTables } from '../store/migrate'
import { openStore, storeOptionsFromEnvironment } from '../store/open'
import { rest } from '../store/rest'
import { labHost } from '../wire/host/lab'
import { linuxHost } from '../wire/host/linux'
import { plainHost } from '../wire/host/plain'
import { wireSessions } from '../wire/wire-sessions'
import { logSink } from './log-sink'
import { storedRecords } from './ports/stored-records'
import { Runner } from './runner'
import { serveWindows } from './window/window-server'

const endPatienceMs = 3000
const tablesEveryMs = 300

const log = pino({ name: 'runner' }, logSink(1))
const {
  AIR_MUSTER_LAB_URL: url,
  AIR_MUSTER_LAB_TOKEN: token,
  AIR_MUSTER_HELPER_SOCKET: helper,
  AIR_MUSTER_INTERFACE: interfaceName,
  AIR_MUSTER_WINDOW_SOCKET: windowSocket,
} = process.env
// For tests and for whoever looks for a fault: link-local addresses are left aside.
const lanes = process.env.AIR_MUSTER_LANES === 'gateway' ? 'gateway' : 'link-local-first'
const host = helper
  ? linuxHost(helper, lanes)
  : interfaceName
    ? plainHost(interfaceName)
    : url && token
      ? labHost({ url, token })
      : undefined
if (!host) {
  log.error('there is no wire to work: start with npm start, or npm run demo')
  process.exit(2)
}
// A muster that is under way waits for its database as long as it takes.
const store = openStore({ ...storeOptionsFromEnvironment(), patienceMs: Number.POSITIVE_INFINITY })
const ending = new AbortController()
const end = (): void => ending.abort()
process.once('SIGTERM', end)
process.once('SIGINT', end)
process.once('disconnect', end)

const runner = new Runner({
  id: `${hostname()}-${process.pid}`,
  records: storedRecords(store),
  host,
  sessions: wireSessions,
  log,
})
await tablesAreOurs()
log.info('ready')
const windows = windowSocket ? await serveWindows(runner.windows, windowSocket) : undefined
const running = runner.run(ending.signal)
// What waits for a database that is away is given up when this process is to end.
ending.signal.addEventListener('abort', () =>
  setTimeout(() => void store.close().catch(() => undefined), endPatienceMs).unref(),
)
await running
windows?.close()
process.exit(0)

/** The pages, or the command line, bring the tables up to date. A runner of another release works on none of them. */
async function tablesAreOurs(): Promise<void> {
  for (let told = ''; !ending.signal.aborted; ) {
    const standing = await standingOfTables(store)
    if (standing === 'as-they-should-be') return
    if (standing !== told)
      log.info(
        standing === 'older'
          ? 'the database is not up to date yet: waits for the pages'
          : 'the database is of a newer release: waits; end this one, and start the newer release',
      )
    told = standing
    await rest(tablesEveryMs, ending.signal)
  }
}
