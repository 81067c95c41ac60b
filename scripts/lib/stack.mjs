// Everything that runs: MariaDB, the lab, the runner and the web application, in one folder of data.
import { randomBytes } from 'node:crypto'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startChild, until } from './child.mjs'
import { onFreePort } from './free-port.mjs'
import { startMariadb } from './mariadb.mjs'
import { root } from './root.mjs'

/**
 * @param {{ folder: string, pace: number, web?: boolean, wantedPort?: number, shelf?: string, onStarted?: (pids: number[]) => void }} options
 */
export async function startStack({ folder, pace, web = true, wantedPort = 4810, shelf, onStarted }) {
  mkdirSync(join(folder, 'logs'), { recursive: true, mode: 0o700 })
  const started = []
  const add = (part) => {
    started.push(part)
    // Told at once: who crashes while it starts must be found by the next start too.
    onStarted?.(started.map(({ pid }) => pid))
  }
  const stop = async () => {
    for (const part of started.splice(0).reverse()) await part.stop()
  }
  try {
    const database = await startMariadb(join(folder, 'mariadb'))
    add(database)
    const env = {
      AIR_MUSTER_ROOT: root,
      AIR_MUSTER_DB: database.urlOf('air_muster'),
      AIR_MUSTER_VAULT_FILE: join(folder, 'vault.key'),
      NODE_ENV: 'production',
    }
    const lab = await startLab({ folder, pace, shelf, env })
    add(lab.child)
    Object.assign(env, { AIR_MUSTER_LAB_URL: lab.url, AIR_MUSTER_LAB_TOKEN: lab.token })
    const runner = startRunner({ folder, env })
    add(runner)
    const site = web ? await onFreePort(wantedPort, (port) => startWeb({ folder, env, port })) : undefined
    // Open pages hold streams that never end by themselves, and the web process has nothing to put away.
    if (site) add({ pid: site.child.pid, stop: () => site.child.stop(1000) })
    return { env, url: site?.url, lab, runner, pids: started.map((part) => part.pid), databaseUrl: env.AIR_MUSTER_DB, vaultKeyFile: env.AIR_MUSTER_VAULT_FILE, stop }
  } catch (error) {
    await stop()
    throw error
  }
}

async function startLab({ folder, pace, shelf, env }) {
  const token = randomBytes(18).toString('base64url')
  const logFile = join(folder, 'logs', `lab-${Date.now()}.log`)
  const child = startChild(process.execPath, [join(root, 'dist/lab.mjs')], {
    cwd: root,
    logFile,
    env: { ...env, AIR_MUSTER_LAB_PACE: String(pace), AIR_MUSTER_LAB_TOKEN: token, ...(shelf ? { AIR_MUSTER_LAB_SHELF: shelf } : {}) },
  })
  const url = await until(child, 'The lab', () => /"url":"([^"]+)"/.exec(readFileSync(logFile, 'utf8'))?.[1])
  return { child, url, token }
}

/** Starts a runner; more than one may work on the same database. */
export function startRunner({ folder, env }) {
  return startChild(process.execPath, [join(root, 'dist/runner.mjs')], { cwd: root, logFile: join(folder, 'logs', 'runner.log'), env })
}

async function startWeb({ folder, env, port }) {
  // Another installation may answer at this port: only the one that knows this word is ours.
  const word = randomBytes(12).toString('hex')
  const child = startChild(process.execPath, [join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: root,
    logFile: join(folder, 'logs', 'web.log'),
    env: { ...env, NEXT_TELEMETRY_DISABLED: '1', AIR_MUSTER_STARTED: word },
  })
  const url = `http://127.0.0.1:${port}`
  await until(child, 'The web application', async () => {
    try {
      const reply = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(5000) })
      return reply.ok && (await reply.json()).started === word
    } catch {
      return false
    }
  })
  return { child, url }
}
