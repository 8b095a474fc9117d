import { describe, expect, it } from 'vitest';
import { createCamera, project, rayThrough } from '../geometry/camera';
import { glossFrame } from '../plan/gloss-frame';
import { wholeRegion } from '../plane/region';
import { addMirrors, mirrorFresnel } from './add-mirrors';
import { fillPyramid, pyramidLength, pyramidLevels } from './light-pyramid';
import { mirrorImage } from './mirror-image';
import { mirrorMap } from './mirror-map';

const [W, H] = [240, 160];
const CAMERA = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 30 }, 1.5);
const SIZE = W * H;
const plane = (value = 0) => new Float32Array(SIZE).fill(value);
const ahead = (x: number, y: number) => rayThrough(CAMERA, { u: (x + 0.5) / W, v: (y + 0.5) / H });

/** Calm ground with a wall across it, so far ahead and so high, under the sky. */
function calm(wall: number, high: number) {
  const lie = {
    reach: plane(),
    normalX: plane(),
    normalY: plane(),
    normalZ: plane(),
    land: plane(),
    sheen: plane(1),
  };
  for (let i = 0; i < SIZE; i++) {
    const [, ry, rz] = ahead(i % W, Math.floor(i / W));
    const onGround = rz < 0 ? -1.6 / rz : Infinity;
    const onWall = wall / ry;
    const hitsWall = onWall < onGround && 1.6 + rz * onWall <= high;
    lie.land[i] = hitsWall || onGround < 1e4 ? 1 : 0;
    lie.reach[i] = hitsWall ? onWall : Math.min(1e4, onGround);
    if (hitsWall) lie.normalY[i] = -1;
    else lie.normalZ[i] = lie.land[i];
  }
  return lie;
}

const emptyMap = () => ({
  ...{ u: plane(), v: plane(), behind: plane() },
  ...{ weight: plane(), ripples: plane(), facing: plane() },
});

function mapped(wall: number, high: number) {
  const lie = calm(wall, high);
  const map = emptyMap();
  mirrorMap(map, lie, CAMERA, W, H);
  return { lie, map };
}

describe('a calm mirror', () => {
  it('shows a place of a wall at its mirrored height', () => {
    const { map } = mapped(12, 6);
    for (const up of [1, 2.5, 4]) {
      // Where a point as deep below the ground would be seen is where it is mirrored.
      const at = project(CAMERA, [1, 12, -up])!;
      const i = Math.floor(at.v * H) * W + Math.floor(at.u * W);
      if (at.v >= 1) continue;
      const shown = project(CAMERA, [1, 12, up])!;
      expect(map.weight[i]).toBe(1);
      expect(Math.abs(map.u[i] - shown.u)).toBeLessThan(2.5 / W);
      expect(Math.abs(map.v[i] - shown.v)).toBeLessThan(5 / H);
    }
  });

  it('shows the sky over a low wall, mirrored at the horizon', () => {
    const { map } = mapped(30, 0.5);
    const [x, y] = [120, 150];
    const i = y * W + x;
    expect(map.behind[i]).toBe(1);
    // The horizon is level at half the height: what is seen lies as far above it.
    expect(map.v[i]).toBeCloseTo(1 - (y + 0.5) / H, 2);
  });

  it('is one wherever ground is, and a wall that faces the eye mirrors what lies behind it', () => {
    const { map, lie } = mapped(12, 3);
    const ground = lie.normalZ.reduce((sum, up) => sum + (up > 0 ? 1 : 0), 0);
    const mirrors = map.weight.reduce((sum, value) => sum + value, 0);
    expect(mirrors).toBeGreaterThanOrEqual(ground);
    for (const values of Object.values(map)) expect(values.every(Number.isFinite)).toBe(true);
  });
});

