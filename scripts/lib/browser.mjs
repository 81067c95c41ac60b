// Debian's Chromium, the one without windows, and quiet.
import { launch } from 'puppeteer-core'

export function launchBrowser() {
  return launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    headless: 'shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-dev-shm-usage',
      '--force-color-profile=srgb',
      // Nobody watches: what moves on a page would be painted sixty times a second for nothing.
      '--force-prefers-reduced-motion',
    ],
  })
}
