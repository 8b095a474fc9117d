import { build } from 'esbuild';

/** Bundles the server's render worker, which Next does not see. */
await build({
  entryPoints: ['src/engine/node-render-worker.ts'],
  outfile: 'dist/render-worker.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  tsconfig: 'tsconfig.json',
  logLevel: 'warning',
});
