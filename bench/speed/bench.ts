import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { setNight, setPlan } from '@/core/scene/commands';
import { setCircuit, setFixture } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import { newScene, PLAIN_SURFACE } from '@/core/scene/new-scene';
import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { isDragged, KIND_NAMES } from '@/core/fixture/kinds';
import type { Fixture, Matte, Night, Scene } from '@/core/scene/schema';
import { findEdge, followEdge, refineWidth } from '@/core/matte/refine-edge';
import type { RgbPlanes } from '@/core/plane/plane';
import { wholeRegion } from '@/core/plane/region';
import { receiveBytes, receiveFromDisk } from '@/server/assets/asset-store';
import { beginScene, takePlate } from '@/server/scenes/intake';
import { takeLut } from '@/server/assets/lut-store';
import { openScene } from '@/server/scenes/scene-repository';
import { encodePicture, renderRgb } from '@/server/output/render-picture';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace } from '@/server/assets/workspace';
import { createArena } from '@/engine/memory/arena';
import { createDirectPool } from '@/engine/pool/direct-pool';
import { createKernels, KERNEL_SCRATCH } from '@/engine/kernels/kernels';
import { createNodePool, loadKernels } from '@/engine/pool/node-pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { circuitLight } from '@/engine/readouts/circuit';
import { surveySize } from '@/engine/sizes';
import { newCircuit, newFixture } from '@/state/actions/fixture-actions';
import { newMatte } from '@/state/actions/matte-actions';
import { medianTime, report } from './time';

const PLATE = 'demo/plates/ferry-steps.jpg';
const PREVIEW = { width: 1600, height: 1067 };
const LAMPS = 8;
const RUNS = 9;

/** An entry of a made-up cube: a little colder than what it is given. */
function entry(i: number): string {
  const [r, g, b] = [i % 33, Math.floor(i / 33) % 33, Math.floor(i / 33 ** 2)].map((place) => place / 32);
  return `${(0.9 * r).toFixed(5)} ${(0.95 * g).toFixed(5)} ${b.toFixed(5)}`;
}

/** A scene with a number of lamps on two circuits. */
function litScene(plate: Scene['plate'], lamps: number): Scene {
  const scene = newScene('Bench', plate, 28);
  const circuits = ['a', 'b'].map((id) => ({ ...newCircuit(scene), id, name: id }));
  const fixtures: Fixture[] = Array.from({ length: lamps }, (_, i) => ({
    ...newFixture(scene, 'globe', { u: 0.1 + (0.8 * i) / lamps, v: 0.3 }, [], circuits[i % 2]),
    id: `lamp-${i}`,
  }));
  return { ...scene, circuits, fixtures };
}

/** Twelve circuits with five fixtures each, kind after kind. */
function fullDesk(plate: Scene['plate']): Scene {
  const scene = newScene('Desk', plate, 28);
  const circuits = Array.from({ length: 12 }, (_, k) => ({
    ...newCircuit(scene),
    id: `c${k}`,
    name: `c${k}`,
  }));
  const fixtures = Array.from({ length: 60 }, (_, i): Fixture => {
    const kind = KIND_NAMES[i % KIND_NAMES.length];
    const at = { u: 0.08 + 0.014 * i, v: 0.3 + 0.05 * (i % 5) };
    const corners = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([x, y]) => ({ u: at.u + 0.012 * x, v: at.v + 0.02 * y }));
    const path = kind === 'pane' ? corners : isDragged(kind) || kind === 'tube' ? corners.slice(0, 2) : [];
    return { ...newFixture(scene, kind, at, path, circuits[i % 12]), id: `f${i}`, gel: kelvinGel(2700) };
  });
  return { ...scene, circuits, fixtures };
}

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-bench-'));
const space = openWorkspace(dataDir);
const received = await receiveFromDisk(dataDir, PLATE);
const { width, height } = await takePlate(space, received);
const plate = { asset: received.hash, width, height };
const renderer = createServerRenderer(space);
const never = new AbortController().signal;
const scene = litScene(plate, LAMPS);
const region = wholeRegion(PREVIEW.width, PREVIEW.height);
const small = surveySize(plate);
const coarse = wholeRegion(small.width, small.height);

