import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createCamera, project, rayThrough, type PlatePoint } from '../geometry/camera';
import { addPointSpill } from '../light/add-point-spill';
import { occlude } from '../light/occlusion';
import type { PointLight } from '../light/point-light';
import { wholeRegion } from '../plane/region';
import { rasterizeDeck } from '../relief/rasterize-deck';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { createReliefRow, sightRow } from '../relief/relief-row';
import { deckPlane, eaveOf, heightOver, intersectDeck, pitchTo } from './deck-plane';
import { deckPieces, DULL, standsOn } from './surfaces';

const [WIDTH, HEIGHT] = [120, 80];
const REGION = wholeRegion(WIDTH, HEIGHT);
const camera = createCamera(
  { horizon: { left: 0.55, right: 0.5 }, eyeHeight: 1.6, lens: 28 },
  WIDTH / HEIGHT,
);
const seen = (x: number, y: number, z: number) => project(camera, [x, y, z])!;

/** The outline of a slope that rises from an eave of 4 m, as it is seen, and its plane. */
function slope(pitch: number, { x = 0, y = 6, turn = 0, height = 2.4, deep = 1.5 } = {}) {
  const steep = Math.tan((pitch * Math.PI) / 180);
  const [along, away] = [
    [Math.cos(turn), Math.sin(turn)],
    [-Math.sin(turn), Math.cos(turn)],
  ];
  const at = (a: number, d: number) =>
    [x + a * along[0] + d * away[0], y + a * along[1] + d * away[1], height + steep * d] as const;
  const corners = [at(-2, deep), at(2, deep), at(2, 0), at(-2, 0)];
  return { corners, deck: { outline: corners.map((corner) => seen(...corner)), height, pitch } };
}

const pitches = fc.double({ min: 5, max: 60, noNaN: true });
const turns = fc.double({ min: -0.6, max: 0.6, noNaN: true });

describe('deckPlane', () => {
  it('goes through all corners of a slope, however it is turned', () => {
    fc.assert(
      fc.property(pitches, turns, fc.double({ min: -1, max: 1, noNaN: true }), (pitch, turn, x) => {
        // A roof under the eye: its eave is its lowest edge, whichever way it is turned.
        const { corners, deck } = slope(pitch, { x, turn, height: 0.4, deep: 1 });
        const plane = deckPlane(camera, deck);
        for (const [cx, cy, cz] of corners) expect(heightOver(plane, cx, cy)).toBeCloseTo(cz, 4);
        deckPieces(camera, [deck])[0].corners.forEach(([px, py], k) => {
          expect(px).toBeCloseTo(corners[k][0], 4);
          expect(py).toBeCloseTo(corners[k][1], 4);
        });
      }),
    );
  });

  it('is level without a pitch, and where an eave has no direction', () => {
    const { deck } = slope(0);
    expect(deckPlane(camera, { ...deck, pitch: undefined })).toEqual({ height: 2.4, riseX: 0, riseY: 0 });
    const point: PlatePoint = { u: 0.5, v: 0.3 };
    const plane = deckPlane(camera, { outline: [point, point, point], height: 2, pitch: 30 });
    expect(plane).toEqual({ height: 2, riseX: 0, riseY: 0 });
  });

  it('is not met by a ray along it or away from it', () => {
    const plane = { height: 2, riseX: 0, riseY: 0.5 };
    expect(intersectDeck(plane, 1.6, 0, 1, 0.5)).toBe(Infinity);
    expect(intersectDeck(plane, 1.6, 0, 1, 0.4)).toBe(Infinity);
    expect(intersectDeck(plane, 1.6, 0, 1, 0.6)).toBeCloseTo(4, 9);
  });
});

describe('eaveOf', () => {
  it('is the lowest long edge', () => {
    const outline = [
      { u: 0.2, v: 0.3 },
      { u: 0.8, v: 0.32 },
      { u: 0.85, v: 0.45 },
      { u: 0.84, v: 0.46 },
      { u: 0.15, v: 0.44 },
    ];
    expect(eaveOf(outline)).toEqual([outline[3], outline[4]]);
  });
});

describe('pitchTo', () => {
  it('tells the pitch of a slope by a place that it hangs on', () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 60, noNaN: true }), (pitch) => {
        const { corners, deck } = slope(pitch);
        expect(pitchTo(camera, deck, corners[0])).toBeCloseTo(pitch, 3);
      }),
    );
    expect(pitchTo(camera, slope(20).deck, [0, 6, 4])).toBeUndefined();
  });
});

