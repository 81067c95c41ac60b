import type { NextConfig } from 'next'

const config: NextConfig = {
  serverExternalPackages: ['mysql2', '@zxcvbn-ts/core', '@zxcvbn-ts/language-common', 'pkijs', 'ssh2'],
  poweredByHeader: false,
  // Pages travel no farther than this laptop.
  compress: false,
  // npm test checks the types of everything; whoever only starts need not wait for it.
  typescript: { ignoreBuildErrors: true },
  reactStrictMode: true,
  devIndicators: false,
  // Kit lists and radio rules; what is larger comes in by the routes below api/upload. Pages travel no farther than
  // this laptop: making them small takes half of the build, for nothing. Nor is a build kept for the next one, which is
  // rare.
  experimental: {
    serverActions: { bodySizeLimit: '4mb' },
    turbopackMinify: false,
    turbopackSourceMaps: false,
    turbopackFileSystemCacheForBuild: false,
  },
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