const show = (next: Scene, at = region, moving?: string) =>
  renderer.frame({ scene: next, region: at, moving: fixtureOf(moving) }, never, () => {});
const fixtureOf = (id?: string) => scene.fixtures.find((fixture) => fixture.id === id);

/** What a mix of two layers reads: plate, night, distance, land, and spill, air of each. */
const pixels = PREVIEW.width * PREVIEW.height;
const source = new Float32Array(pixels * (3 + 3 + 1 + 1 + 2 * 2));
const target = new Float32Array(source.length);
const copy = await medianTime(31, () => target.set(source));
console.log(
  `Preview ${PREVIEW.width} x ${PREVIEW.height}, ${LAMPS} lamps on 2 circuits, Node worker threads\n`,
);
report(`plain copy of ${((source.byteLength / 2 ** 20) | 0).toString()} MiB, one thread`, copy);
const copied = { to: 'the copy', of: copy };

await show(scene);
await show(scene, coarse);
let turn = 0;
const fader = await medianTime(RUNS, () =>
  show(runCommand(scene, setCircuit('level', 'a', { level: -++turn / 10 })).scene),
);
report('fader move to new frame', fader, copied);

const night = (more: Partial<Night> = {}) =>
  runCommand(scene, setNight('Exposure', { exposure: -3 - ++turn / 100, ...more })).scene;
report('exposure move to new frame', await medianTime(RUNS, () => show(night())), copied);
const { shape, byTone } = scene.night;
const shaped = { shape: { ...shape, middle: 0.2, ceiling: 0.8 }, byTone: { ...byTone, strength: 0.4 } };
report('the same, tones shaped and coloured', await medianTime(RUNS, () => show(night(shaped))), copied);
const cube = ['LUT_3D_SIZE 33', ...Array.from({ length: 33 ** 3 }, (_, i) => entry(i))].join('\n');
const { asset } = await takeLut(space, await receiveBytes(dataDir, Buffer.from(cube)));
const looked = { ...shaped, lut: { asset, name: 'bench', strength: 0.7 } };
report(
  'the same, through a look-up table of 33 a side',
  await medianTime(RUNS, () => show(night(looked))),
  copied,
);
const evened = () => runCommand(scene, setNight('Even out', { evenOut: 0.3 + (++turn % 50) / 100 })).scene;
report('even out to new frame', await medianTime(RUNS, () => show(evened())), copied);

const moved = () =>
  runCommand(
    scene,
    setFixture('move', 'lamp-2', { at: { u: 0.3 + ++turn / 1000, v: 0.3 }, foot: scene.fixtures[2].foot }),
  ).scene;
report(
  'lamp move to new frame, coarse',
  await medianTime(RUNS, () => show(moved(), coarse, 'lamp-2')),
  copied,
);
report('lamp move to new frame, fine', await medianTime(RUNS, () => show(moved(), region, 'lamp-2')), copied);

const walled = runCommand(
  scene,
  setPlan('Walls', {
    walls: [
      {
        id: 'w',
        name: 'Kiosk',
        foot: [
          { u: -0.5, v: 0.75 },
          { u: 0.212, v: 0.7275 },
          { u: 0.249, v: 0.681 },
        ],
        height: 3,
        ...PLAIN_SURFACE,
      },
      {
        id: 'f',
        name: 'Far',
        foot: [
          { u: 0.11, v: 0.548 },
          { u: 1.5, v: 0.55 },
        ],
        height: 12,
        ...PLAIN_SURFACE,
      },
    ],
  }),
).scene;
await show(walled);
await show(walled, coarse);
const movedBefore = () =>
  runCommand(
    walled,
    setFixture('move', 'lamp-2', { at: { u: 0.3 + ++turn / 1000, v: 0.3 }, foot: scene.fixtures[2].foot }),
  ).scene;
report(
  'the same before two walls, coarse',
  await medianTime(RUNS, () => show(movedBefore(), coarse, 'lamp-2')),
  copied,
);
report(
  'the same before two walls, fine',
  await medianTime(RUNS, () => show(movedBefore(), region, 'lamp-2')),
  copied,
);
console.log('\nLamps, everything they do computed anew, 1600 x 1067 before two walls\n');
for (const lamps of [1, 10, 100]) {
  const many = { ...litScene(plate, lamps), plan: walled.plan };
  const anew = () => ({
    ...many,
    fixtures: many.fixtures.map((fixture) => ({ ...fixture, lumens: 1000 + ++turn / 100 })),
  });
  const took = await medianTime(lamps > 10 ? 1 : 3, () => show(anew()));
  report(`${lamps} lamps: ${(took / lamps).toFixed(0)} ms a lamp`, took, copied);
}