describe('a slope', () => {
  const { deck, corners } = slope(25);
  const relief = Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(WIDTH * HEIGHT)]),
  ) as unknown as Relief;
  const row = createReliefRow(WIDTH);
  for (let y = 0; y < HEIGHT; y++) {
    sightRow(row, camera, REGION, y);
    row.met.fill(Infinity);
    rasterizeDeck(
      relief,
      row,
      { plane: deckPlane(camera, deck), finish: DULL },
      new Float32Array(WIDTH).fill(1),
      camera.eyeHeight,
    );
  }
  const indexAt = (x: number, y: number, z: number) => {
    const { u, v } = seen(x, y, z);
    return Math.floor(v * HEIGHT) * WIDTH + Math.floor(u * WIDTH);
  };

  it('shows its upper side to an eye over its plane, at its own distance', () => {
    const i = indexAt(0, 6.7, 2.4 + 0.7 * Math.tan((25 * Math.PI) / 180));
    const radians = (25 * Math.PI) / 180;
    expect(relief.normalZ[i]).toBeCloseTo(Math.cos(radians), 5);
    expect(relief.normalY[i]).toBeCloseTo(-Math.sin(radians), 5);
    const [u, v] = [((i % WIDTH) + 0.5) / WIDTH, (Math.floor(i / WIDTH) + 0.5) / HEIGHT];
    const ray = rayThrough(camera, { u, v });
    const place = ray.map((c, k) => c * relief.reach[i] + (k === 2 ? 1.6 : 0));
    expect(place[2]).toBeCloseTo(2.4 + (place[1] - 6) * Math.tan(radians), 4);
  });

  it('shows its underside to an eye under its plane, whose lowest edge then is the far one', () => {
    const low = slope(4, { height: 3 });
    const far = low.corners[0][2];
    expect(eaveOf(low.deck.outline)).toEqual(low.deck.outline.slice(0, 2));
    const plane = deckPlane(camera, { ...low.deck, height: far });
    for (const [x, y, z] of low.corners) expect(heightOver(plane, x, y)).toBeCloseTo(z, 4);
    expect(plane.height).toBeGreaterThan(camera.eyeHeight);
  });

  it('takes light by the cosine of its tilt', () => {
    const light: PointLight = { place: [0, 5, 4], spillCandela: 100, airCandela: 0, radius: 1e-4 };
    const spill = new Float32Array(WIDTH * HEIGHT);
    const land = { ...relief, land: new Float32Array(spill.length).fill(1) };
    addPointSpill(spill, land, camera, REGION, light);
    const i = indexAt(0, 6.5, 2.4 + 0.5 * Math.tan((25 * Math.PI) / 180));
    const [u, v] = [((i % WIDTH) + 0.5) / WIDTH, (Math.floor(i / WIDTH) + 0.5) / HEIGHT];
    const ray = rayThrough(camera, { u, v });
    const way = [0, 5, 4 - 1.6].map((c, k) => c - ray[k] * relief.reach[i]);
    const d = Math.hypot(...way);
    const cosine = (way[0] * relief.normalX[i] + way[1] * relief.normalY[i] + way[2] * relief.normalZ[i]) / d;
    expect(cosine).toBeGreaterThan(0.5);
    // Its own rough sheen comes on top.
    expect(spill[i]).toBeGreaterThan((100 * cosine) / d ** 2);
    expect(spill[i]).toBeLessThan((1.5 * 100 * cosine) / d ** 2);
  });

  it('throws its shadow where it stands between, and only there', () => {
    const decks = deckPieces(camera, [deck]);
    const seenAt = (x: number, y: number, place: PointLight['place']) => {
      const { u, v } = seen(x, y, 0);
      const region = {
        ...REGION,
        left: Math.floor(u * WIDTH),
        top: Math.floor(v * HEIGHT),
        width: 1,
        height: 1,
      };
      const ray = rayThrough(camera, { u: (region.left + 0.5) / WIDTH, v: (region.top + 0.5) / HEIGHT });
      const out = new Float32Array([1]);
      const light: PointLight = { place, spillCandela: 1, airCandela: 0, radius: 0.01 };
      const reach = new Float32Array([-1.6 / ray[2]]);
      occlude(out, { reach }, camera, region, light, { walls: [], decks, standees: [], ends: {} });
      return out[0];
    };
    expect(seenAt(0, 6.7, [0, 6.7, 6])).toBe(0);
    expect(seenAt(0, 4.5, [0, 6.7, 6])).toBe(1);
    expect(seenAt(0, 6.7, [0, 6.7, 2.5])).toBe(1);
    // Beside the plane's own height over its upper edge, but under the slope there.
    const top = corners[0][2];
    expect(seenAt(0, 7.2, [0, 7.2, top - 0.4])).toBe(1);
    expect(seenAt(0, 7.2, [0, 7.2, top + 0.1])).toBe(0);
  });

  it('carries what stands on it', () => {
    const ramp = slope(12, { y: 5, height: 0, deep: 4 });
    const foot = seen(0.5, 7, 2 * Math.tan((12 * Math.PI) / 180));
    const [x, y, z] = standsOn(camera, foot, [ramp.deck]);
    expect(x).toBeCloseTo(0.5, 3);
    expect(y).toBeCloseTo(7, 3);
    expect(z).toBeCloseTo(2 * Math.tan((12 * Math.PI) / 180), 3);
  });
});
