// Everything that runs: MariaDB, the lab, the runner and the web application, in one folder of data. Each is started
// again when it ends without being told to.
import { randomBytes } from 'node:crypto'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startChild, until } from './child.mjs'
import { onFreePort } from './free-port.mjs'
import { mariadbIn } from './mariadb.mjs'
import { root } from './root.mjs'
import { supervise } from './supervise.mjs'

/**
 * @param {{ folder: string, pace: number, web?: boolean, wantedPort?: number, shelf?: string, onPids?: (pids: number[]) => void }} options
 */
export async function startStack({ folder, pace, web = true, wantedPort = 4810, shelf, onPids }) {
  mkdirSync(join(folder, 'logs'), { recursive: true, mode: 0o700 })
  const partsFile = join(folder, 'parts.json')
  const parts = supervise({ file: partsFile, onPids })
  try {
    const database = mariadbIn(join(folder, 'mariadb'))
    const { child: server, port: databasePort } = await onFreePort(0, async (port) => ({
      port,
      child: await database.startAt(port),
    }))
    parts.keep('database', server, () => database.startAt(databasePort), 20_000)
    const env = {
      AIR_MUSTER_ROOT: root,
      AIR_MUSTER_DB: database.urlOf(databasePort, 'air_muster'),
      AIR_MUSTER_VAULT_FILE: join(folder, 'vault.key'),
      AIR_MUSTER_FOLDER: folder,
      AIR_MUSTER_PARTS: partsFile,
      NODE_ENV: 'production',
    }
    const token = randomBytes(18).toString('base64url')
    const labAt = (port) => startLab({ folder, pace, shelf, env, token, port })
    const { child: lab, port: labPort } = await onFreePort(0, async (port) => ({ port, child: await labAt(port) }))
    parts.keep('lab', lab, () => labAt(labPort))
    const labUrl = `http://127.0.0.1:${labPort}`
    Object.assign(env, { AIR_MUSTER_LAB_URL: labUrl, AIR_MUSTER_LAB_TOKEN: token })
    parts.keep('runner', startRunner({ folder, env }), async () => startRunner({ folder, env }))
    const site = web ? await startSite({ folder, env, wantedPort, parts }) : undefined
    return {
      env,
      url: site?.url,
      key: site?.key,
      lab: { url: labUrl, token },
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
  const key = randomBytes(18).toString('base64url')
  // Another installation may answer at this port: only the one that knows this word is ours.
  const word = randomBytes(12).toString('hex')
  const startAt = (port) =>
    startWeb({ folder, env: { ...env, AIR_MUSTER_STARTED: word, AIR_MUSTER_KEY: key }, port, word })
  const { child, port } = await onFreePort(wantedPort, async (free) => ({ port: free, child: await startAt(free) }))
  // Open pages hold streams that never end by themselves, and the web process has nothing to put away.
  parts.keep('pages', child, () => startAt(port), 1000)
  return { url: `http://127.0.0.1:${port}`, key }
}

async function startWeb({ folder, env, port, word }) {
  const child = startChild(
    process.execPath,
    [join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
    {
      cwd: root,
      logFile: join(folder, 'logs', 'web.log'),
      env: { ...env, NEXT_TELEMETRY_DISABLED: '1' },
    },
  )
  await until(child, 'The web application', async () => {
    try {
      const reply = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(5000) })
      // It may be up before its database: that is the database's restart to wait for, not this one's.
      return (reply.ok || reply.status === 503) && (await reply.json()).started === word
    } catch {
      return false
    }
  })
  return child
}
