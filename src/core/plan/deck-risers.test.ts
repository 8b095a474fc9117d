import { describe, expect, it } from 'vitest';
import { createCamera, project, type PlatePoint } from '../geometry/camera';
import { wholeRegion } from '../plane/region';
import { rasterizeWalls, spanWalls } from '../relief/rasterize-walls';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { createReliefRow, sightRow } from '../relief/relief-row';
import { deckRisers } from './deck-risers';
import { DULL } from './surfaces';

const [WIDTH, HEIGHT] = [90, 240];
const camera = createCamera({ horizon: { left: 0.4, right: 0.4 }, eyeHeight: 1.6, lens: 30 }, WIDTH / HEIGHT);
const square = (height: number, from: number, to: number, turned = false) => {
  const corners = [
    [-2, from],
    [2, from],
    [2, to],
    [-2, to],
  ].map(([x, y]) => project(camera, [x, y, height])!);
  const outline: PlatePoint[] = turned ? corners.reverse() : corners;
  return { outline, height, ...DULL };
};

describe('deckRisers', () => {
  it('stand where a kerb or a platform faces the eye, whichever way it was drawn', () => {
    for (const turned of [false, true]) {
      const [riser, ...others] = deckRisers(camera, [square(0.4, 6, 9, turned)]);
      expect(others).toEqual([]);
      expect([riser.ay, riser.by].map((y) => Math.round(y))).toEqual([6, 6]);
      expect(riser.normalY).toBeCloseTo(-1, 6);
      expect(riser).toMatchObject({ height: 0.4, base: 0 });
    }
  });

  it('rise beyond a road or water up to the ground', () => {
    const risers = deckRisers(camera, [square(-0.8, 6, 9)]);
    const far = risers.filter(({ ay, by }) => Math.min(ay, by) > 8.9);
    expect(far).toHaveLength(1);
    // From its middle both sides of a pit are seen, too, and not its near edge.
    expect(risers).toHaveLength(3);
    for (const riser of risers) expect(riser).toMatchObject({ height: 0, base: -0.8 });
  });

  it('are none of a canopy, a table, a slope, or what lies on the ground', () => {
    const table = square(0.75, 6, 6.9);
    expect(deckRisers(camera, [table])).toEqual([]);
    expect(deckRisers(camera, [square(0.75, 6, 9)])).toHaveLength(1);
    expect(deckRisers(camera, [square(0.3, 6, 6.9)])).toHaveLength(1);
    expect(deckRisers(camera, [square(3, 6, 9)])).toEqual([]);
    expect(deckRisers(camera, [{ ...square(0.4, 6, 9), pitch: 10 }])).toEqual([]);
    expect(deckRisers(camera, [square(0.001, 6, 9)])).toEqual([]);
    const wide = { ...camera, eyeHeight: 0.3 };
    expect(deckRisers(wide, [square(0.4, 6, 9)])).toEqual([]);
  });

  it('are laid between the levels that they join, facing the eye', () => {
    const relief = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(WIDTH * HEIGHT)]),
    ) as unknown as Relief;
    const walls = spanWalls({ walls: deckRisers(camera, [square(-0.8, 6, 9)]), ends: {} });
    const row = createReliefRow(WIDTH);
    row.ground.fill(1);
    row.land.fill(1);
    for (let y = 0; y < HEIGHT; y++) {
      sightRow(row, camera, wholeRegion(WIDTH, HEIGHT), y);
      rasterizeWalls(relief, row, walls, camera);
    }
    const normalAt = (z: number) => {
      const { u, v } = project(camera, [0, 9, z])!;
      return relief.normalY[Math.floor(v * HEIGHT) * WIDTH + Math.floor(u * WIDTH)];
    };
    expect(normalAt(-0.4)).toBeCloseTo(-1, 6);
    expect(normalAt(0.2)).toBe(0);
    expect(normalAt(-1)).toBe(0);
  });
});
