import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/fixture/seeded';
import { createCamera } from '@/core/geometry/camera';
import type { PointLight } from '@/core/light/point-light';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wholeRegion } from '@/core/plane/region';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import { createArena } from '../memory/arena';
import { loadKernels } from '../pool/node-pool';
import { createKernels, KERNEL_SCRATCH } from './kernels';

/** Three tiles wide and three high, with some pixels left over. */
const REGION = wholeRegion(3 * 64 + 9, 3 * 16 + 5);
const COUNT = REGION.width * REGION.height;
const ROWS = { from: 0, to: REGION.height };
/** Looking down a little: all that is seen is level ground, within 12 metres. */
const CAMERA = createCamera({ horizon: { left: -0.5, right: -0.5 }, eyeHeight: 3, lens: 28 }, 1.5);
const WALLS = wallPieces(CAMERA, [
  {
    foot: [
      { u: 0.3, v: 0.7 },
      { u: 0.7, v: 0.4 },
    ],
    height: 2.5,
    sheen: 0,
    roughness: 1,
    crease: 0,
  },
]);
const SHADES = { walls: WALLS, decks: [], standees: [], ends: {} };

const arena = createArena(64 * 2 ** 20);
const kernels = createKernels(loadKernels(), arena.memory, arena.allocate(KERNEL_SCRATCH).offset);
const plane = (value = 0) => {
  const { offset } = arena.allocate(4 * COUNT);
  return new Float32Array(arena.memory.buffer, offset, COUNT).fill(value);
};

/** Level ground with grass in its left third, whose blades face anywhere. */
function ground(): Relief {
  const random = seeded(5);
  const land = Object.fromEntries(RELIEF_PLANES.map((name) => [name, plane()])) as unknown as Relief;
  const { corner, down, eyeHeight } = CAMERA;
  for (let i = 0; i < COUNT; i++) {
    const v = (Math.floor(i / REGION.width) + 0.5) / REGION.height;
    land.reach[i] = eyeHeight / -(corner[2] + v * down[2]);
    land.land[i] = 1;
    const tilt = i % REGION.width < REGION.width / 3 ? random() - 0.5 : 0;
    [land.normalX[i], land.normalZ[i]] = [Math.sin(tilt), Math.cos(tilt)];
    land.alpha[i] = 0.36;
  }
  return land;
}

const LAND = ground();
const [thinned, whole] = [0, 1].map(() => ({ spill: plane(), air: plane() }));

function light(lights: readonly PointLight[], isShaded: boolean): void {
  for (const [out, may] of [
    [thinned, true],
    [whole, false],
  ] as const) {
    out.spill.fill(0);
    out.air.fill(0);
    kernels.addLights(out, LAND, CAMERA, REGION, ROWS, lights, isShaded ? SHADES : undefined, may);
  }
}

/** Three lights over the ground: bulbs, and panes that face down and toward the eye. */
function lightsOf(seed: number): PointLight[] {
  const random = seeded(seed);
  return Array.from({ length: 3 }, () => ({
    place: [12 * random() - 6, 3 + 9 * random(), 0.3 + 4 * random()] as const,
    ...{ spillCandela: 50 + 400 * random(), airCandela: 40 * random(), radius: 0.02 + 0.2 * random() },
    ...(random() < 0.5 && { facing: [0, -0.6, -0.8] as const, even: random() < 0.5 ? 1 : 0 }),
  }));
}

/** Most that two planes differ, as a share of what is there and a hundredth of the brightest. */
function difference(a: Float32Array, b: Float32Array): number {
  const floor = 1e-2 * b.reduce((most, value) => Math.max(most, value), 0);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]) / (b[i] + floor)), 0);
}

describe('light on a lattice', () => {
  it('is that of every pixel, within a hundredth on land and two in the air, with shadows and without', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 ** 31 }), fc.boolean(), (seed, isShaded) => {
        light(lightsOf(seed), isShaded);
        expect(difference(thinned.spill, whole.spill)).toBeLessThan(0.01);
        expect(difference(thinned.air, whole.air)).toBeLessThan(0.02);
      }),
    );
  });

  it('is found only where land is smooth: grass and the tiles left over are lit pixel by pixel', () => {
    light(lightsOf(3), false);
    const changed = (x: number, y: number) =>
      thinned.spill[y * REGION.width + x] !== whole.spill[y * REGION.width + x];
    const at = (left: number, right: number, top: number, bottom: number) => {
      let count = 0;
      for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) if (changed(x, y)) count++;
      return count;
    };
    expect(at(64 + 8, 3 * 64, 0, 3 * 16)).toBeGreaterThan(500);
    expect(at(0, 64, 0, 3 * 16)).toBe(0);
    expect(at(0, REGION.width, 3 * 16, REGION.height)).toBe(0);
  });

  it('leaves the edge of a shadow as sharp as it is', () => {
    const lamp: PointLight = { place: [0, 4, 2], spillCandela: 300, airCandela: 0, radius: 0.01 };
    light([lamp, lamp, lamp], true);
    const { spill } = whole;
    const edges = spill.map((lux, i) =>
      i > 0 && Math.abs(lux - spill[i - 1]) > 0.2 * Math.max(lux, spill[i - 1]) ? 1 : 0,
    );
    expect(edges.reduce((sum, one) => sum + one, 0)).toBeGreaterThan(10);
    spill.forEach((lux, i) => edges[i] && expect(thinned.spill[i]).toBe(lux));
  });
});
