import { describe, expect, it } from 'vitest';
import type { PlateLine } from '../geometry/vanishing-point';
import { footEdges, snapFoot } from './foot-edges';

const ASPECT = 1.5;
const HORIZON = { left: 0.4, right: 0.4 };
/** Runs to the place (0.8, 0.4) on the horizon. */
const toward = (u: number, v: number, share = 0.7): PlateLine => [
  { u, v },
  { u: u + share * (0.8 - u), v: v + share * (0.4 - v) },
];
const kerb = toward(0.1, 0.95);
const foot = toward(0.05, 0.8);

describe('footEdges', () => {
  it('are those under the horizon that run to a place of it', () => {
    const eaves = toward(0.1, 0.1);
    const upright: PlateLine = [
      { u: 0.3, v: 0.5 },
      { u: 0.3, v: 0.9 },
    ];
    const short = toward(0.2, 0.7, 0.02);
    const across: PlateLine = [
      { u: 0.2, v: 0.9 },
      { u: 0.6, v: 0.95 },
    ];
    const level = [{ u: 0.8, share: 0.5 }];
    expect(
      footEdges([kerb, eaves, upright, foot, short, across], { horizon: HORIZON, level }, ASPECT),
    ).toEqual([kerb, foot]);
  });
});

describe('snapFoot', () => {
  const edges = [kerb, foot];
  const on = ([a, b]: PlateLine, share: number, up = 0) => ({
    u: a.u + share * (b.u - a.u),
    v: a.v + share * (b.v - a.v) - up,
  });
  const off = ([a, b]: PlateLine, { u, v }: { u: number; v: number }) => {
    const [dx, dy] = [b.u - a.u, (b.v - a.v) / ASPECT];
    return Math.abs((u - a.u) * dy - ((v - a.v) / ASPECT) * dx) / Math.hypot(dx, dy);
  };

  it('lays a foot that is near to an edge on it, and leaves others where they are', () => {
    const near = on(foot, 0.4, 0.006);
    expect(off(foot, snapFoot(edges, near, undefined, ASPECT))).toBeLessThan(1e-9);
    const far = on(foot, 0.4, 0.06);
    expect(snapFoot(edges, far, undefined, ASPECT)).toEqual(far);
    expect(snapFoot([], near, undefined, ASPECT)).toEqual(near);
  });

  it('leads the far end along the edge on which the near one lies, from farther off', () => {
    const start = on(foot, 0.1);
    const end = on(foot, 0.9, 0.016);
    expect(off(foot, snapFoot(edges, end, undefined, ASPECT))).toBeGreaterThan(0.001);
    expect(off(foot, snapFoot(edges, end, start, ASPECT))).toBeLessThan(1e-9);
    // Where the two edges run together it stays on its own.
    const between = on(kerb, 0.85 / 0.7, 0.008);
    expect(off(foot, snapFoot(edges, between, start, ASPECT))).toBeLessThan(1e-9);
  });

  it('follows an edge a little beyond its end, and no farther', () => {
    expect(off(kerb, snapFoot([kerb], on(kerb, 1.3, 0.004), undefined, ASPECT))).toBeLessThan(1e-9);
    const beyond = on(kerb, 2.5, 0.001);
    expect(snapFoot([kerb], beyond, undefined, ASPECT)).toEqual(beyond);
  });
});
