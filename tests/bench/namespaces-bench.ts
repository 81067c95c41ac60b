/**
 * Twenty-four hosts at one address, each a network namespace with Debian's own sshd, mustered side by side over gateway
 * lanes as `npm start` does it, against one alone; in turn, ratios from one run. Once with hosts that do at once what
 * they are told, and once with hosts that take a minute to come to a new address, as equipment does: 60 to 120 s are
 * usual.
 */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { hostBench, hostJob } from '../support/hosts'
import { startInstallation } from '../support/installation'

const rounds = 3
const many = 24
const applySeconds = { 'at once': 1, 'as in life': 60 }
const root = process.env.AIR_MUSTER_ROOT ?? process.cwd()

/** Seconds from the first event of a muster of so many to its last. */
async function musterSeconds(count: number, takes: number): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-hosts-'))
  const hosts = hostBench(count, folder)
  try {
    const installation = await startInstallation(hosts.wire, join(folder, 'data'), { lanes: 'gateway' })
    try {
      const file = join(folder, 'job.yaml')
      writeFileSync(file, hostJob(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8'), count, takes))
      const loaded = await installation.muster('load', file)
      if (loaded.status !== 0) throw new Error(loaded.text)
      await installation.muster('sweep', 'port-ellery')
      await new Promise((resolve) => setTimeout(resolve, 3000))
      const { text, status } = await installation.muster('run', 'port-ellery', '--wait')
      if (status !== 0) throw new Error(`not every host answered:\n${text}`)
      return await installation.script<number>(
        `import { createConnection } from 'mysql2/promise'
        const connection = await createConnection({
          uri: process.env.AIR_MUSTER_DB.replace('mariadb:', 'mysql:'), timezone: 'Z' })
        const [rows] = await connection.query(
          'select at from events where event like \\'{"kind":"muster"%\\' order by seq')
        console.log(JSON.stringify((rows.at(-1).at - rows[0].at) / 1000))
        process.exit(0)`,
      )
    } finally {
      await installation.stop()
    }
  } finally {
    hosts.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

const median = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1] ?? Number.NaN
const line = (name: string, values: readonly number[]): string =>
  `${name.padEnd(14)} ${values.map((value) => value.toFixed(2)).join('  ')}   median ${median(values).toFixed(2)} s\n`
process.stdout.write(
  `${cpus().length} cores, hosts with sshd in network namespaces at one address, ${rounds} rounds in turn\n`,
)
for (const [name, takes] of Object.entries(applySeconds)) {
  const [one, all]: [number[], number[]] = [[], []]
  for (let round = 0; round < rounds; round += 1) {
    one.push(await musterSeconds(1, takes))
    all.push(await musterSeconds(many, takes))
  }
  process.stdout.write(
    `They move ${name}, in ${takes} s\n${line('one', one)}${line(`${many}`, all)}${many} to one      ` +
      `${(median(all) / median(one)).toFixed(3)} (wanted: at most 1.10)\n`,
  )
}
