// npm run demo: installs what is missing, starts everything, loads the demo job, opens it.
//   --headless   musters the whole example without a browser, prints the roll; exit 0 only if every unit answers
//   --small      with --headless: the job of four units alone
//   --whole      in the browser: all units of the whole example lie on the shelf
//   --boxes      in the browser: four boxes that nobody has described, to show the first of
//   --pace N     how many times faster than life the lab runs (60; 4 with --boxes, where hands turn pages that end
//                their session by themselves)
//   --port N     port of the web application (4810, or any that is free)
import { parseArgs } from 'node:util'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'

const { values } = parseArgs({
  options: {
    headless: { type: 'boolean', default: false },
    small: { type: 'boolean', default: false },
    whole: { type: 'boolean', default: false },
    boxes: { type: 'boolean', default: false },
    pace: { type: 'string' },
    port: { type: 'string', default: '4810' },
  },
})
const pace = Number(values.pace ?? (values.boxes ? 4 : 60))
const port = Number(values.port)
if (!(pace > 0 && pace <= 1000)) end(`--pace takes a number above 0 and at most 1000, not ${values.pace}.`)
if (!(Number.isInteger(port) && port > 0 && port < 65536)) end(`--port takes a port number, not ${values.port}.`)

// Side by side: one waits for the disk while the other waits for the network.
await Promise.all([ensureDebian('mariadb'), ensureNodeModules('to-run')])
const { bundleIfStale } = await import('./lib/bundle.mjs')
await bundleIfStale()
if (values.headless) {
  const { demoHeadless } = await import('./lib/demo-headless.mjs')
  if (!values.small) await ensureDebian('chromium')
  process.exitCode = await demoHeadless({ pace, size: values.small ? 'small' : 'whole' })
} else {
  if (values.whole || values.boxes) await ensureDebian('chromium')
  const { buildSiteIfStale } = await import('./lib/site.mjs')
  buildSiteIfStale()
  const { demoInBrowser } = await import('./lib/demo-in-browser.mjs')
  process.exitCode = await demoInBrowser({
    pace,
    port,
    size: values.boxes ? 'boxes' : values.whole ? 'whole' : 'small',
  })
}

function end(text) {
  process.stderr.write(`${text}\n`)
  process.exit(2)
}