describe('a gloss that leans', () => {
  /** What a plane that faces the eye 6 m ahead, leaning back by some degrees, shows at a place of the picture. */
  function shownBy(lean: number, turn: number, at: { u: number; v: number }) {
    const lie = calm(6, 50);
    const { normal } = glossFrame({ turn, lean });
    for (let i = 0; i < SIZE; i++) {
      lie.reach[i] = 6 / ahead(i % W, Math.floor(i / W))[1];
      [lie.normalX[i], lie.normalY[i], lie.normalZ[i]] = normal;
    }
    const map = emptyMap();
    mirrorMap(map, { ...lie, land: plane(1) }, CAMERA, W, H, plane(1));
    const i = Math.floor(at.v * H) * W + Math.floor(at.u * W);
    const seen = { u: (Math.floor(at.u * W) + 0.5) / W, v: (Math.floor(at.v * H) + 0.5) / H };
    return { u: map.u[i], v: map.v[i], ripples: map.ripples[i], seen };
  }
  const RADIANS = Math.PI / 180;

  it('shows what is twice as far up as it leans, of what lies before the eye', () => {
    const { u, v, ripples, seen } = shownBy(5, 0, { u: 0.5, v: 0.5 });
    // A ray a little below the horizon comes back as far above twice the lean.
    const down = Math.asin(-rayThrough(CAMERA, seen)[2] / Math.hypot(...rayThrough(CAMERA, seen)));
    const up = 10 * RADIANS - down;
    const expected = project(CAMERA, [0, 1e4 * Math.cos(up), 1.6 + 1e4 * Math.sin(up)])!;
    expect(v).toBeCloseTo(expected.v, 2);
    expect(u).toBeCloseTo(seen.u, 2);
    expect(ripples).toBe(0);
  });

  it('shows what is twice as far aside as it is turned', () => {
    const { u, v, seen } = shownBy(0, 8, { u: 0.5, v: 0.5 });
    const expected = project(CAMERA, [1e4 * Math.sin(16 * RADIANS), 1e4 * Math.cos(16 * RADIANS), 1.6])!;
    expect(Math.abs(u - expected.u)).toBeLessThan(0.02);
    expect(v).toBeCloseTo(seen.v, 2);
  });

  it('shows the sky far above where it lies well back, as a windscreen does', () => {
    expect(shownBy(60, 0, { u: 0.5, v: 0.6 }).v).toBeLessThan(0);
  });
});

describe('what a mirror shows', () => {
  const lit = (bright: (u: number, v: number) => number) => {
    const r = Float32Array.from({ length: SIZE }, (_, i) => bright((i % W) / W, Math.floor(i / W) / H));
    return { width: W, height: H, r, g: r, b: r };
  };
  const shown = (alpha: number, light = lit((u) => (u < 0.5 ? 1 : 0))) => {
    const { map } = mapped(12, 6);
    const known = new Float32Array(4 * SIZE);
    const levels = pyramidLevels(new Float32Array(pyramidLength(W, H)), W, H);
    fillPyramid(levels, light);
    mirrorImage(known, levels, { ...map, alpha: plane(alpha), facing: plane(0.3) }, CAMERA.focal);
    const out = { r: plane().map((_, i) => known[4 * i]) };
    return { out, map };
  };

  it('is as bright as what is even around it, however rough it is', () => {
    for (const alpha of [0.001, 0.04, 0.2]) {
      const { out, map } = shown(
        alpha,
        lit(() => 0.7),
      );
      const off = out.r.map((value, i) => Math.abs(value - (map.weight[i] > 0 ? 0.7 : 0)));
      expect(Math.max(...off)).toBeLessThan(1e-4);
    }
  });

  it('is blurred by its roughness, more along the view than across it', () => {
    const across = (alpha: number) => {
      const { out } = shown(alpha);
      const row = out.r.subarray(140 * W, 141 * W);
      return row.filter((value) => value > 0.05 && value < 0.95).length;
    };
    expect(across(0.15)).toBeGreaterThan(across(0.005));
    const along = (alpha: number) => {
      const { out } = shown(
        alpha,
        lit((_, v) => (v < 0.3 ? 1 : 0)),
      );
      let mixed = 0;
      for (let y = 80; y < H; y++) if (out.r[y * W + 120] > 0.05 && out.r[y * W + 120] < 0.95) mixed++;
      return mixed;
    };
    expect(along(0.05)).toBeGreaterThan(across(0.05));
  });

  it('comes with Fresnel’s share, more at a grazing view, and only where something shines', () => {
    expect(mirrorFresnel(1)).toBeCloseTo(0.04);
    expect(mirrorFresnel(0)).toBe(1);
    const { lie, map } = mapped(12, 6);
    const known = Float32Array.from({ length: 4 * SIZE }, (_, i) => map.weight[i >> 2]);
    const image = { width: W, height: H, data: known, weight: map.weight, ripples: map.ripples };
    const out = { width: W, height: H, r: plane(), g: plane(), b: plane() };
    const sheen = plane().map((_, i) => (i % W < W / 2 ? 1 : 0));
    addMirrors(out, { ...lie, sheen }, image, CAMERA, wholeRegion(W, H), 0.5);
    const at = (x: number, y: number) => out.r[y * W + x];
    expect(at(200, 150)).toBe(0);
    expect(at(60, 110)).toBeGreaterThan(at(60, 155));
    const [, , rz] = ahead(60, 155);
    expect(at(60, 155)).toBeCloseTo(0.5 * mirrorFresnel(-rz / Math.hypot(...ahead(60, 155))), 4);
  });
});