console.log('\nA full desk: 12 circuits, 60 fixtures of all kinds, 1600 x 1067\n');
{
  const arena = createArena(1536 * 2 ** 20);
  const own = createRenderer(
    arena,
    createNodePool(arena),
    {
      codes: (file, part) => space.plates.read(file, part),
      lut: () => Promise.reject(new Error('no look-up table')),
      coverage: () => Promise.reject(new Error('no coverage')),
    },
    512 * 2 ** 20,
  );
  const desk = fullDesk(plate);
  const draw = (next: Scene) => own.frame({ scene: next, region }, never, () => {});
  const began = performance.now();
  await draw(desk);
  report('first frame, everything computed', performance.now() - began);
  const planes = 3 + 3 + 1 + 1 + 2 * desk.circuits.length;
  const [read, written] = [new Float32Array(pixels * planes), new Float32Array(pixels * planes)];
  const copies = await medianTime(9, () => written.set(read));
  report(`plain copy of the ${planes} planes that a fader reads, one thread`, copies);
  const levelled = () => runCommand(desk, setCircuit('level', 'c3', { level: -++turn / 50 })).scene;
  report('a fader', await medianTime(RUNS, () => draw(levelled())), { to: 'that copy', of: copies });
  const warmed = () => runCommand(desk, setCircuit('warmth', 'c3', { warmth: ++turn % 100 })).scene;
  report('the warmth of a circuit', await medianTime(RUNS, () => draw(warmed())), {
    to: 'that copy',
    of: copies,
  });
  console.log(`memory in use ${(arena.used() / 2 ** 20).toFixed(0)} MiB of at most 1536 MiB`);
  own.close();
}

console.log('\nOne lamp before two walls, everything it does, one thread\n');
const twins = [undefined, loadKernels()].map((module) => {
  const arena = createArena(1024 * 2 ** 20);
  const scratch = arena.allocate(KERNEL_SCRATCH).offset;
  const kernels = module && createKernels(module, arena.memory, scratch);
  return createRenderer(
    arena,
    createDirectPool(arena.memory, kernels),
    {
      codes: (file, part) => space.plates.read(file, part),
      lut: () => Promise.reject(new Error('no look-up table')),
      coverage: () => Promise.reject(new Error('no coverage')),
    },
    512 * 2 ** 20,
  );
});
const single = { ...litScene(plate, 1), plan: walled.plan };
const light = { spill: true, air: true, source: true };
const singly = async (own: Renderer) => {
  const anew = () => ({
    ...single,
    fixtures: single.fixtures.map((fixture) => ({ ...fixture, lumens: 1000 + ++turn / 100 })),
  });
  await own.read(circuitLight({ scene: anew(), region }, 'a', light), never);
  return medianTime(3, () => own.read(circuitLight({ scene: anew(), region }, 'a', light), never));
};
const [plain, quick] = [await singly(twins[0]), await singly(twins[1])];
twins.forEach((own) => own.close());
report('kernels', quick, copied);
report('plain TypeScript', plain, { to: 'the kernels', of: quick });

const size = { width, height };
const choice = { format: 'jpeg', quality: 92 } as const;
const output = await medianTime(3, async () => {
  // Another haze each time would only change the mix; another lens makes everything anew.
  const fresh = { ...scene, plan: { ...scene.plan, lens: 28 + ++turn / 100 } };
  const rgb = await renderRgb(renderer, fresh, size, never);
  await encodePicture(rgb, size, choice).toBuffer();
});
const bare = await medianTime(3, () =>
  sharp(PLATE).jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
);
console.log(`\nOutput ${width} x ${height}, ${LAMPS} lamps\n`);
report('libvips: decode and encode alone', bare);
report('whole output, everything computed anew', output, { to: 'libvips', of: bare });

const camera = { width: 6000, height: 4000 };
const photo = await sharp(PLATE)
  .resize({ ...camera, fit: 'fill' })
  .jpeg({ quality: 92 })
  .toBuffer();
