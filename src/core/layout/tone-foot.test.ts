import { describe, expect, it } from 'vitest';
import { toneFoot } from './tone-foot';
import { slopeOf, type Side } from './wall-side';

const own: Side = {
  place: { u: 0.6, share: 1 },
  side: -1,
  horizon: { left: 0.4, right: 0.4 },
  aspect: 1.5,
};
const SPAN = { from: 0, to: 0.4 };
const [width, height] = [150, 100];

const BRICK = [0.16, 0.08, 0.05];
const COBBLES = [0.14, 0.13, 0.11];
const ROAD = [0.03, 0.03, 0.03];

/** A side whose tone goes by the slope under the horizon. */
function cover(toneAt: (slope: number) => readonly number[]) {
  const planes = [0, 1, 2].map((c) =>
    Float32Array.from({ length: width * height }, (_, i) => {
      const at = { u: ((i % width) + 0.5) / width, v: (Math.floor(i / width) + 0.5) / height };
      return toneAt(slopeOf(own, at))[c];
    }),
  );
  const none = new Float32Array(width * height);
  return {
    ...{ width, height, ground: none, sky: none },
    plate: { width, height, r: planes[0], g: planes[1], b: planes[2] },
  };
}

const below = (slope: number, toneAt: Parameters<typeof cover>[0]) =>
  toneFoot(own, SPAN, slope, cover(toneAt));

describe('toneFoot', () => {
  it('moves down from sills to where the tone of the wall ends', () => {
    const found = below(0.2, (slope) => (slope < 0.5 ? BRICK : COBBLES))!;
    expect(Math.abs(Math.log(found / 0.5))).toBeLessThan(0.12);
  });

  it('stays where the tone steps on the foot, though a kerb below steps more', () => {
    const street = (slope: number) => (slope < 0.2 ? BRICK : slope < 0.5 ? COBBLES : ROAD);
    expect(below(0.2, street)).toBeUndefined();
  });

  it('stays where nothing steps, where what lies between is not as the wall, and where the plate ends', () => {
    const lawn = (slope: number) =>
      BRICK.map((c, k) => c + ([0.05, 0.2, 0.03][k] - c) * Math.min(1, Math.max(0, slope / 0.25 - 1)));
    expect(below(0.2, () => BRICK)).toBeUndefined();
    expect(below(0.2, (slope) => (slope < 0.8 ? lawn(slope) : ROAD))).toBeUndefined();
    expect(below(3, () => BRICK)).toBeUndefined();
  });
});
