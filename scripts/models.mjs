// npm run models: reads models/*.yang through yanglint, and writes the shape of the data of units (models/shape.json)
// and the schema by which stand-ins take it (models/tree-schema.ts).
import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './lib/root.mjs'
import { compiledModels } from './lib/yang.mjs'
import { shapeOf, treeSchemaText } from './lib/yang-shape.mjs'

const models = compiledModels()
const files = {
  'models/shape.json': JSON.stringify(shapeOf(models)),
  'models/tree-schema.ts': treeSchemaText(models),
}
for (const [file, text] of Object.entries(files)) writeFileSync(join(root, file), text)
spawnSync('npx', ['biome', 'check', '--write', ...Object.keys(files)], { cwd: root, stdio: 'inherit' })
