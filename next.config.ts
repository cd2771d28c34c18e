import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'pino', 'net-snmp'],
  poweredByHeader: false,
  reactStrictMode: true,
  // CI builds once: nobody reads what the next build could be made from.
  experimental: { turbopackFileSystemCacheForBuild: !process.env.CI },
  // Types are a check of their own, `npm run typecheck`: who starts the workbench need not wait for it.
  typescript: { ignoreBuildErrors: true },
};

export default config;
