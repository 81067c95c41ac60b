// npm run messages: writes every code of the product with its sentence to docs/messages.md.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importSource } from './lib/bundle-source.mjs'
import { root } from './lib/root.mjs'

const { messagesPage } = await importSource('src/words/messages-page')
writeFileSync(join(root, 'docs/messages.md'), messagesPage())
