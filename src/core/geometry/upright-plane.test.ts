import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createCamera, project } from './camera';
import { alongOf, onPlane, planeToPlate, type UprightPlane } from './upright-plane';

const camera = createCamera({ horizon: { left: 0.45, right: 0.47 }, eyeHeight: 1.6, lens: 28 }, 1.5);

const planes = fc
  .record({
    ahead: fc.double({ min: 3, max: 40, noNaN: true }),
    turn: fc.double({ min: -1.1, max: 1.1, noNaN: true }),
  })
  .map(({ ahead, turn }): UprightPlane => ({
    point: [0, ahead, 0],
    normal: [Math.sin(turn), -Math.cos(turn), 0],
  }));
const length = fc.double({ min: -1.5, max: 1.5, noNaN: true });

describe('planeToPlate', () => {
  it('is where the camera sees the place, and onPlane leads back to it', () => {
    fc.assert(
      fc.property(planes, length, fc.double({ min: 0, max: 6, noNaN: true }), (plane, along, up) => {
        const [ax, ay] = alongOf(plane);
        const place = [plane.point[0] + along * ax, plane.point[1] + along * ay, up] as const;
        const at = planeToPlate(camera, plane)(along, up)!;
        const seen = project(camera, [...place])!;
        expect(at.u).toBeCloseTo(seen.u, 9);
        expect(at.v).toBeCloseTo(seen.v, 9);
        onPlane(camera, plane, at).forEach((value, i) => expect(value).toBeCloseTo(place[i], 6));
      }),
    );
  });

  it('says nothing of what lies behind the eye', () => {
    const beside: UprightPlane = { point: [2, 0, 0], normal: [-1, 0, 0] };
    expect(planeToPlate(camera, beside)(4, 1.6)).toBeUndefined();
    expect(planeToPlate(camera, beside)(-4, 1.6)).toBeDefined();
  });
});
