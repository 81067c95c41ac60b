import '@mantine/core/styles.css'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import '../ui/theme/tokens.css'
import { ColorSchemeScript, mantineHtmlProps } from '@mantine/core'
import type { Metadata, Viewport } from 'next'
import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { ThemeProvider } from '../ui/theme/provider'

export const metadata: Metadata = { title: 'Air Muster', description: 'Commission access points side by side.' }
export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Without it the browser would not run the script that sets the scheme: see the policy in proxy.ts.
  const nonce = (await headers()).get('x-nonce') ?? undefined
  return (
    <html lang="en" {...mantineHtmlProps}>
      <head>
        <ColorSchemeScript nonce={nonce} defaultColorScheme="auto" />
      </head>
      <body>
        <ThemeProvider>{children}</ThemeProvider>
      </body>
    </html>
  )
}
