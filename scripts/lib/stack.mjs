// Everything that runs: MariaDB, the lab, the runner and the web application, in one folder of data. Each is started
// again when it ends without being told to.
import { randomBytes } from 'node:crypto'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startChild, until } from './child.mjs'
import { musterCommand } from './demo-job.mjs'
import { onFreePort } from './free-port.mjs'
import { mariadbIn } from './mariadb.mjs'
import { root } from './root.mjs'
import { supervise } from './supervise.mjs'

/**
 * The demo's stack, with a lab for its wire.
 *
 * @param {{ folder: string, pace: number, web?: boolean, wantedPort?: number, shelf?: string, onPids?: (pids: number[])
 *   => void }} options
 */
export function startStack({ pace, shelf, ...options }) {
  return startParts(options, async ({ folder, env, parts }) => {
    const token = randomBytes(18).toString('base64url')
    const labAt = (port) => startLab({ folder, pace, shelf, env, token, port })
    const { child: lab, port: labPort } = await onFreePort(0, async (port) => ({ port, child: await labAt(port) }))
    parts.keep('lab', lab, () => labAt(labPort))
    const url = `http://127.0.0.1:${labPort}`
    return { env: { AIR_MUSTER_LAB_URL: url, AIR_MUSTER_LAB_TOKEN: token }, lab: { url, token } }
  })
}

/**
 * An installation on a real wire. Without `helper` the runner goes by what an ordinary user may do.
 *
 * @param {{ folder: string, interfaceName: string, helper?: { prefix: string[] }, web?: boolean, wantedPort?: number,
 *   databaseUrl?: string, onPids?: (pids: number[]) => void }} options
 */
export function startInstallation({ interfaceName, helper, ...options }) {
  return startParts(options, async ({ folder, parts, env: database }) => {
    // Brings the tables up to this release before anybody works with them.
    const { code } = await musterCommand(database, ['jobs'], 'back')
    if (code !== 0) throw new Error('The database could not be opened; its words are above.')
    const env = { AIR_MUSTER_INTERFACE: interfaceName }
    if (!helper) return { env }
    const socket = join(folder, 'helper.sock')
    const start = () => startHelper({ folder, interfaceName, socket, prefix: helper.prefix })
    parts.keep('wire helper', await start(), start)
    return { env: { ...env, AIR_MUSTER_HELPER_SOCKET: socket } }
  })
}

async function startParts({ folder, web = true, wantedPort = 4810, databaseUrl, onPids }, startWire) {
  mkdirSync(join(folder, 'logs'), { recursive: true, mode: 0o700 })
  const partsFile = join(folder, 'parts.json')
  const parts = supervise({ file: partsFile, onPids })
  try {
    const env = {
      AIR_MUSTER_ROOT: root,
      AIR_MUSTER_DB: databaseUrl ?? (await startDatabase(folder, parts)),
      AIR_MUSTER_VAULT_FILE: join(folder, 'vault.key'),
      AIR_MUSTER_FOLDER: folder,
      AIR_MUSTER_PARTS: partsFile,
      AIR_MUSTER_WINDOW_SOCKET: join(folder, 'window.sock'),
      NODE_ENV: 'production',
    }
    const wire = await startWire({ folder, env, parts })
    Object.assign(env, wire.env)
    parts.keep('runner', startRunner({ folder, env }), async () => startRunner({ folder, env }))
    const site = web ? await startSite({ folder, env, wantedPort, parts }) : undefined
    return {
      env,
      url: site?.url,
      key: site?.key,
      lab: wire.lab,
      kill: (name, signal = 'SIGKILL') => parts.child(name)?.kill(signal),
      child: (name) => parts.child(name),
      pids: () => parts.pids(),
      databaseUrl: env.AIR_MUSTER_DB,
      vaultKeyFile: env.AIR_MUSTER_VAULT_FILE,
      stop: () => parts.stop(),
    }
  } catch (error) {
    await parts.stop()
    throw error
  }
}

/** Our own server, its data in the folder. @returns its URL */
async function startDatabase(folder, parts) {
  const database = mariadbIn(join(folder, 'mariadb'))
  const { child, port } = await onFreePort(0, async (free) => ({ port: free, child: await database.startAt(free) }))
  parts.keep('database', child, () => database.startAt(port), 20_000)
  return database.urlOf(port, 'air_muster')
}

