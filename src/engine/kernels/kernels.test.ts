import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createDisplayCodes } from '@/core/film/display-codes';
import { developLight } from '@/core/film/develop-light';
import { addLights } from '@/core/light/add-lights';
import { BEYOND, beyondPicture } from '@/core/relief/beyond-picture';
import { spreadLight } from '@/core/lens/veil';
import { boundsOf, type StandingCoverage } from '@/core/light/occlusion';
import type { PointLight } from '@/core/light/point-light';
import { SOFT_LEVELS, softenCoverage } from '@/core/light/soft-coverage';
import { layDabs } from '@/core/matte/paint-coverage';
import { ambientLight } from '@/core/night/ambient-light';
import { nightBase } from '@/core/night/night-base';
import { startingNight } from '@/core/night/starting-night';
import { mixPicture } from '@/core/picture/mix-picture';
import { deckPieces } from '@/core/plan/surfaces';
import { wallPieces } from '@/core/plan/wall-pieces';
import { addEnlarged } from '@/core/plane/add-enlarged';
import { rowsOf } from '@/core/plane/region';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import {
  CAMERA,
  CHANNELS,
  COUNT,
  expectAlike,
  kernels,
  planesOf,
  REGION,
  ROWS,
  seeds,
} from '../../../test/kernel-planes';

/** A card that stands so far ahead, seen from `left` on across a fifth of the plate. */
function standeeOf(
  plane: ReturnType<typeof planesOf>['plane'],
  ahead: number,
  left: number,
): StandingCoverage {
  const [width, height] = [30, 20];
  const data = Float32Array.from({ length: width * height }, (_, i) => {
    const [u, v] = [(i % width) / width, Math.floor(i / width) / height];
    return u >= 0.8 * left && u < 0.8 * left + 0.2 && v > 0.3 && v < 0.65 ? 1 : 0;
  });
  const levels = plane(0, 0, SOFT_LEVELS * width * height);
  softenCoverage(levels, { width, height, data });
  return { ahead, width, height, levels, bounds: boundsOf(data, width, height) };
}