const bareOpen = await medianTime(3, () => sharp(photo).resize(PREVIEW).raw().toBuffer());
let photos = 0;
const open = await medianTime(3, async () => {
  // A byte after the end makes it another file, with the same picture in it.
  const file = Buffer.concat([photo, Buffer.from([++photos])]);
  const { id } = await beginScene(space, await receiveBytes(dataDir, file), 'photo.jpg');
  await show(openScene(space, id).scene);
});
console.log('\nOpening a JPEG of 6000 x 4000, from its bytes to the first frame of 1600 x 1067\n');
report('libvips: decode and resize alone', bareOpen);
report('take in, decode, shrink, survey, first frame', open, { to: 'libvips', of: bareOpen });

console.log('\nMattes\n');
const showMatte = (matte: Matte, at = region) =>
  renderer.frame(
    { scene: { ...scene, mattes: [matte] }, region: at, show: { matte: matte.id, view: 'grey' } },
    never,
    () => {},
  );
const sky = newMatte(scene, 'sky');
const skyOf = (asset: string) => ({ ...scene, plate: { asset, ...camera }, mattes: [sky] });
let skies = 100;
const skyTook: number[] = [];
for (let run = 0; run < 3; run++) {
  const file = await receiveBytes(dataDir, Buffer.concat([photo, Buffer.from([++skies])]));
  await takePlate(space, file);
  await show({ ...skyOf(file.hash), mattes: [] });
  const asked = performance.now();
  await renderer.frame(
    { scene: skyOf(file.hash), region, show: { matte: sky.id, view: 'grey' } },
    never,
    () => {},
  );
  skyTook.push(performance.now() - asked);
}
report('the sky in one action, in an open photo of 6000 x 4000', skyTook.sort((a, b) => a - b)[1]);
let grown = 0;
const outline = {
  ...newMatte(scene, 'outline'),
  passes: [
    {
      id: 'o',
      join: 'add' as const,
      kind: 'outline' as const,
      points: [
        { u: 0.2, v: 0.2 },
        { u: 0.8, v: 0.3 },
        { u: 0.5, v: 0.8 },
      ],
    },
  ],
};
report(
  'refine moved to new frame, 1600 x 1067',
  await medianTime(RUNS, () => showMatte({ ...outline, refine: 0.005 + ++grown / 1e4 })),
  copied,
);
report(
  'grow and feather moved to new frame',
  await medianTime(RUNS, () => showMatte({ ...outline, feather: 0.004, grow: ++grown / 1e4 })),
  copied,
);
const large = { width: 6000, height: 4000 };
const guide = {
  ...large,
  ...Object.fromEntries(
    (['r', 'g', 'b'] as const).map((c) => [
      c,
      Float32Array.from({ length: 24e6 }, (_, i) => ((i * 7) % 251) / 251),
    ]),
  ),
} as RgbPlanes;
const hard = Float32Array.from({ length: 24e6 }, (_, i) => (i % 6000 < 3000 ? 1 : 0));
const window = 0.006;
const copyWidth = refineWidth(window, 6000);
const copySize = { width: copyWidth, height: Math.round((copyWidth * 2) / 3) };
const count = copySize.width * copySize.height;
const copyPlanes = {
  ...copySize,
  r: guide.r.slice(0, count),
  g: guide.g.slice(0, count),
  b: guide.b.slice(0, count),
};
const lines = {
  r: new Float32Array(count),
  g: new Float32Array(count),
  b: new Float32Array(count),
  offset: new Float32Array(count),
};
const refined = new Float32Array(24e6);
const refining = await medianTime(3, () => {
  findEdge(lines, copyPlanes, hard.subarray(0, count), window);
  followEdge(refined, lines, copySize, guide, wholeRegion(6000, 4000));
});
const grey = Buffer.alloc(24e6, 128);
const blurred = await medianTime(3, () =>
  sharp(grey, { raw: { ...large, channels: 1 } })
    .blur(window * 6000)
    .raw()
    .toBuffer(),
);
report('libvips: blur of 24 megapixels over the same radius', blurred);
report('refine of 24 megapixels, one thread', refining, { to: 'libvips', of: blurred });

renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
