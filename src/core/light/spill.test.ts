import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addPointAir } from './add-point-air';
import { createCamera, project, type Camera } from '../geometry/camera';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { wholeRegion, type Region } from '../plane/region';
import { addPointSpill } from './add-point-spill';
import { mirrorShine, ownSheen } from './own-sheen';
import { luminousFlux, type PointLight } from './point-light';

const SIZE = wholeRegion(60, 40);
const CAMERA = createCamera({ horizon: { left: 0.4, right: 0.4 }, eyeHeight: 1.6, lens: 30 }, 1.5);

function emptyRelief(count: number): Relief {
  return Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(count)]),
  ) as unknown as Relief;
}

/** Level ground wherever the camera looks down; elsewhere sky at a large distance. */
function groundRelief(camera: Camera, region: Region): Relief {
  const relief = emptyRelief(region.width * region.height);
  relief.land.forEach((_, i) => {
    const u = (region.left + (i % region.width) + 0.5) / region.fullWidth;
    const v = (region.top + Math.floor(i / region.width) + 0.5) / region.fullHeight;
    const rise = camera.corner[2] + u * camera.across[2] + v * camera.down[2];
    relief.reach[i] = rise < 0 ? -camera.eyeHeight / rise : 1000;
    relief.normalZ[i] = 1;
    relief.land[i] = rise < 0 ? 1 : 0;
  });
  return relief;
}

const lamp = (place: PointLight['place'], more: Partial<PointLight> = {}): PointLight => ({
  place,
  spillCandela: 100,
  airCandela: 100,
  radius: 1e-4,
  ...more,
});

function indexOf(point: [number, number, number]): number {
  const { u, v } = project(CAMERA, point)!;
  return Math.floor(v * SIZE.fullHeight) * SIZE.width + Math.floor(u * SIZE.fullWidth);
}

/** World place of the ground seen at a pixel. */
function groundAt(i: number): [number, number, number] {
  const u = ((i % SIZE.width) + 0.5) / SIZE.fullWidth;
  const v = (Math.floor(i / SIZE.width) + 0.5) / SIZE.fullHeight;
  const ray = [0, 1, 2].map((c) => CAMERA.corner[c] + u * CAMERA.across[c] + v * CAMERA.down[c]);
  const reach = -CAMERA.eyeHeight / ray[2];
  return [ray[0] * reach, ray[1] * reach, 0];
}

