import type { NextConfig } from 'next';

const headers = [
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
  { key: 'X-Frame-Options', value: 'DENY' },
];

/** What browsers may keep for good: each build asks for it by another address. */
const KEPT =
  '/:file(kernels.wasm|opencv.wasm|segment-worker.js|detect-worker.js|things.wasm|things.json|things.bin)';
const forGood = [{ key: 'Cache-Control', value: 'public, max-age=31536000, immutable' }];

const config: NextConfig = {
  poweredByHeader: false,
  // Pages come from this machine: to pack and unpack them takes longer than to send them.
  compress: false,
  // Tells what this build made from what others made.
  env: { SUNDEW_BUILD: String(Date.now()) },
  reactStrictMode: true,
  // Types are checked by `npm run check`, once.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['better-sqlite3', 'sharp', 'exifr', 'libraw-wasm', 'lcms-wasm'],
  headers: () =>
    Promise.resolve([
      { source: '/:path*', headers },
      { source: KEPT, has: [{ type: 'query', key: 'build' }], headers: forGood },
    ]),
};

export default config;
