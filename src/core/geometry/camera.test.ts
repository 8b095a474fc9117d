import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createCamera, project, rayThrough } from './camera';
import { FARTHEST_GROUND, groundPoint } from './ground';
import { groundGrid } from './ground-grid';
import { footForHeight, metresPerWidth, placeOnStalk } from './place-on-stalk';
import { length } from './vec3';

const level = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 36 }, 1.5);
const settings = fc.record({
  horizon: fc.record({
    left: fc.double({ min: -0.4, max: 1.4, noNaN: true }),
    right: fc.double({ min: -0.4, max: 1.4, noNaN: true }),
  }),
  eyeHeight: fc.double({ min: 0.2, max: 50, noNaN: true }),
  lens: fc.double({ min: 10, max: 400, noNaN: true }),
});
const place = fc.record({
  u: fc.double({ min: -4, max: 5, noNaN: true }),
  v: fc.double({ min: -4, max: 5, noNaN: true }),
});

describe('camera', () => {
  it('looks straight ahead through the middle of a level plate', () => {
    const [x, y, z] = rayThrough(level, { u: 0.5, v: 0.5 });
    expect(x).toBeCloseTo(0, 9);
    expect(y).toBeCloseTo(1, 9);
    expect(z).toBeCloseTo(0, 9);
  });

  it('sees the ground where similar triangles say', () => {
    // A 36 mm lens spans one plate width at one plate width: 0.25 of the height below the horizon is 1/6 of a width.
    const [x, y, z] = groundPoint(level, { u: 0.5, v: 0.75 });
    expect([x, z]).toEqual([expect.closeTo(0, 9), 0]);
    expect(y).toBeCloseTo(1.6 * 6, 6);
  });

  it('puts the horizon where it was drawn, tilted or not', () => {
    fc.assert(
      fc.property(settings, fc.double({ min: 0, max: 1, noNaN: true }), (s, u) => {
        const camera = createCamera(s, 1.5);
        const v = s.horizon.left + u * (s.horizon.right - s.horizon.left);
        const ray = rayThrough(camera, { u, v });
        expect(Math.abs(ray[2]) / length(ray)).toBeLessThan(1e-9);
      }),
    );
  });

  it('projects back to where a ground point was seen', () => {
    fc.assert(
      fc.property(settings, place, (s, at) => {
        const camera = createCamera(s, 1.5);
        const ray = rayThrough(camera, at);
        fc.pre(ray[2] < -1e-3 && ray[1] > 1e-3 && (-s.eyeHeight / ray[2]) * ray[1] < FARTHEST_GROUND / 2);
        const seen = project(camera, groundPoint(camera, at));
        expect(seen!.u).toBeCloseTo(at.u, 4);
        expect(seen!.v).toBeCloseTo(at.v, 4);
      }),
    );
  });

  it('does not see what lies behind it', () => {
    expect(project(level, [0, -3, 0])).toBeUndefined();
  });
});

describe('stalk', () => {
  it('hangs a lamp over its foot at the height that the picture shows', () => {
    const foot = project(level, [0.5, 8, 0])!;
    const drop = project(level, [0.5, 8, 3.4])!;
    const [x, y, z] = placeOnStalk(level, drop, foot);
    expect([x, y, z]).toEqual([expect.closeTo(0.5, 6), expect.closeTo(8, 6), expect.closeTo(3.4, 6)]);
    expect(metresPerWidth(level, drop, [x, y, z])).toBeCloseTo(8, 6);
  });

  it('guesses a foot that gives the wanted height', () => {
    const drop = project(level, [1, 9, 3.4])!;
    const foot = footForHeight(level, drop, 3.4);
    expect(placeOnStalk(level, drop, foot)[2]).toBeCloseTo(3.4, 5);
  });

  it('never gives anything but numbers, whatever the plan and wherever the foot', () => {
    fc.assert(
      fc.property(settings, place, place, (s, at, foot) => {
        const camera = createCamera(s, 1.5);
        const hung = placeOnStalk(camera, at, foot);
        expect(hung.every(Number.isFinite)).toBe(true);
        const guess = footForHeight(camera, at, 3.4);
        expect(Number.isFinite(guess.u) && Number.isFinite(guess.v)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});

it('the grid converges at the horizon and has squares of one metre', () => {
  const lines = groundGrid(level, 1, 20);
  const [from, to] = lines.find(([a, b]) => Math.abs(a.u - 0.5) < 1e-9 && Math.abs(b.u - 0.5) < 1e-9)!;
  expect(from.v).toBeGreaterThan(to.v);
  expect(to.v).toBeGreaterThan(0.5);
  const across = lines.filter(([a, b]) => Math.abs(a.v - b.v) < 1e-9).map(([a]) => groundPoint(level, a)[1]);
  expect(across[1] - across[0]).toBeCloseTo(1, 6);
});
