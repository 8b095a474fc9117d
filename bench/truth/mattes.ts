import { createRequire } from 'node:module';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { findEdge, followEdge } from '@/core/matte/refine-edge';
import type { EdgeStroke } from '@/core/matte/pass';
import { wholeRegion } from '@/core/plane/region';
import type { FrameRequest } from '@/engine/frame-request';
import { newScene } from '@/core/scene/new-scene';
import type { Matte, Scene } from '@/core/scene/schema';
import { brushEdges } from '@/segment/edge-brush';
import { whenReady, type OpenCv } from '@/segment/opencv';
import { receiveBytes, receiveFromDisk } from '@/server/assets/asset-store';
import { takeCoverage } from '@/server/assets/coverage-store';
import { takePlate } from '@/server/scenes/intake';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace } from '@/server/assets/workspace';
import { newMatte } from '@/state/actions/matte-actions';
import { medianTime } from '../speed/time';
import { compareCoverage, TRUTH, truthIds, truthThing } from './truth-files';

/** Rough loops around things, as a person would draw them in one go. */
const THINGS = [
  {
    plate: 'ferry-steps',
    name: 'the traveller',
    at: { u: 0.36, v: 0.68 },
    loop: [
      0.345, 0.455, 0.385, 0.46, 0.4, 0.55, 0.41, 0.7, 0.41, 0.8, 0.395, 0.9, 0.345, 0.905, 0.32, 0.8, 0.315,
      0.66, 0.325, 0.55,
    ],
  },
  {
    plate: 'picture-house',
    name: 'the woman in blue',
    at: { u: 0.859, v: 0.7 },
    loop: [0.845, 0.58, 0.878, 0.58, 0.89, 0.66, 0.885, 0.76, 0.875, 0.8, 0.84, 0.8, 0.83, 0.7, 0.832, 0.63],
  },
  {
    plate: 'ferry-steps',
    name: 'the suitcase',
    at: { u: 0.295, v: 0.83 },
    loop: [0.255, 0.77, 0.29, 0.755, 0.33, 0.775, 0.335, 0.9, 0.3, 0.92, 0.255, 0.9],
  },
];

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-truth-'));
const space = openWorkspace(dataDir);
const renderer = createServerRenderer(space);
const never = new AbortController().signal;
const { cv } = await whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv);

async function sceneOn(plate: string): Promise<Scene> {
  const received = await receiveFromDisk(dataDir, `demo/plates/${plate}.jpg`);
  const { width, height } = await takePlate(space, received);
  return newScene(plate, { asset: received.hash, width, height });
}

/** A matte of a scene at the size of the truth, as it is seen in the editor. */
async function coverageOf(scene: Scene, matte: Matte): Promise<Float32Array> {
  const { width, height } = scene.plate;
  const region = wholeRegion(width, height);
  const request: FrameRequest = {
    scene: { ...scene, mattes: [matte] },
    region,
    show: { matte: matte.id, view: 'grey' },
  };
  const grey = await renderer.frame(request, never, (pixels) =>
    Uint8Array.from({ length: width * height }, (_, i) => pixels[4 * i]),
  );
  const small = await sharp(grey, { raw: { width, height, channels: 1 } })
    .resize({ ...TRUTH, kernel: 'cubic' })
    .extractChannel(0)
    .raw()
    .toBuffer();
  return Float32Array.from(small, (code) => code / 255);
}

const line = (name: string, { iou, error }: { iou: number; error: number }, more = '') =>
  console.log(`${name.padEnd(46)} ${iou.toFixed(3).padStart(6)}  ${error.toFixed(4).padStart(7)}  ${more}`);

