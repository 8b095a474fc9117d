// What the benches of speed share: a made-up scene over a demo plate, a renderer, and what a plain copy takes.
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setPlan } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { newScene, PLAIN_SURFACE } from '@/core/scene/new-scene';
import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { isDragged, KIND_NAMES } from '@/core/fixture/kinds';
import type { Fixture, Scene } from '@/core/scene/schema';
import { wholeRegion } from '@/core/plane/region';
import { receiveFromDisk } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace } from '@/server/assets/workspace';
import { surveySize } from '@/engine/sizes';
import { newCircuit, newFixture } from '@/state/actions/fixture-actions';
import sharp from 'sharp';
import { medianTime } from './time';

export const PLATE = 'demo/plates/ferry-steps.jpg';
export const PREVIEW = { width: 1600, height: 1067 };
export const LAMPS = 8;
export const RUNS = 9;

/** A scene with a number of lamps on two circuits. */
export function litScene(plate: Scene['plate'], lamps: number): Scene {
  const scene = newScene('Bench', plate, 28);
  const circuits = ['a', 'b'].map((id) => ({ ...newCircuit(scene), id, name: id }));
  const fixtures: Fixture[] = Array.from({ length: lamps }, (_, i) => ({
    ...newFixture(scene, 'globe', { u: 0.1 + (0.8 * i) / lamps, v: 0.3 }, [], circuits[i % 2]),
    id: `lamp-${i}`,
  }));
  return { ...scene, circuits, fixtures };
}

/** Twelve circuits with five fixtures each, kind after kind. */
export function fullDesk(plate: Scene['plate']): Scene {
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

export const dataDir = await mkdtemp(join(tmpdir(), 'sundew-bench-'));
export const space = openWorkspace(dataDir);
export const received = await receiveFromDisk(dataDir, PLATE);
export const { width, height } = await takePlate(space, received);
export const plate = { asset: received.hash, width, height };
export const renderer = createServerRenderer(space);
export const never = new AbortController().signal;
export const scene = litScene(plate, LAMPS);
export const region = wholeRegion(PREVIEW.width, PREVIEW.height);
export const small = surveySize(plate);
export const coarse = wholeRegion(small.width, small.height);

export const show = (next: Scene, at = region, moving?: string) =>
  renderer.frame({ scene: next, region: at, moving: fixtureOf(moving) }, never, () => {});
const fixtureOf = (id?: string) => scene.fixtures.find((fixture) => fixture.id === id);

/** What a mix of two layers reads: plate, night, distance, land, and spill, air of each. */
export const pixels = PREVIEW.width * PREVIEW.height;
export const source = new Float32Array(pixels * (3 + 3 + 1 + 1 + 2 * 2));
export const target = new Float32Array(source.length);
export const copy = await medianTime(31, () => target.set(source));
export const walled = runCommand(
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

export const copied = { to: 'the copy', of: copy };

/** A large photo, made of the demo's. */
export const camera = { width: 6000, height: 4000 };
export const photo = await sharp(PLATE)
  .resize({ ...camera, fit: 'fill' })
  .jpeg({ quality: 92 })
  .toBuffer();
