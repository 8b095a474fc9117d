// Bundles what runs on the server's worker threads, and the browser's segmentation, whose OpenCV is too large for the pages'
// bundler. Decoders that carry their own WebAssembly stay packages.
import { build } from 'esbuild';

await build({
  entryPoints: {
    'render-worker': 'src/engine/pool/node-render-worker.ts',
    'decode-worker': 'src/server/plates/decode-worker.ts',
  },
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  external: ['libraw-wasm', 'lcms-wasm', 'sharp', 'yauzl'],
});

await build({
  entryPoints: { 'segment-worker': 'src/segment/segment.worker.ts' },
  outdir: 'public',
  bundle: true,
  platform: 'browser',
  format: 'iife',
  target: 'es2022',
  // OpenCV asks for these only where it finds itself in Node.
  external: ['fs', 'path', 'crypto'],
  logLevel: 'error',
});
