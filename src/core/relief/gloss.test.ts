import { describe, expect, it } from 'vitest';
import { createCamera, rayThrough } from '../geometry/camera';
import { glossFrame } from '../plan/gloss-frame';
import { wholeRegion } from '../plane/region';
import { rasterizeGloss } from './rasterize-gloss';
import { RELIEF_PLANES, type Relief } from './relief-planes';
import { createReliefRow, sightRow } from './relief-row';

const REGION = wholeRegion(90, 60);
const CAMERA = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 35 }, 1.5);

/** A row of level ground that shines a little, the left half of it under a gloss. */
function glossed(lean: number, turn: number, roundness = 0, tilt = { right: 0, up: 0 }) {
  const out = Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(REGION.width)]),
  ) as unknown as Relief;
  out.normalZ.fill(1);
  out.reach.fill(7);
  out.sheen.fill(0.2);
  out.alpha.fill(0.5);
  out.unknownFacing.fill(1);
  const row = createReliefRow(REGION.width);
  sightRow(row, CAMERA, wholeRegion(REGION.width, 1), 0);
  const coverage = Float32Array.from({ length: REGION.width }, (_, x) => (x < 45 ? 1 : 0));
  const all = (value: number) => new Float32Array(REGION.width).fill(value);
  const gloss = { coverage, roundness, sheen: 0.9, roughness: 0.2, frame: glossFrame({ turn, lean }) };
  const round = { right: all(tilt.right), up: all(tilt.up) };
  rasterizeGloss(out, row, { from: 0, to: REGION.width }, gloss, round);
  const normal = [out.normalX[10], out.normalY[10], out.normalZ[10]];
  return { out, normal };
}

describe('a gloss', () => {
  it('faces where it is turned and leans to, as far off as what it lies on', () => {
    const { out, normal } = glossed(60, 30);
    const [side, level] = [Math.sin(Math.PI / 6), Math.cos(Math.PI / 3)];
    expect(normal[0]).toBeCloseTo(level * side, 6);
    expect(normal[1]).toBeCloseTo(-level * Math.cos(Math.PI / 6), 6);
    expect(normal[2]).toBeCloseTo(Math.sin(Math.PI / 3), 6);
    expect(out.reach[10]).toBe(7);
    expect(out.sheen[10]).toBeCloseTo(0.9, 6);
    expect(out.alpha[10]).toBeCloseTo(0.04, 6);
    expect(out.unknownFacing[10]).toBe(0);
  });

  it('leaves what it does not cover as it was', () => {
    const { out } = glossed(60, 30);
    expect([out.normalX[60], out.normalY[60], out.normalZ[60]]).toEqual([0, 0, 1]);
    expect(out.sheen[60]).toBeCloseTo(0.2, 6);
    expect(out.unknownFacing[60]).toBe(1);
  });

  it('bulges to the right and up along itself, its normals of unit length', () => {
    const flat = glossed(40, -20).normal;
    const { right, up } = glossFrame({ lean: 40, turn: -20 });
    const dot = (a: readonly number[], b: readonly number[]) =>
      a.reduce((sum, value, k) => sum + value * b[k], 0);
    const bulged = glossed(40, -20, 0.5, { right: 0.6, up: -0.4 }).normal;
    expect(Math.hypot(...bulged)).toBeCloseTo(1, 6);
    expect(dot(bulged, right)).toBeCloseTo(0.3, 6);
    expect(dot(bulged, up)).toBeCloseTo(-0.2, 6);
    expect(dot(flat, right)).toBeCloseTo(0, 6);
  });

  it('has a frame of its own that is square, its right seen to the right', () => {
    for (const [turn, lean] of [
      [0, 0],
      [-70, 80],
      [45, -30],
    ]) {
      const { normal, right, up } = glossFrame({ turn, lean });
      const dot = (a: readonly number[], b: readonly number[]) =>
        a.reduce((sum, value, k) => sum + value * b[k], 0);
      for (const [a, b] of [
        [normal, right],
        [normal, up],
        [right, up],
      ])
        expect(dot(a, b)).toBeCloseTo(0, 12);
      expect(dot(right, rayThrough(CAMERA, { u: 1, v: 0.5 }))).toBeGreaterThan(
        dot(right, rayThrough(CAMERA, { u: 0, v: 0.5 })),
      );
    }
  });
});
