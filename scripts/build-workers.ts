// Bundles what runs on the server's worker threads; the command line, which so begins at once; and what finds edges and sees things in
// the browser, whose OpenCV and TensorFlow are too large for the pages' bundler. Decoders that carry their own WebAssembly stay packages.
import { copyFile, readFile, writeFile } from 'node:fs/promises';
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

/** Bundles for workers of the browser. */
const forBrowser = {
  outdir: 'public',
  bundle: true,
  platform: 'browser',
  format: 'iife',
  target: 'es2022',
  logLevel: 'error',
} as const;

await build({
  ...forBrowser,
  entryPoints: { 'segment-worker': 'src/segment/segment.worker.ts' },
  // OpenCV asks for these only where it finds itself in Node.
  external: ['fs', 'path', 'crypto'],
  plugins: [binaryApart],
});

await build({
  ...forBrowser,
  entryPoints: { 'detect-worker': 'src/detect/detect.worker.ts' },
  minify: true,
  external: ['fs', 'path', 'crypto', 'util', 'worker_threads', 'perf_hooks', 'os'],
});

/** What the network is served from: how it is built, its weights, and what runs it. */
const NETWORK = {
  'things.json': '@vladmandic/human/models/centernet.json',
  'things.bin': '@vladmandic/human/models/centernet.bin',
  'things.wasm': '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm',
};
for (const [name, file] of Object.entries(NETWORK)) {
  await copyFile(`node_modules/${file}`, `public/${name}`);
}
