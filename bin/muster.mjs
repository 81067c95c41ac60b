#!/usr/bin/env node
// Builds the command line if its sources are newer than what was built, then runs it.
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
process.env.AIR_MUSTER_ROOT ??= root
const { bundleIfStale } = await import('../scripts/lib/bundle.mjs')
await bundleIfStale()
await import('../dist/cli.mjs')
