// Bundles what runs on the server's worker threads. Decoders that carry their own WebAssembly stay packages.
import { build } from 'esbuild';

await build({
  entryPoints: {
    'render-worker': 'src/engine/node-render-worker.ts',
    'decode-worker': 'src/server/decode-worker.ts',
  },
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  external: ['libraw-wasm', 'lcms-wasm'],
});
