/** The runner as a process. It ends when told to, or when whoever started it is gone. */
import { hostname } from 'node:os'
import { pino } from 'pino'
import { openStore, storeOptionsFromEnvironment } from '../store/open'
import { labHost } from '../wire/host/lab'
import { Runner } from './runner'

const log = pino({ name: 'runner' }, pino.destination({ fd: 1, sync: true }))
const { AIR_MUSTER_LAB_URL: url, AIR_MUSTER_LAB_TOKEN: token } = process.env
if (!url || !token) {
  log.error('AIR_MUSTER_LAB_URL and AIR_MUSTER_LAB_TOKEN are not set: start with npm run demo')
  process.exit(2)
}
const store = openStore(storeOptionsFromEnvironment())
const ending = new AbortController()
const end = (): void => ending.abort()
process.once('SIGTERM', end)
process.once('SIGINT', end)
process.once('disconnect', end)

const runner = new Runner({ id: `${hostname()}-${process.pid}`, store, host: labHost({ url, token }), log })
log.info('ready')
await runner.run(ending.signal)
await store.close()
process.exit(0)
