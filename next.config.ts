import type { NextConfig } from 'next';

const headers = [
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
  { key: 'X-Frame-Options', value: 'DENY' },
];

const config: NextConfig = {
  poweredByHeader: false,
  // Tells pictures that this build made from those of others.
  env: { SUNDEW_BUILD: String(Date.now()) },
  reactStrictMode: true,
  // Types are checked by `npm run check`, once.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['better-sqlite3', 'sharp', 'exifr', 'libraw-wasm', 'lcms-wasm'],
  headers: () => Promise.resolve([{ source: '/:path*', headers }]),
};

export default config;
