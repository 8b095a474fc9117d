// Bundles what runs on the server's worker threads; the command line, which so begins at once; and the browser's segmentation,
// whose OpenCV is too large for the pages' bundler. Decoders that carry their own WebAssembly stay packages.
import { readFile, writeFile } from 'node:fs/promises';
import { build, type Plugin } from 'esbuild';

/** Bundles for Node. */
const forNode = {
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
} as const;

await build({ ...forNode, entryPoints: { render: 'scripts/render.ts' }, packages: 'external' });

await build({
  ...forNode,
  entryPoints: {
    'render-worker': 'src/engine/pool/node-render-worker.ts',
    'decode-worker': 'src/server/plates/decode-worker.ts',
  },
  external: ['libraw-wasm', 'lcms-wasm', 'sharp', 'yauzl'],
});

/** OpenCV's WebAssembly as text, as its package holds it. */
const BINARY_AS_TEXT = /"data:application\/octet-stream;base64,([A-Za-z0-9+/=]+)"/;

/** Puts OpenCV's WebAssembly into a file of its own: browsers compile such a file as it comes, and keep what they compiled. */
const binaryApart: Plugin = {
  name: 'binary-apart',
  setup: (build) =>
    build.onLoad({ filter: /opencv\.js$/ }, async ({ path }) => {
      const source = await readFile(path, 'utf8');
      const text = BINARY_AS_TEXT.exec(source)?.[1];
      if (!text) throw new Error(`${path} holds no WebAssembly where it is looked for.`);
      await writeFile('public/opencv.wasm', Buffer.from(text, 'base64'));
      return { contents: source.replace(BINARY_AS_TEXT, '"opencv.wasm" + self.location.search') };
    }),
};

await build({
  entryPoints: { 'segment-worker': 'src/segment/segment.worker.ts' },
  outdir: 'public',
  bundle: true,
  platform: 'browser',
  format: 'iife',
  target: 'es2022',
  // OpenCV asks for these only where it finds itself in Node.
  external: ['fs', 'path', 'crypto'],
  plugins: [binaryApart],
  logLevel: 'error',
});
