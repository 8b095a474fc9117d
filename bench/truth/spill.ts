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
import type { Fixture, Scene } from '@/core/scene/schema';
import { coverageOf } from '@/engine/readouts/coverage';
import { landOf } from '@/engine/readouts/land';
import { shadedWalls } from '@/state/actions/shade-guess';
import { receiveFromDisk } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace } from '@/server/assets/workspace';
import { fitByHand, ORDINARY, paintByHand } from './by-hand';
import { createLightError, luminances } from './light-error';
import { LAYOUT_ROOT } from './layout-files';
import { litLayout } from './lit-layouts';
import { ENTERED, enteredScene, litFixtures, type Entered, type Notes } from './lit-scenes';
import { halfFloats, TRUTH, TRUTH_ROOT, truthIds } from './truth-files';

/** How much of the day is taken out before lamps light the plate. */
const DAY = {
  evenOut: Number(process.env.EVEN_OUT ?? 0),
  lift: Number(process.env.LIFT ?? 1),
  walls: process.env.WALLS !== '0',
};

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-truth-'));
const space = openWorkspace(dataDir);
const renderer = createServerRenderer(space);
const never = new AbortController().signal;
const region = wholeRegion(TRUTH.width, TRUTH.height);
/** Layouts whose nights are known. */
const LIT_LAYOUTS = ['d02', 'd04', 'd06', 'd07'];
const SPILL = { spill: true, air: false, source: false };

/** A plate or layout with what a person enters for it, and where its truth lies. */
interface Pair {
  entered: Entered;
  fixtures: Fixture[];
  ids: Uint8Array;
  photo: string;
  truth: string;
}

async function platePair(entered: Entered): Promise<Pair> {
  const folder = join(TRUTH_ROOT, entered.plate);
  const notes = JSON.parse(await readFile(join(folder, 'notes.json'), 'utf8')) as Notes;
  const ids = await truthIds(entered.plate);
  const photo = `demo/plates/${entered.plate}.jpg`;
  return { entered, fixtures: litFixtures(entered, notes), ids, photo, truth: join(folder, 'truth') };
}

const layoutPair = async (name: string): Promise<Pair> => ({
  ...(await litLayout(name)),
  truth: join(LAYOUT_ROOT, name, 'truth'),
});

async function trueLight(folder: string, group: string): Promise<Float32Array> {
  const rgb = halfFloats(gunzipSync(await readFile(join(folder, `night_${group}.f16.gz`))));
  const channel = (c: number) => Float32Array.from({ length: rgb.length / 3 }, (_, i) => rgb[3 * i + c]);
  return luminances({ r: channel(0), g: channel(1), b: channel(2) });
}

/** The shade of its walls, as it is guessed where a person asks for the sun's shadow. */
async function withShades(scene: Scene): Promise<Scene> {
  const { plan } = scene;
  if (!plan.sunShadow) return scene;
  const land = await renderer.read(landOf(scene), never);
  const shadow = await renderer.read(coverageOf(scene, plan.sunShadow.matte), never);
  return { ...scene, plan: { ...plan, walls: shadedWalls(scene, land, shadow) } };
}

const outcomes: { group: string; hand: number; ours: number }[] = [];

async function hold({ entered, fixtures, ids, photo, truth: folder }: Pair): Promise<void> {
  const received = await receiveFromDisk(dataDir, photo);
  const { width, height } = await takePlate(space, received);
  const flat = parseScene(enteredScene(entered, fixtures, { asset: received.hash, width, height }, DAY));
  const scene = DAY.walls ? await withShades(flat) : flat;
  const plate = await platesLight(scene);
  for (const group of Object.keys(entered.groups)) {
    const own = fixtures.filter(({ circuit }) => circuit === group);
    const lamps = own.map(({ at, foot }) => [at.u, at.v, foot.u, foot.v] as const);
    const truth = await trueLight(folder, group);
    const panes = own.filter(({ kind }) => kind === 'pane').map(({ path }) => path);
    const counted = withoutGlass(ids, panes);
    const error = createLightError(truth, counted);
    const light = luminances(await renderer.read(circuitLight({ scene, region }, group, SPILL), never));
    const ours = error.fitted(light);
    const ordinary = error.fitted(paintByHand(plate, lamps, ORDINARY)).error;
    const quick = createLightError(truth, counted, 5);
    const sizes = fitByHand((tried) => quick.fitted(paintByHand(plate, lamps, tried)).error);
    const hand = error.fitted(paintByHand(plate, lamps, sizes)).error;
    outcomes.push({ group, hand, ours: ours.error });
    const classes = Object.entries(error.byClass(light, ours.strength))
      .map(([name, value]) => `${name} ${value.toFixed(1)}`)
      .join(', ');
    console.log(
      [
        `${entered.plate} ${group}`.padEnd(27),
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

console.log('Spill against the path-traced truth: mean |dL*| outside lamp glass and sky, strength fitted\n');
console.log(`${'group'.padEnd(27)}  by hand   fitted hand    Sundew   of fitted  of ordinary   by class`);
const chosen = (name: string) => process.argv.length < 3 || process.argv.includes(name);
for (const entered of ENTERED.filter(({ plate }) => chosen(plate))) await hold(await platePair(entered));
for (const name of LIT_LAYOUTS.filter(chosen)) await hold(await layoutPair(name));
const ratios = outcomes.map(({ ours, hand }) => ours / hand);
const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
console.log(
  `\nmean ${mean(outcomes.map(({ ours }) => ours)).toFixed(2)}, of fitted ${mean(ratios).toFixed(3)}, worst ${Math.max(...ratios).toFixed(2)}`,
);

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
