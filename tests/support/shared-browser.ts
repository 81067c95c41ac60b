/** One Chromium for all tests with pages: started when the first asks for it, and ended after the last. */
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Browser } from 'puppeteer-core'
import type { TestProject } from 'vitest/node'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { launchBrowser } from '../../scripts/lib/browser.mjs'

declare module 'vitest' {
  interface ProvidedContext {
    /** Answers with the address at which the browser is spoken to. */
    browserService: string
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  let launching: Promise<Browser> | undefined
  const service = createServer((_, reply) => {
    launching ??= launchBrowser() as Promise<Browser>
    launching.then(
      (browser) => reply.end(browser.wsEndpoint()),
      (error: unknown) => reply.writeHead(500).end(String(error)),
    )
  })
  await new Promise<void>((resolve) => service.listen(0, '127.0.0.1', resolve))
  project.provide('browserService', `http://127.0.0.1:${(service.address() as AddressInfo).port}`)
  return async () => {
    service.close()
    service.closeAllConnections()
    await (await launching)?.close()
  }
}
