/**
 * No room: for log lines, in the database, on the whole disk. Nothing ends over it, and all goes on when there is room.
 */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { closeSync, mkdirSync, mkdtempSync, openSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { answers } from '../../src/core/muster/roll'
import { orderState } from '../../src/store/orders'
import { openBench } from '../support/bench'
import { isLong, longIt, shortIt } from '../support/long'
import { openBrowser, openSite } from '../support/site'

const root = join(import.meta.dirname, '../..')
let folder: string
let mounted = false
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-full-'))
})
afterEach(() => {
  if (mounted) spawnSync('umount', ['-l', folder])
  mounted = false
  rmSync(folder, { recursive: true, force: true })
})

shortIt('a runner whose log has no room works on', async () => {
  const bench = await openBench()
  // Every write to it fails as on a full disk.
  const full = openSync('/dev/full', 'w')
  let runner: ChildProcess | undefined
  try {
    runner = spawn(process.execPath, [join(root, 'dist/runner.mjs')], {
      cwd: root,
      env: { ...process.env, ...bench.env },
      stdio: ['ignore', full, full],
    })
    await bench.order()
    const roll = await bench.settled()
    expect([...roll.rows.values()].filter(answers)).toHaveLength(4)
    expect(runner.exitCode).toBeNull()
  } finally {
    closeSync(full)
    const gone = new Promise((resolve) => runner?.once('exit', resolve))
    runner?.kill('SIGTERM')
    await gone
    await bench.close()
  }
})

longIt('a muster waits for a database that has no room for its events, and goes on when there is some', async () => {
  const bench = await openBench({ pace: 40 })
  try {
    const stop = bench.startRunner()
    const order = await bench.order()
    await expect.poll(async () => [...(await bench.roll()).rows.values()].some((row) => row.steps.networks)).toBe(true)
    // The server's own answer where a table space has no room: a full one cannot be emptied again without room.
    await bench.store.db.execute(
      sql`create trigger no_room before insert on events for each row signal sqlstate 'HY000' set mysql_errno =
        1114, message_text = 'The table is full'`,
    )
    await new Promise((resolve) => setTimeout(resolve, 300))
    const before = (await bench.roll()).seq
    await new Promise((resolve) => setTimeout(resolve, 4000))
    expect([(await bench.roll()).seq, (await orderState(bench.store, order))?.status]).toEqual([before, 'claimed'])
    await bench.store.db.execute(sql`drop trigger no_room`)
    const roll = await bench.settled()
    expect([...roll.rows.values()].filter(answers)).toHaveLength(4)
    await stop().catch(() => undefined)
  } finally {
    await bench.close()
  }
})

/** A disk of its own takes a mount, and that takes root; an ordinary user has the two tests above. */
const mayMount =
  process.getuid?.() === 0 &&
  spawnSync('sh', ['-c', 'd=$(mktemp -d) && mount -t tmpfs -o size=1m tmpfs "$d" && umount "$d" && rmdir "$d"'])
    .status === 0
it.runIf(isLong && mayMount)(
  'a page says that the disk is full while a muster is under way, and all units answer when there is room',
  async () => {
    expect(spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=420m', 'tmpfs', folder]).status).toBe(0)
    mounted = true
    const browser = await openBrowser()
    const data = join(folder, 'data')
    mkdirSync(data)
    const site = await openSite(browser, { pace: 40, folder: data })
    try {
      await site.page.setViewport({ width: 1280, height: 800 })
      await site.go('muster')
      await site.press('Muster all 4')
      await site.page.waitForSelector('[data-kind="waiting"]')
      const junk = join(folder, 'junk')
      const { bavail, bsize } = statfsSync(folder)
      writeFileSync(junk, Buffer.alloc(bavail * bsize))
      await site.sees('The disk of this laptop is full')
      await new Promise((resolve) => setTimeout(resolve, 3000))
      rmSync(junk)
      await site.page.waitForFunction(() => !document.body.innerText.includes('The disk of this laptop is full'))
      await site.sees('4 of 4 answer')
    } finally {
      await site.close()
      await browser.close()
    }
  },
)
