// Kills parts of a running installation in the middle of musters, and watches before a page whether it says so and goes
// on.

const macs = ['02:4f:52:10:6a:2c', '02:4f:52:10:6a:2d', '02:4f:52:10:6a:2e', '02:4f:32:10:6a:31']
const said = /is away|No news from Air Muster|Nobody works on the wire|was away and is back|were away and are back/

export const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms))

/** Numbers from 0 to 1 that are the same at every run of a seed (mulberry32). */
export function seeded(seed) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/**
 * One muster of four reset units in which a part is killed.
 *
 * @param {{ stack: object, page: object, part: 'database' | 'lab' | 'runner' | 'pages', moment: () => Promise<unknown>
 *   }} options
 *   `moment` is waited for between the beginning of the muster and the kill; the page has the patience of its waits
 * @returns {Promise<{ saidAfterMs: number, answeredAfterMs: number }>} from the kill on
 * @throws Error where the page says nothing, or not every unit answers in the end
 */
export async function killDuringMuster({ stack, page, part, moment }) {
  for (const mac of macs) {
    const reply = await fetch(`${stack.lab.url}/hand`, {
      method: 'POST',
      headers: { 'x-lab-token': stack.lab.token },
      body: JSON.stringify({ do: 'press-reset', mac, seconds: 12 }),
    })
    if (!reply.ok) throw new Error(`no hand at ${mac}: ${await reply.text()}`)
  }
  // What a muster before has said must be gone, or it would pass for this one's.
  await page.waitForFunction((text) => !new RegExp(text).test(document.body.innerText), { polling: 200 }, said.source)
  await page
    .locator('::-p-xpath(//button[contains(., "Muster all") or contains(., "Call the roll again")][not(@disabled)])')
    .setTimeout(page.getDefaultTimeout())
    .click()
  await page.waitForFunction(() => /Pause after this step/.test(document.body.innerText), { polling: 100 })
  await moment()
  const killed = performance.now()
  const child = stack.child(part)
  stack.kill(part)
  await child?.ended
  await page.waitForFunction((text) => new RegExp(text).test(document.body.innerText), { polling: 100 }, said.source)
  const saidAfterMs = performance.now() - killed
  await page.waitForFunction(
    () => /4 of 4 answer/.test(document.body.innerText) && /Call the roll again/.test(document.body.innerText),
    { polling: 200 },
  )
  const answeredAfterMs = performance.now() - killed
  // A part that was killed near the end may still be on its way back.
  while (!stack.child(part) || stack.child(part) === child) await rest(50)
  return { saidAfterMs, answeredAfterMs }
}