/** The one part with privilege. It ends when its input does: also where it was started through sudo. */
async function startHelper({ folder, interfaceName, socket, prefix }) {
  const logFile = join(folder, 'logs', `wire-helper-${Date.now()}.log`)
  const [uid, gid] = [process.getuid(), process.getgid()]
  const settings = {
    AIR_MUSTER_INTERFACE: interfaceName,
    AIR_MUSTER_HELPER_SOCKET: socket,
    AIR_MUSTER_HELPER_OWNER: `${uid}:${gid}`,
    AIR_MUSTER_LEDGER: join(folder, 'laptop.ledger'),
    AIR_MUSTER_TIED: 'yes',
  }
  const words = Object.entries(settings).map(([name, value]) => `${name}=${value}`)
  const [command, ...args] = [...prefix, 'env', ...words, process.execPath, join(root, 'dist/wire-helper.mjs')]
  const child = startChild(command, args, { cwd: root, logFile, channel: false, input: 'tied' })
  await until(child, 'The wire helper', () => readFileSync(logFile, 'utf8').includes('"ready":true'))
  return child
}

async function startLab({ folder, pace, shelf, env, token, port }) {
  const logFile = join(folder, 'logs', `lab-${Date.now()}.log`)
  const child = startChild(process.execPath, [join(root, 'dist/lab.mjs')], {
    cwd: root,
    logFile,
    env: {
      ...env,
      AIR_MUSTER_LAB_PACE: String(pace),
      AIR_MUSTER_LAB_TOKEN: token,
      AIR_MUSTER_LAB_PORT: String(port),
      AIR_MUSTER_LAB_MEMORY: join(folder, 'lab'),
      ...(shelf ? { AIR_MUSTER_LAB_SHELF: shelf } : {}),
    },
  })
  await until(child, 'The lab', () => readFileSync(logFile, 'utf8').includes('"ready":true'))
  return child
}

/** Starts a runner; more than one may work on the same database. */
export function startRunner({ folder, env }) {
  return startChild(process.execPath, [join(root, 'dist/runner.mjs')], {
    cwd: root,
    logFile: join(folder, 'logs', 'runner.log'),
    env,
  })
}

/** The pages. Whoever opens them shows the key of this start: the printed address carries it. */
async function startSite({ folder, env, wantedPort, parts }) {
  const { url, key, child, startAgain } = await startPages({ folder, env, wantedPort })
  // Open pages hold streams that never end by themselves, and the web process has nothing to put away.
  parts.keep('pages', child, startAgain, 1000)
  return { url, key }
}

/** The pages alone, on a database that is there; `env` names it. Whoever starts them ends the child. */
export async function startPages({ folder, env, wantedPort }) {
  const key = randomBytes(18).toString('base64url')
  const address = ownAddress()
  // Another installation may answer at this port: only the one that knows this word is ours.
  const word = randomBytes(12).toString('hex')
  const startAt = (port) =>
    startWeb({
      folder,
      env: { ...env, AIR_MUSTER_STARTED: word, AIR_MUSTER_KEY: key, AIR_MUSTER_ADDRESS: address },
      address,
      port,
      word,
    })
  const { child, port } = await onFreePort(wantedPort, async (free) => ({ port: free, child: await startAt(free) }))
  return { url: `http://${address}:${port}`, key, child, startAgain: () => startAt(port) }
}

/**
 * An address of loopback that nobody else is likely to serve at. Cookies know no ports: at 127.0.0.1 the browser would
 * show the key to whatever else it opens there, another user's server or a unit at the end of a lane.
 */
function ownAddress() {
  const [a, b, c] = randomBytes(3)
  // Neither the usual one nor an end of its range (RFC 1122, 3.2.1.3: all of 127.0.0.0/8 is this host).
  return `127.${1 + (a % 254)}.${b}.${1 + (c % 254)}`
}

async function startWeb({ folder, env, address, port, word }) {
  const child = startChild(
    process.execPath,
    [
      ...['--require', join(root, 'scripts/lib/front-gate.cjs')],
      ...[join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', address, '-p', String(port)],
    ],
    {
      cwd: root,
      logFile: join(folder, 'logs', 'web.log'),
      env: { ...env, NEXT_TELEMETRY_DISABLED: '1' },
    },
  )
  await until(child, 'The web application', async () => {
    try {
      const reply = await fetch(`http://${address}:${port}/api/health`, { signal: AbortSignal.timeout(5000) })
      // It may be up before its database: that is the database's restart to wait for, not this one's.
      return (reply.ok || reply.status === 503) && (await reply.json()).started === word
    } catch {
      return false
    }
  })
  return child
}
