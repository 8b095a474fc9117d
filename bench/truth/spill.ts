import { circuitLight } from '@/engine/readouts/circuit';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { srgb } from '@/core/color/srgb';
import { outlineRow } from '@/core/geometry/outline-row';
import type { PlatePoint } from '@/core/geometry/camera';
import { wholeRegion } from '@/core/plane/region';
import { parseScene } from '@/core/scene/parse-scene';
import { receiveFromDisk } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace } from '@/server/assets/workspace';
import { fitByHand, ORDINARY, paintByHand } from './by-hand';
import { createLightError, luminances } from './light-error';
import { ENTERED, enteredScene, litFixtures, type Notes } from './lit-scenes';
import { halfFloats, TRUTH, TRUTH_ROOT, truthIds } from './truth-files';

/** How much of the day is taken out before lamps light the plate. */
const DAY = { evenOut: Number(process.env.EVEN_OUT ?? 0), lift: Number(process.env.LIFT ?? 1) };

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-truth-'));
const space = openWorkspace(dataDir);
const renderer = createServerRenderer(space);
const never = new AbortController().signal;
const region = wholeRegion(TRUTH.width, TRUTH.height);
const SPILL = { spill: true, air: false, source: false };

async function trueLight(plate: string, group: string): Promise<Float32Array> {
  const file = await readFile(join(TRUTH_ROOT, plate, 'truth', `night_${group}.f16.gz`));
  const rgb = halfFloats(gunzipSync(file));
  const channel = (c: number) => Float32Array.from({ length: rgb.length / 3 }, (_, i) => rgb[3 * i + c]);
  return luminances({ r: channel(0), g: channel(1), b: channel(2) });
}

console.log('Spill against the path-traced truth: mean |dL*| outside lamp glass and sky, strength fitted\n');
console.log('group          by hand   fitted hand    Sundew   of fitted  of ordinary   by class');
for (const entered of ENTERED) {
  const ids = await truthIds(entered.plate);
  const received = await receiveFromDisk(dataDir, `demo/plates/${entered.plate}.jpg`);
  const { width, height } = await takePlate(space, received);
  const notes = JSON.parse(await readFile(join(TRUTH_ROOT, entered.plate, 'notes.json'), 'utf8')) as Notes;
  const fixtures = litFixtures(entered, notes);
  const scene = parseScene(enteredScene(entered, fixtures, { asset: received.hash, width, height }, DAY));
  for (const group of Object.keys(entered.groups)) {
    const lamps = fixtures
      .filter(({ circuit }) => circuit === group)
      .map(({ at, foot }) => [at.u, at.v, foot.u, foot.v] as const);
    const truth = await trueLight(entered.plate, group);
    const own = scene.fixtures.filter(({ circuit, kind }) => circuit === group && kind === 'pane');
    const counted = withoutGlass(
      ids,
      own.map(({ path }) => path),
    );
    const error = createLightError(truth, counted);
    const light = luminances(await renderer.read(circuitLight({ scene, region }, group, SPILL), never));
    const ours = error.fitted(light);
    const plate = await platesLight(scene);
    const ordinary = error.fitted(paintByHand(plate, lamps, ORDINARY)).error;
    const quick = createLightError(truth, counted, 5);
    const sizes = fitByHand((tried) => quick.fitted(paintByHand(plate, lamps, tried)).error);
    const hand = error.fitted(paintByHand(plate, lamps, sizes)).error;
    const classes = Object.entries(error.byClass(light, ours.strength))
      .map(([name, value]) => `${name} ${value.toFixed(1)}`)
      .join(', ');
    console.log(
      [
        group.padEnd(13),
        ordinary.toFixed(1).padStart(8),
        hand.toFixed(1).padStart(13),
        ours.error.toFixed(1).padStart(9),
        (ours.error / hand).toFixed(2).padStart(11),
        (ours.error / ordinary).toFixed(2).padStart(12),
        `   ${classes}`,
      ].join(' '),
    );
  }
}

/** Ids without what lies inside a group's own panes: they are lamps. */
function withoutGlass(ids: Uint8Array, panes: readonly (readonly PlatePoint[])[]): Uint8Array {
  const { width, height } = TRUTH;
  const out = ids.slice();
  const row = new Float32Array(width);
  for (const path of panes) {
    for (let y = 0; y < height; y++) {
      outlineRow(row, path, region, y);
      for (let x = 0; x < width; x++) if (row[x] > 0) out[y * width + x] = 0;
    }
  }
  return out;
}

/** Luminance of the plate itself. */
async function platesLight(scene: ReturnType<typeof parseScene>): Promise<Float32Array> {
  const codes = await space.plates.read(scene.plate.asset, region);
  const linear = Float32Array.from(codes, (code) => srgb.decode(code / 65535));
  const channel = (c: number) =>
    Float32Array.from({ length: linear.length / 3 }, (_, i) => linear[3 * i + c]);
  return luminances({ r: channel(0), g: channel(1), b: channel(2) });
}

renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