console.log('Mattes against the path-traced truth\n');
console.log(`${''.padEnd(46)}    IoU    error`);
for (const plate of ['ferry-steps', 'picture-house']) {
  const scene = await sceneOn(plate);
  const truth = (await truthIds(plate)).map((id) => (id === 0 ? 1 : 0));
  const sky = newMatte(scene, 'sky');
  line(
    `${plate}: the sky in one action`,
    compareCoverage(await coverageOf(scene, sky), Float32Array.from(truth)),
  );
}
for (const { plate, name, at, loop } of THINGS) {
  const scene = await sceneOn(plate);
  const picture = await brushPicture(plate);
  const stroke: EdgeStroke = { act: 'loop', path: loop, size: 0.01 };
  const nothing = new Uint8Array(picture.width * picture.height);
  let found: Uint8Array = nothing;
  const took = await medianTime(3, () => {
    found = brushEdges(cv, picture, nothing, stroke);
  });
  const png = await sharp(found, { raw: { width: picture.width, height: picture.height, channels: 1 } })
    .png()
    .toBuffer();
  const { asset } = await takeCoverage(space, await receiveBytes(dataDir, png));
  const truth = truthThing(await truthIds(plate), 2, at, loop);
  const matte = newMatte(scene, 'edge');
  const passes = [{ ...matte.passes[0], strokes: [stroke], asset } as Matte['passes'][number]];
  for (const refine of [0, matte.refine]) {
    const coverage = await coverageOf(scene, { ...matte, passes, refine });
    line(
      `${plate}: ${name}, one loop${refine ? ', refined' : ''}`,
      compareCoverage(coverage, truth),
      `${took.toFixed(0)} ms to cut`,
    );
  }
}

async function brushPicture(plate: string) {
  const { data, info } = await sharp(`demo/plates/${plate}.jpg`)
    .resize({ width: 1600 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, rgb: new Uint8Array(data) };
}

/** Soft things over a bright ground with known coverage: hair-like strands, and a thing that is out of focus. */
function madeUp(kind: 'strands' | 'blurred') {
  const [width, height] = [480, 320];
  const truth = new Float32Array(width * height);
  const noise = (seed: number) => {
    const x = Math.sin(seed * 12.9898) * 43758.5453;
    return x - Math.floor(x);
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const far = Math.hypot(x - 240, y - 190) - 90;
      const angle = Math.atan2(y - 190, x - 240);
      const strand = Math.floor(((angle + Math.PI) / (2 * Math.PI)) * 260);
      const length = 4 + 22 * noise(strand);
      truth[y * width + x] =
        kind === 'blurred'
          ? Math.min(1, Math.max(0, 0.5 - far / 14))
          : far < 0
            ? 1
            : Math.max(0, (1 - far / length) * (0.35 + 0.65 * noise(strand + 1000)));
    }
  }
  const channel = (thing: number, ground: number) =>
    truth.map(
      (share, i) =>
        share * thing * (1 + 0.2 * noise(i)) +
        (1 - share) * ground * (1 - (0.2 * ((i / width) | 0)) / height),
    );
  const plate = { width, height, r: channel(0.1, 0.35), g: channel(0.06, 0.5), b: channel(0.04, 0.8) };
  const hard = truth.map((share) => (share > 0.5 ? 1 : 0));
  return { width, height, truth, plate, hard };
}

console.log('\nRefining a hard edge, error of the coverage\n');
for (const kind of ['strands', 'blurred'] as const) {
  const { width, height, truth, plate, hard } = madeUp(kind);
  const size = width * height;
  const lines = {
    r: new Float32Array(size),
    g: new Float32Array(size),
    b: new Float32Array(size),
    offset: new Float32Array(size),
  };
  findEdge(lines, plate, hard, 0.03);
  const refined = new Float32Array(size);
  followEdge(refined, lines, { width, height }, plate, wholeRegion(width, height));
  const [before, after] = [compareCoverage(hard, truth).error, compareCoverage(refined, truth).error];
  console.log(
    `${kind.padEnd(46)} ${before.toFixed(4)} -> ${after.toFixed(4)}: ${(after / before).toFixed(2)} of it is left`,
  );
}
renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
