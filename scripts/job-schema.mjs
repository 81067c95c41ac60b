// npm run schema: writes the published form of a job file to docs/job.schema.json.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importSource } from './lib/bundle-source.mjs'
import { root } from './lib/root.mjs'

const { jobJsonSchema } = await importSource('src/core/job/job-document')
writeFileSync(join(root, 'docs/job.schema.json'), `${JSON.stringify(jobJsonSchema(), null, 2)}\n`)