describe('addPointSpill', () => {
  const relief = groundRelief(CAMERA, SIZE);

  it('follows inverse square and cosine on level ground', () => {
    const spill = new Float32Array(SIZE.width * SIZE.height);
    const light = lamp([0.4, 6, 3]);
    addPointSpill(spill, relief, CAMERA, SIZE, light);
    for (const point of [
      [0.4, 6, 0],
      [2, 8, 0],
      [-1, 4, 0],
    ] as [number, number, number][]) {
      const i = indexOf(point);
      const [x, y] = groundAt(i);
      const d2 = (x - 0.4) ** 2 + (y - 6) ** 2 + 9;
      const [nl, ray] = [3 / Math.sqrt(d2), Math.hypot(x, y, 1.6)];
      const lv = (-x * (0.4 - x) - y * (6 - y) + 1.6 * 3) / (ray * Math.sqrt(d2));
      expect(spill[i]).toBeCloseTo((100 / d2) * (nl + ownSheen(nl, 1.6 / ray, lv)), 3);
    }
  });

  it('lights nothing that lies less than it must before a patch, and no place more than pi times its radiance', () => {
    const patch = (clear: number) => {
      const spill = new Float32Array(SIZE.width * SIZE.height);
      const radius = 0.5;
      const radiance = 40;
      const light = lamp([0, 6, 0.001], {
        spillCandela: radiance * Math.PI * radius ** 2,
        radius,
        clear,
        facing: [0, 0, -1],
      });
      addPointSpill(spill, relief, CAMERA, SIZE, light);
      return { most: Math.max(...spill), bound: Math.PI * radiance };
    };
    const { most, bound } = patch(0);
    expect(most).toBeLessThan(bound);
    expect(patch(0.01).most).toBe(0);
  });

  it('sends out what its candela come to', () => {
    expect(luminousFlux(lamp([0, 6, 3]))).toBeCloseTo(400 * Math.PI, 6);
    expect(luminousFlux(lamp([0, 6, 3], { facing: [0, 0, -1] }))).toBeCloseTo(100 * Math.PI, 6);
    expect(luminousFlux(lamp([0, 6, 3], { facing: [0, 0, -1], focus: 2, even: 0.1 }))).toBeCloseTo(
      100 * ((2 * Math.PI) / 5 + 0.4 * Math.PI),
      6,
    );
  });

  it('shines as microfacets do: straight on by the Fresnel of its material, grazing by far more', () => {
    // All cosines 1: D = 1 / (pi alpha^2), the Smith term 1 / 4, F = f0.
    expect(ownSheen(1, 1, 1)).toBeCloseTo(0.04 / (0.36 ** 2 * 4 * 0.18), 9);
    // Mirrored at 85 degrees, against the same without any Fresnel growth.
    const [c, s] = [Math.cos((85 * Math.PI) / 180), Math.sin((85 * Math.PI) / 180)];
    expect(ownSheen(c, c, c * c - s * s)).toBeGreaterThan(8 * ownSheen(c, c, 1));
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 1, noNaN: true }),
        fc.double({ min: 0.001, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (nl, nv, lv) => {
          const value = ownSheen(nl, nv, lv);
          // True directions come to 21.4 at most; bent normals have cosines of none.
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThan(23);
        },
      ),
    );
  });

  it('splits light between the plate and the mirror, and widens the mirror by the angle of the source', () => {
    const shiny = { ...relief, sheen: relief.sheen.map(() => 0.4), alpha: relief.alpha.map(() => 0.05) };
    const count = SIZE.width * SIZE.height;
    const light = lamp([0.4, 6, 3], { radius: 0.3 });
    const [dull, spill, shine] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
    addPointSpill(dull, relief, CAMERA, SIZE, light, shine);
    expect(Math.max(...shine)).toBe(0);
    addPointSpill(spill, shiny, CAMERA, SIZE, light, shine);
    const i = indexOf([0.4, 4, 0]);
    expect(spill[i]).toBeCloseTo(0.6 * dull[i], 5);
    const [x, y] = groundAt(i);
    const [d2, ray] = [(x - 0.4) ** 2 + (y - 6) ** 2 + 9.09, Math.hypot(x, y, 1.6)];
    const d = Math.sqrt(d2);
    const lv = (-x * (0.4 - x) - y * (6 - y) + 1.6 * 3) / (ray * d);
    const facets = mirrorShine(3 / d, 1.6 / ray, lv, 0.05, 0.3 / d);
    expect(shine[i]).toBeCloseTo((0.4 * 100 * facets) / (Math.PI * d2), 4);
  });

  it('mirrors as broad as high where the surface is calm, and stretched toward the eye where it is rough', () => {
    // Source and eye as high over a level surface, far apart: half of the light is left where the half vector leans so far.
    const reach = (alpha: number, seen: number, step: [x: number, y: number]) => {
      const at = (k: number) => {
        const [x, y] = [k * step[0], k * step[1]];
        const [l, v] = [
          [-x, 10 - y, 1],
          [-x, -10 - y, 1],
        ].map((way) => way.map((c) => c / Math.hypot(...way)));
        return mirrorShine(l[2], v[2], l[0] * v[0] + l[1] * v[1] + l[2] * v[2], alpha, seen);
      };
      let k = 0;
      while (at(k) > at(0) / 2) k += 1e-4;
      return k;
    };
    const [calmAcross, calmAlong] = [reach(1e-3, 0.02, [1, 0]), reach(1e-3, 0.02, [0, 1])];
    // A disc on a level mirror is seen foreshortened: ten times as long as broad there, so as high as broad in the picture.
    expect(calmAlong / calmAcross / 10).toBeGreaterThan(0.7);
    expect(calmAlong / calmAcross / 10).toBeLessThan(1.4);
    expect(reach(0.05, 1e-4, [0, 1]) / reach(0.05, 1e-4, [1, 0]) / 10).toBeGreaterThan(3);
  });

  it('mirrors no more light than arrives: what facets give back over all ways out stays under one', () => {
    const seen = 0.01;
    for (const alpha of [0.02, 0.1, 0.36, 1]) {
      for (const nl of [0.1, 0.5, 0.95]) {
        const [steps, turns] = [400, 200];
        let sum = 0;
        for (let a = 0; a < steps; a++) {
          // Even in the square of the sine: each step is as much projected solid angle as any other.
          const nv = Math.sqrt(1 - (a + 0.5) / steps);
          for (let b = 0; b < turns; b++) {
            const across = Math.sqrt((1 - nl * nl) * (1 - nv * nv));
            const lv = nl * nv + across * Math.cos((2 * Math.PI * (b + 0.5)) / turns);
            sum += mirrorShine(nl, nv, lv, alpha, seen) / nl / (steps * turns);
          }
        }
        expect(sum).toBeGreaterThan(0.01);
        expect(sum).toBeLessThan(1);
      }
    }
  });

  it('gives the sky nothing, and a surface that turns away nothing', () => {
    const spill = new Float32Array(SIZE.width * SIZE.height);
    addPointSpill(spill, relief, CAMERA, SIZE, lamp([0, 6, 3]));
    expect(spill[5]).toBe(0);
    const below = new Float32Array(spill.length);
    addPointSpill(below, relief, CAMERA, SIZE, lamp([0, 6, -1]));
    expect(Math.max(...below)).toBe(0);
  });

  it('averages the cosine over all turns where an upright surface hides its own', () => {
    const upright = groundRelief(CAMERA, SIZE);
    upright.normalZ.fill(0);
    upright.normalY.fill(-1);
    upright.unknownFacing.fill(1);
    const light = lamp([1.5, 5, 2]);
    const spill = new Float32Array(SIZE.width * SIZE.height);
    addPointSpill(spill, upright, CAMERA, SIZE, light);
    const i = indexOf([0, 8, 0]);
    const [x, y, z] = groundAt(i);
    const [lx, ly, lz] = [1.5 - x, 5 - y, 2 - z];
    const d2 = lx * lx + ly * ly + lz * lz;
    const turns = 2000;
    let mean = 0;
    for (let k = 0; k < turns; k++) {
      const turn = -Math.PI / 2 + (Math.PI * (k + 0.5)) / turns;
      mean += Math.max(0, lx * Math.sin(turn) - ly * Math.cos(turn)) / turns;
    }
    expect(spill[i]).toBeCloseTo((100 * mean) / d2 ** 1.5, 4);
  });

  it('adds up, scales with candela, and never gives anything but numbers, wherever the lamp hangs', () => {
    const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
        const once = new Float32Array(SIZE.width * SIZE.height);
        addPointSpill(once, relief, CAMERA, SIZE, lamp([x, y, z]));
        const twice = new Float32Array(once.length);
        addPointSpill(twice, relief, CAMERA, SIZE, lamp([x, y, z], { spillCandela: 50 }));
        addPointSpill(twice, relief, CAMERA, SIZE, lamp([x, y, z], { spillCandela: 50 }));
        const air = new Float32Array(once.length);
        addPointAir(air, relief.reach, CAMERA, SIZE, lamp([x, y, z]));
        once.forEach((value, i) => {
          expect(Number.isFinite(value) && value >= 0 && Number.isFinite(air[i])).toBe(true);
          expect(twice[i]).toBeCloseTo(value, 4);
        });
      }),
      { numRuns: 20 },
    );
    const atTheEye = new Float32Array(SIZE.width * SIZE.height);
    addPointSpill(atTheEye, relief, CAMERA, SIZE, lamp([0, 0, 1.6]));
    addPointAir(atTheEye, relief.reach, CAMERA, SIZE, lamp([0, 0, 1.6]));
    expect(atTheEye.every(Number.isFinite)).toBe(true);
  });

  it('is the same in a part of the picture as in the whole', () => {
    const whole = new Float32Array(SIZE.width * SIZE.height);
    addPointSpill(whole, relief, CAMERA, SIZE, lamp([0.4, 6, 3]));
    const part: Region = { ...SIZE, left: 12, top: 20, width: 16, height: 8 };
    const some = new Float32Array(16 * 8);
    addPointSpill(some, groundRelief(CAMERA, part), CAMERA, part, lamp([0.4, 6, 3]));
    some.forEach((value, i) => {
      expect(value).toBeCloseTo(whole[(20 + Math.floor(i / 16)) * SIZE.width + 12 + (i % 16)], 4);
    });
  });
});

describe('addPointAir', () => {
  it('is the integral of single scattering along the view ray', () => {
    const relief = groundRelief(CAMERA, SIZE);
    const light = lamp([0.8, 7, 2.5]);
    const air = new Float32Array(SIZE.width * SIZE.height);
    addPointAir(air, relief.reach, CAMERA, SIZE, light);
    const i = indexOf([0, 9, 0]);
    const [x, y, z] = groundAt(i);
    const toSurface = [x, y, z - CAMERA.eyeHeight];
    const T = Math.hypot(...toSurface);
    const steps = 20000;
    let sum = 0;
    for (let k = 0; k < steps; k++) {
      const t = ((k + 0.5) / steps) * T;
      const d2 = toSurface.reduce((total, c, axis) => {
        const source = light.place[axis] - (axis === 2 ? CAMERA.eyeHeight : 0);
        return total + ((c / T) * t - source) ** 2;
      }, 0);
      sum += (100 / d2 / (4 * Math.PI)) * (T / steps);
    }
    expect(air[i]).toBeCloseTo(sum, 3);
  });
});
