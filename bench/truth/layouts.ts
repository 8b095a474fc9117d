// Says how well the lie of the land is guessed on made-up places that nobody tuned to, against their exact truth.
// A name behind it takes another take of each photo: dark, bright, warm, cold, hard, faded, grey or soft.
import { createRequire } from 'node:module';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { median } from '@/core/plane/median';
import type { EdgeStroke } from '@/core/matte/pass';
import { newScene } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { coverageOf } from '@/engine/readouts/coverage';
import { hungIn } from '@/engine/readouts/hung';
import { landOf } from '@/engine/readouts/land';
import { smallSpot } from '@/engine/readouts/small-spot';
import type { ClickedLamp } from '@/engine/stages/hung';
import { relief } from '@/engine/stages/relief';
import { DetectService } from '@/detect/detect-service';
import { SegmentService } from '@/segment/segment-service';
import { whenReady, type OpenCv } from '@/segment/opencv';
import type { Picture } from '@/segment/picture';
import { receiveBytes, receiveFromDisk } from '@/server/assets/asset-store';
import { takeCoverage } from '@/server/assets/coverage-store';
import { openWorkspace } from '@/server/assets/workspace';
import { createServerRenderer } from '@/server/output/render-service';
import { takePlate } from '@/server/scenes/intake';
import { guessedWall, newWall } from '@/state/actions/plan-actions';
import { guessPlan, type Clues } from '@/state/actions/plan-guess';
import { readNetwork } from '../../test/thing-network';
import {
  lampTwinFinds,
  sumOfFinds,
  windowErrors,
  windowShares,
  windowTwinFinds,
  type Finds,
} from './layout-alike';
import { distanceShares, lampDistances } from './layout-lamps';
import { rightStanding, stood } from './layout-standing';
import { layoutNames, placeOf, readLayout, SHOWS, type Layout } from './layout-files';
import { otherTake } from './other-takes';
import { compareCoverage, TRUTH } from './truth-files';

/** Degrees within which a wall's facing is right, and the share of what it covers that must be for it to be right. */
const FACING = { within: 10, share: 0.7 } as const;

/** Share of a wall's foot that is seen from which it is held against the truth. */
const SEEN = 0.1;

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-layouts-'));
const space = openWorkspace(dataDir);
const renderer = createServerRenderer(space);
const never = new AbortController().signal;
const ready = whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv);
const network = readNetwork();
const land = (scene: Scene) => renderer.read(landOf(scene), never);

const share = (part: number, all: number) => (all > 0 ? part / all : NaN);

async function sceneOn({ name, photo }: Layout): Promise<Scene> {
  const received = await receiveFromDisk(dataDir, photo);
  const { width, height } = await takePlate(space, received);
  return newScene(name, { asset: received.hash, width, height });
}

async function serviceOn({ photo }: Layout) {
  const { data, info } = await sharp(photo).raw().toBuffer({ resolveWithObject: true });
  const [edges, things] = [new SegmentService(ready), new DetectService(network)];
  const picture = { width: info.width, height: info.height, rgb: new Uint8Array(data) };
  for (const service of [edges, things]) service.open(picture);
  const clues: Clues = {
    straightLines: () => edges.straightLines(),
    uprightThings: () => edges.uprightThings(),
    seenThings: (horizon) => things.things(horizon),
    standingThings: (horizon) => edges.standingThings(horizon),
  };
  return { edges, clues, picture };
}

/** What the edge brush finds by strokes, kept as an asset. */
async function brushed(service: SegmentService, { width, height }: Picture, strokes: EdgeStroke[]) {
  let found: Uint8Array = new Uint8Array(width * height);
  for (const stroke of strokes) found = await service.brush(found, stroke);
  const png = await sharp(found, { raw: { width, height, channels: 1 } })
    .png()
    .toBuffer();
  return (await takeCoverage(space, await receiveBytes(dataDir, png))).asset;
}

