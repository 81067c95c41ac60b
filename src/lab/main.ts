/** The lab as a process. It tells its address on its first line, and ends with whoever started it. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'
import { z } from 'zod'
import { readRegulatoryDatabase } from '../core/regulatory/database'
import { serveControl } from './control-server'
import { Lab } from './lab'

const root = process.env.AIR_MUSTER_ROOT ?? process.cwd()
const token = process.env.AIR_MUSTER_LAB_TOKEN ?? ''

const address = z.ipv4()
const shelfSchema = z.object({
  shelf: z.array(
    z.object({
      model: z.string(),
      mac: z.string(),
      serial: z.string(),
      ships: z.enum(['silent', 'open']).optional(),
    }),
  ),
  dhcp: z
    .object({
      prefix: z.int(),
      first: address,
      last: address,
      gateway: address,
      dns: address,
      reserved: z.record(z.string(), address).default({}),
    })
    .optional(),
  silentTimeServers: z.array(z.string()).default([]),
  vlans: z.array(z.int()).default([]),
})

const onTheShelf = shelfSchema.parse(
  parse(readFileSync(process.env.AIR_MUSTER_LAB_SHELF ?? join(root, 'data/demo/shelf.yaml'), 'utf8')),
)
const lab = await Lab.open({
  pace: Number(process.env.AIR_MUSTER_LAB_PACE ?? 60),
  regulatory: readRegulatoryDatabase(readFileSync(join(root, 'data/regulatory.db'))),
  ...onTheShelf,
  memory: process.env.AIR_MUSTER_LAB_MEMORY,
})
const control = await serveControl(lab, token, Number(process.env.AIR_MUSTER_LAB_PORT ?? 0))
lab.plugInAll()
process.stdout.write(`${JSON.stringify({ ready: true, url: `http://127.0.0.1:${control.port}` })}\n`)

const end = async (): Promise<void> => {
  await control.close()
  await lab.close()
  process.exit(0)
}
for (const signal of ['SIGTERM', 'SIGINT', 'disconnect'] as const) process.once(signal, () => void end())
