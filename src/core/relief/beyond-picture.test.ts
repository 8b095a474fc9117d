import { describe, expect, it } from 'vitest';
import { createCamera, project, rayThrough } from '../geometry/camera';
import { straightPiece, type WallPiece } from '../plan/wall-pieces';
import { DULL } from '../plan/surfaces';
import { BEYOND, beyondPicture } from './beyond-picture';
import { RELIEF_PLANES, type Relief } from './relief-planes';

const CAMERA = createCamera({ horizon: { left: 0.35, right: 0.4 }, eyeHeight: 1.7, lens: 28 }, 1.5);
const COUNT = BEYOND.width * BEYOND.height;

const beyond = (walls: WallPiece[] = []) => {
  const out = Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(COUNT).fill(NaN)]),
  ) as unknown as Relief;
  beyondPicture(out, CAMERA, walls);
  return out;
};

const placeAt = (i: number) => ({
  u: (BEYOND.left + (i % BEYOND.width) + 0.5) / BEYOND.fullWidth,
  v: (BEYOND.top + Math.floor(i / BEYOND.width) + 0.5) / BEYOND.fullHeight,
});

/** The world place of a cell. */
function worldAt({ reach }: Relief, i: number) {
  const [x, y, z] = rayThrough(CAMERA, placeAt(i)).map((part) => part * reach[i]);
  return [x, y, z + CAMERA.eyeHeight] as const;
}

const cells = Array.from({ length: COUNT }, (_, i) => i);
const isWithin = (i: number) => {
  const { u, v } = placeAt(i);
  return u > 0 && u < 1 && v > 0 && v < 1;
};

describe('beyond the picture', () => {
  it('lies level ground on either side and down to before the feet, and nothing within the picture or far off', () => {
    const land = beyond();
    expect(cells.filter(isWithin)).toHaveLength(BEYOND.fullWidth * BEYOND.fullHeight);
    for (const i of cells) {
      for (const name of RELIEF_PLANES) expect(land[name][i]).not.toBeNaN();
      if (isWithin(i)) expect(land.land[i]).toBe(0);
      if (land.land[i] === 0) continue;
      const [x, y, z] = worldAt(land, i);
      expect(z).toBeCloseTo(0, 4);
      expect(Math.hypot(x, y)).toBeLessThan(60);
      expect([land.normalX[i], land.normalY[i], land.normalZ[i]]).toEqual([0, 0, 1]);
    }
    const lying = cells.filter((i) => land.land[i] > 0).map(placeAt);
    expect(lying.some(({ u }) => u < -0.9)).toBe(true);
    expect(lying.some(({ u }) => u > 1.9)).toBe(true);
    expect(lying.some(({ v }) => v > 2.9)).toBe(true);
  });

  it('stands a wall that goes on there, up to its height, with nothing of what it hides', () => {
    const wall = straightPiece([-6, -20], [-6, 40], { height: 5, finish: DULL });
    const land = beyond([wall]);
    const onWall = cells.filter((i) => land.land[i] > 0 && land.normalZ[i] === 0);
    expect(onWall.length).toBeGreaterThan(50);
    for (const i of onWall) {
      const [x, , z] = worldAt(land, i);
      expect(x).toBeCloseTo(-6, 3);
      expect(z).toBeGreaterThan(-1e-3);
      expect(z).toBeLessThan(5);
      expect(land.normalX[i]).toBe(1);
    }
    for (const i of cells) if (land.land[i] > 0) expect(worldAt(land, i)[0]).toBeGreaterThan(-6.001);
    // A place of it over the ground before it is seen where the camera says.
    const { u, v } = project(CAMERA, [-6, 5, 2])!;
    const column = Math.floor(u * BEYOND.fullWidth) - BEYOND.left;
    const row = Math.floor(v * BEYOND.fullHeight) - BEYOND.top;
    expect(onWall).toContain(row * BEYOND.width + column);
  });
});
