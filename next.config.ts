import type { NextConfig } from 'next'

const config: NextConfig = {
  serverExternalPackages: ['mysql2'],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // Pages are read from the database at each request: nothing is worth keeping in the browser.
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
        { key: 'X-Frame-Options', value: 'DENY' },
      ],
    },
  ],
}

export default config