describe('kernels and the core', () => {
  it('sum light alike', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 5 }), fc.boolean(), (seed, count, hazy) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const base = { plate: rgb(0, 1), night: rgb(0, 0.2), distance: plane(1, 200), land: plane(0, 1) };
        const sourceRows = { from: 5, to: 11 };
        const layers = Array.from({ length: count }, () => ({
          ...{
            spill: plane(0, 50),
            air: random() < 0.5 ? plane(0, 3) : undefined,
            shine: random() < 0.5 ? plane(0, 9) : undefined,
          },
          ...{ source: plane(0, 900, 6 * REGION.width), sourceRows },
        }));
        const color = () => [random(), random(), random()] as [number, number, number];
        const weights = {
          ...{ ambient: random(), sky: random() },
          mist: { color: color(), perMetre: hazy ? 0.02 * random() : 0 },
          layers: layers.map(() => ({ spill: color(), shine: color(), air: color(), source: color() })),
        };
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        kernels.mixRows(kernel, base, layers, weights, ROWS);
        mixPicture(core, base, layers, weights, ROWS);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 3e-6, 1e-6);
        release();
      }),
    );
  });

  it('develop light to the same codes, but for one at a step', () => {
    const codes = createDisplayCodes(255);
    fc.assert(
      fc.property(seeds, fc.double({ min: 1e-4, max: 50, noNaN: true }), (seed, most) => {
        const { plane, rgb, release } = planesOf(seed);
        const [light, out] = [rgb(-0.01, most), plane(0, 0)];
        kernels.develop(out, light, 0, COUNT);
        const core = new Uint8ClampedArray(4 * COUNT);
        developLight(core, light, codes);
        const kernel = new Uint8ClampedArray(out.buffer, out.byteOffset, 4 * COUNT);
        const far = core.filter((code, i) => Math.abs(code - kernel[i]) > 1);
        expect(far).toHaveLength(0);
        release();
      }),
    );
  });

  it('darken a plate alike', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean(), (seed, hour, closed) => {
        const { plane, rgb, release } = planesOf(seed);
        const light = ambientLight(startingNight(hour));
        const plate = rgb(0, 1);
        const open = closed ? plane(0, 1) : undefined;
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        kernels.nightBase(kernel, plate, light, open, undefined, 0, COUNT);
        nightBase(core, plate, light, open);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-5, 1e-7);
        release();
      }),
    );
  });

  it('look at a small copy alike, to spread light through a veil and to add what surfaces give on', () => {
    fc.assert(
      fc.property(
        seeds,
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.integer({ min: 0, max: 40 }),
        (seed, share, left) => {
          const { plane, rgb, release } = planesOf(seed);
          const [wide, high] = [23, 15];
          const veil = {
            ...{ width: wide, height: high },
            ...{ r: plane(0, 2, wide * high), g: plane(0, 2, wide * high), b: plane(0, 2, wide * high) },
          };
          const region = { ...REGION, left, top: 9, fullWidth: 300, fullHeight: 200 };
          const [light, kernel, core] = [rgb(0, 3), rgb(0, 0), rgb(0, 0)];
          kernels.spreadLight(kernel, light, veil, share, region);
          spreadLight(core, light, veil, share, region);
          for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-5, 1e-5);
          const small = { width: wide, height: high, data: veil.r };
          kernels.addEnlarged(kernel.g, small, light.r, region);
          addEnlarged(core.g, small, light.r, region);
          expectAlike(kernel.g, core.g, 1e-5, 1e-5);
          release();
        },
      ),
    );
  });

  it('light surfaces and air alike, past walls and what stands', () => {
    const walls = wallPieces(CAMERA, [
      {
        foot: [
          { u: 0.2, v: 0.7 },
          { u: 0.6, v: 0.65 },
        ],
        height: 2,
        sheen: 0,
        roughness: 1,
        crease: 0,
      },
    ]);
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.boolean(), (seed, shaded, shiny) => {
        const { plane, random, release } = planesOf(seed);
        const outline = [
          [0.3, 0.3],
          [0.7, 0.25],
          [0.8, 0.38],
          [0.25, 0.4],
        ].map(([u, v]) => ({ u, v }));
        const pitch = random() < 0.5 ? 0 : 80 * random() - 40;
        const decks = deckPieces(CAMERA, [{ outline, height: 1.8 + 2 * random(), pitch }]);
        const shades = { walls, decks, standees: [standeeOf(plane, 3 + 6 * random(), random())], ends: {} };
        const land = Object.fromEntries(
          RELIEF_PLANES.map((name) => [name, plane(0, 1)]),
        ) as unknown as Relief;
        for (let i = 0; i < COUNT; i++) {
          // Level ground under the eye, some of it folded; sky above the horizon.
          const v = (Math.floor(i / REGION.width) + 0.5) / REGION.height;
          land.reach[i] = 1.6 / Math.max(0.02, v - 0.41);
          land.land[i] = v > 0.45 ? 1 : 0;
          const [x, y] = [0.4 * (land.normalX[i] - 0.5), 0.4 * (land.normalY[i] - 0.5)];
          const long = Math.hypot(x, y, 1);
          // What lies to the right faces the eye, as one wall.
          const isWall = i % REGION.width >= 64;
          [land.normalX[i], land.normalY[i], land.normalZ[i]] = isWall
            ? [0, -1, 0]
            : [x / long, y / long, 1 / long];
          if (isWall && !shiny) land.unknownFacing[i] = 0;
          land.alpha[i] = 0.05 + 0.9 * land.alpha[i];
          // Without a plane for it, nothing shines.
          if (!shiny) land.sheen[i] = 0;
        }
        const lights = Array.from({ length: 3 }, (): PointLight => {
          const faces = random() < 0.5;
          return {
            place: [6 * random() - 3, 3 + 8 * random(), 0.5 + 3 * random()],
            ...{
              spillCandela: 50 + 400 * random(),
              airCandela: 40 * random(),
              radius: 0.02 + 0.2 * random(),
            },
            ...(faces && {
              facing: [0, -0.6, -0.8] as const,
              even: random() < 0.5 ? 1 : 0,
              clear: random() < 0.5 ? 0.3 : 0,
            }),
          };
        });
        const light = () => ({
          spill: plane(0, 0),
          air: plane(0, 0),
          shine: shiny ? plane(0, 0) : undefined,
        });
        const [kernel, core] = [light(), light()];
        kernels.addLights(kernel, land, CAMERA, REGION, ROWS, lights, shaded ? shades : undefined);
        const cut = (all: Float32Array) => all.subarray(ROWS.from * REGION.width, ROWS.to * REGION.width);
        const part = { spill: cut(core.spill), air: cut(core.air), shine: core.shine && cut(core.shine) };
        const rows = Object.fromEntries(
          RELIEF_PLANES.map((name) => [name, cut(land[name])]),
        ) as unknown as Relief;
        const band = rowsOf(REGION, ROWS.from, ROWS.to - ROWS.from);
        addLights(part, rows, CAMERA, band, lights, shaded ? shades : undefined);
        const brightest = core.spill.reduce((most, lux) => Math.max(most, lux), 0);
        // At a shadow's soft edge a place moves by what 32 bits leave of its distance.
        expectAlike(kernel.spill, core.spill, 2e-3, 2e-4 * brightest);
        expectAlike(kernel.air, core.air, 2e-4, 1e-6);
        if (kernel.shine && core.shine) expectAlike(kernel.shine, core.shine, 2e-2, 2e-4 * brightest);
        release();
      }),
    );
  });

  it('light a wall alike, from close before it and from behind', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const { plane, random, release } = planesOf(seed);
        const wall = Object.fromEntries(
          RELIEF_PLANES.map((name) => [name, plane(0, 0)]),
        ) as unknown as Relief;
        wall.land.fill(1);
        wall.normalY.fill(-1);
        const { corner, across, down } = CAMERA;
        for (let i = 0; i < COUNT; i++) {
          const [u, v] = [
            ((i % REGION.width) + 0.5) / REGION.width,
            (Math.floor(i / REGION.width) + 0.5) / REGION.height,
          ];
          wall.reach[i] = 6 / (corner[1] + u * across[1] + v * down[1]);
        }
        const lights = Array.from({ length: 3 }, (): PointLight => ({
          place: [4 * random() - 2, 6.05 - 0.3 * random(), 1 + 2 * random()],
          ...{ spillCandela: 100, airCandela: 0, radius: 0.03 },
          ...(random() < 0.5 && { facing: [0.6, random() < 0.5 ? 0.8 : -0.8, 0] as const }),
        }));
        const [kernel, core] = [0, 1].map(() => ({ spill: plane(0, 0), air: plane(0, 0) }));
        kernels.addLights(kernel, wall, CAMERA, REGION, { from: 0, to: REGION.height }, lights, undefined);
        addLights(core, wall, CAMERA, REGION, lights, undefined);
        expectAlike(kernel.spill, core.spill, 1e-2, 1e-3);
        release();
      }),
    );
  });

  it('light what lies beyond the picture alike', () => {
    const foot = [
      { u: -0.8, v: 0.9 },
      { u: 0.3, v: 0.6 },
    ];
    const walls = wallPieces(CAMERA, [{ foot, height: 4, sheen: 0, roughness: 1, crease: 0 }]);
    const count = BEYOND.width * BEYOND.height;
    fc.assert(
      fc.property(seeds, (seed) => {
        const { plane, random, release } = planesOf(seed);
        const land = Object.fromEntries(
          RELIEF_PLANES.map((name) => [name, plane(0, 0, count)]),
        ) as unknown as Relief;
        beyondPicture(land, CAMERA, walls);
        const lights = Array.from({ length: 3 }, (): PointLight => ({
          place: [8 * random() - 4, 1 + 8 * random(), 0.5 + 3 * random()],
          ...{ spillCandela: 200, airCandela: 0, radius: 0.05 },
        }));
        const [kernel, core] = [0, 1].map(() => ({ spill: plane(0, 0, count), air: plane(0, 0, count) }));
        const shades = { walls, decks: [], standees: [], ends: {} };
        kernels.addLights(kernel, land, CAMERA, BEYOND, { from: 0, to: BEYOND.height }, lights, shades);
        addLights(core, land, CAMERA, BEYOND, lights, shades);
        const brightest = core.spill.reduce((most, lux) => Math.max(most, lux), 0);
        expectAlike(kernel.spill, core.spill, 1e-2, 1e-3 * brightest);
        release();
      }),
    );
  });

  it('lay dabs alike, of any size and wherever they lie', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const place = fc.double({ min: -0.3, max: 1.3, noNaN: true });
    const dab = fc.record({
      ...{ u: place, v: place, flow: share },
      radius: fc.double({ min: 0.001, max: 0.4, noNaN: true }),
    });
    fc.assert(
      fc.property(seeds, fc.array(dab, { maxLength: 6 }), share, fc.boolean(), (seed, dabs, soft, erase) => {
        const { plane, release } = planesOf(seed);
        const kernel = plane(0, 1);
        const core = kernel.slice();
        kernels.layDabs(kernel, dabs, soft, REGION, erase);
        layDabs(core, dabs, soft, REGION, erase);
        // A hard rim of one pixel is steep: a place in 32 bits is a little beside it.
        expect(core.every((value, i) => Math.abs(kernel[i] - value) < 2e-4)).toBe(true);
        release();
      }),
    );
  });
});