/** The relief of a scene at the pixels of the truth: the nearest of the small copy. */
function reliefAtTruth(scene: Scene) {
  return renderer.read(async (reader) => {
    const seen = await reader.see(relief(smallSpot(reader, scene)));
    const { width, height } = seen;
    const at = (plane: Float32Array) =>
      Float32Array.from({ length: TRUTH.width * TRUTH.height }, (_, i) => {
        const x = Math.floor((((i % TRUTH.width) + 0.5) / TRUTH.width) * width);
        const y = Math.floor(((Math.floor(i / TRUTH.width) + 0.5) / TRUTH.height) * height);
        return plane[y * width + x];
      });
    const { normalX, normalY, normalZ, land: covered, unknownFacing } = seen;
    return {
      ...{ x: at(normalX), y: at(normalY), z: at(normalZ), land: at(covered), unknown: at(unknownFacing) },
    };
  }, never);
}

type ReliefAtTruth = Awaited<ReturnType<typeof reliefAtTruth>>;

const groundIou = ({ z }: ReliefAtTruth, { ids }: Layout) =>
  compareCoverage(
    z.map((value) => value ** 2),
    Float32Array.from(ids, (id) => Number(id === SHOWS.ground || id === SHOWS.water)),
  ).iou;

const skyIou = ({ land: covered }: ReliefAtTruth, { ids }: Layout) =>
  compareCoverage(
    covered.map((value) => 1 - value),
    Float32Array.from(ids, (id) => Number(id === SHOWS.sky)),
  ).iou;

/** Of the pixels of buildings on which a wall is said: how many, and how many face as they do. */
function facing(seen: ReliefAtTruth, { ids, normals }: Layout) {
  let [buildings, said, right] = [0, 0, 0];
  ids.forEach((id, i) => {
    if (id !== SHOWS.building && id !== SHOWS.pane) return;
    buildings++;
    if (seen.unknown[i] > 0.5 || seen.z[i] > 0.5) return;
    said++;
    const cos = normals[3 * i] * seen.x[i] + normals[3 * i + 1] * seen.y[i] + normals[3 * i + 2] * seen.z[i];
    if (cos > Math.cos((FACING.within * Math.PI) / 180)) right++;
  });
  return { buildings, said, right };
}

const withPlan = (scene: Scene, plan: Partial<Scene['plan']>): Scene => ({
  ...scene,
  plan: { ...scene.plan, ...plan },
});

/** How many of the walls that are said face, where they are seen, as what is there. */
async function rightWalls(scene: Scene, layout: Layout): Promise<number> {
  let right = 0;
  for (const wall of scene.plan.walls) {
    const alone = facing(await reliefAtTruth(withPlan(scene, { walls: [wall] })), layout);
    if (alone.said > 0 && alone.right >= FACING.share * alone.said) right++;
  }
  return right;
}

/** The two walls that are seen most, said along their true feet under the true horizon. */
function byHand(scene: Scene, { known }: Layout): Scene {
  const size = ({ from, to, height_m, visible }: (typeof known.walls)[number]) =>
    visible * height_m * Math.abs(Math.min(1, Math.max(0, to[0])) - Math.min(1, Math.max(0, from[0])));
  const walls = known.walls
    .filter(({ visible }) => visible > SEEN)
    .sort((a, b) => size(b) - size(a))
    .slice(0, 2)
    .map(({ from, to, height_m }) => newWall(scene, placeOf(from), placeOf(to), height_m));
  return withPlan(scene, {
    ...{ horizon: known.horizon, lens: known.focal_mm_35, eyeHeight: known.eye_height_m, walls },
  });
}

const rows: Record<string, number>[] = [];
const errors: Awaited<ReturnType<typeof windowErrors>> = [];
const [windows, lamps]: [Finds[], Finds[]] = [[], []];
const feet: Record<'guessed' | 'byHand', number[]> = { guessed: [], byHand: [] };
const hang = (scene: Scene, lamp: ClickedLamp) => renderer.read(hungIn(scene, lamp), never);
const print = (name: string, row: Record<string, number>) =>
  console.log(
    name.padEnd(8),
    ...Object.values(row).map((value) => (Number.isNaN(value) ? '-' : value.toFixed(2)).padStart(8)),
  );

