// The demo job, loaded and put on the bench.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { root } from './root.mjs'

/** Runs a `muster` command against a stack; its words go to standard output, or come back. */
export function musterCommand(env, args, output = 'inherit') {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(root, 'bin/muster.mjs'), ...args], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', output === 'inherit' ? 'inherit' : 'pipe', 'inherit'],
    })
    let text = ''
    child.stdout?.on('data', (chunk) => {
      text += chunk
    })
    child.once('exit', (code) => resolve({ code: code ?? 1, text }))
  })
}

/**
 * How much of Port Ellery is rehearsed: four units for the first minutes, all that a muster sets, or four boxes that
 * nobody has described. Its job comes first.
 */
export const demoSizes = {
  small: { jobs: ['port-ellery', 'port-ellery-whole'], shelf: undefined },
  boxes: { jobs: ['pilot-house'], shelf: join(root, 'data/demo/shelf-boxes.yaml') },
  whole: { jobs: ['port-ellery-whole', 'port-ellery'], shelf: join(root, 'data/demo/shelf-whole.yaml') },
}

/** Loads the demo's jobs and has the bench of the first swept. */
export async function loadDemoJob(env, names = demoSizes.small.jobs) {
  const loaded = await musterCommand(
    env,
    ['load', ...names.map((name) => join(root, `data/demo/${name}.yaml`))],
    'back',
  )
  if (loaded.code !== 0) throw new Error(`The demo's jobs could not be loaded. ${loaded.text}`)
  await musterCommand(env, ['sweep', names[0]], 'back')
}