for (const name of await layoutNames()) {
  const layout = await readLayout(name);
  layout.photo = await otherTake(layout.photo, process.argv[2], dataDir);
  const scene = await sceneOn(layout);
  const start = performance.now();
  const { edges: service, clues, picture } = await serviceOn(layout);
  const guess = await guessPlan(scene, clues, land);
  const seconds = (performance.now() - start) / 1000;
  const { known } = layout;
  const horizon = guess.horizon ?? scene.plan.horizon;
  const lens = guess.lens ?? scene.plan.lens;
  const eyeHeight = guess.eyeHeight ?? scene.plan.eyeHeight;
  const guessed = withPlan(scene, { horizon, lens, eyeHeight });
  const walled = withPlan(guessed, { walls: guess.walls.map((wall) => guessedWall(guessed, wall)) });
  const edges = {
    find: (strokes: EdgeStroke[]) => brushed(service, picture, strokes),
    coverage: (of: Scene, id: string) => renderer.read(coverageOf(of, id), never),
  };
  const whole = await stood(walled, guess, edges);
  const hand = byHand(scene, layout);
  const seen = await reliefAtTruth(walled);
  const faced = facing(seen, layout);
  const off = (side: 'left' | 'right') => Math.abs(horizon[side] - known.horizon[side]);
  const row = {
    sky: skyIou(seen, layout),
    ground: groundIou(await reliefAtTruth(whole), layout),
    'by hand': groundIou(await reliefAtTruth(await stood(hand, guess, edges)), layout),
    'horizon %': guess.horizon ? 100 * Math.max(off('left'), off('right')) : NaN,
    'lens %': guess.lens ? 100 * Math.abs(Math.log(lens / known.focal_mm_35)) : NaN,
    'eye %': 100 * Math.abs(Math.log(eyeHeight / known.eye_height_m)),
    walls: guess.walls.length,
    right: await rightWalls(walled, layout),
    covered: share(faced.said, faced.buildings),
    facing: share(faced.right, faced.said),
    standing: guess.posts.length + guess.things.length,
    'right ': rightStanding(guess, layout),
    seconds,
  };
  if (rows.length === 0) console.log(''.padEnd(8), ...Object.keys(row).map((key) => key.padStart(8)));
  rows.push(row);
  print(name, row);
  errors.push(...(await windowErrors(walled, layout, service)));
  windows.push(...(await windowTwinFinds(walled, layout, service)));
  lamps.push(...(await lampTwinFinds(walled, layout, service)));
  feet.guessed.push(...(await lampDistances(walled, layout, hang)));
  feet.byHand.push(...(await lampDistances(hand, layout, hang)));
}
const keys = Object.keys(rows[0]);
const over = (pick: (values: number[]) => number) =>
  Object.fromEntries(
    keys.map((key) => [key, pick(rows.map((row) => row[key]).filter((v) => !Number.isNaN(v)))]),
  );
print('median', over(median));
print(
  'least',
  over((values) => Math.min(...values)),
);
print(
  'most',
  over((values) => Math.max(...values)),
);
const tell = (name: string, values: Record<string, number>) =>
  console.log(name, ...Object.entries(values).map(([key, value]) => `${key} ${value.toFixed(2)}`));
console.log();
tell(`${errors.length} windows by a click:`, windowShares(errors.map(({ first }) => first)));
tell('the best of all that are told there:', windowShares(errors.map(({ best }) => best)));
tell('twins of windows:', sumOfFinds(windows));
tell('twins of lamps:', sumOfFinds(lamps));
tell(`${feet.guessed.length} lamps by a click, how far, by the guessed plan:`, distanceShares(feet.guessed));
tell('with two walls by hand:', distanceShares(feet.byHand));
renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
