import { describe, expect, it } from 'vitest';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import { cameraOf } from '@/core/picture/camera-of';
import { project, type PlatePoint } from '@/core/geometry/camera';
import { middleOf } from '@/core/plane/middle-of';
import { MOST_FIXTURES, type Fixture, type Scene } from '@/core/scene/schema';
import { streetScene, testCircuit } from '../../../test/street';
import { newFixture } from './fixture-actions';
import { twinCopies } from './twins';
import { footOfTwin, seenFoot, windowsIn } from './windows';

const bare = streetScene([]);
const seen = (x: number, y: number, z: number) => project(cameraOf(bare), [x, y, z])!;
const walled: Scene = {
  ...bare,
  plan: {
    ...bare.plan,
    walls: [{ id: 'w', name: 'Wall', foot: [seen(-6, 8, 0), seen(6, 8, 0)], height: 5, ...PLAIN_SURFACE }],
  },
};
const window = (x: number, z = 2): PlatePoint[] => [
  seen(x - 0.5, 8, z + 1),
  seen(x + 0.5, 8, z + 1),
  seen(x + 0.5, 8, z),
  seen(x - 0.5, 8, z),
];
const lit = (scene: Scene, path: PlatePoint[]): Fixture =>
  newFixture(scene, 'pane', middleOf(path), path, testCircuit('row'));

describe('windowsIn', () => {
  const own = lit(walled, window(0));
  const found = [-3, -1.5, 1.5].map((x) => ({ outline: window(x), score: 0.8 }));

  it('gives each its own outline and size, and leaves out what burns', () => {
    const scene = { ...walled, fixtures: [own, lit(walled, window(-1.5))] };
    const twins = windowsIn(scene, own, found);
    expect(twins.map(({ path }) => path)).toEqual([window(-3), window(1.5)]);
    for (const { times } of twins) expect(times).toBeCloseTo(1, 6);
    const small = { outline: window(3).map(({ u, v }) => ({ u: 0.8 + (u - 0.8) / 2, v })), score: 0.9 };
    expect(windowsIn(scene, own, [small])[0].times).toBeCloseTo(0.5, 1);
  });

  it('finds no more than a scene can hold', () => {
    const full = Array.from({ length: MOST_FIXTURES - 1 }, () => own);
    expect(windowsIn({ ...walled, fixtures: full }, own, found)).toHaveLength(1);
  });

  it('copies them with their outlines, each on its foot under the wall', () => {
    const scene = { ...walled, fixtures: [own] };
    const copies = twinCopies(scene, own, windowsIn(scene, own, found));
    expect(copies.map(({ path }) => path)).toEqual(found.map(({ outline }) => outline));
    for (const { foot, at } of copies) {
      expect(foot.v).toBeCloseTo(seen(0, 8, 0).v, 6);
      expect(Math.abs(foot.u - at.u)).toBeLessThan(0.02);
    }
  });
});

describe('a window on which no wall is said', () => {
  const at = middleOf(window(1));
  const [width, height] = [40, 30];
  const lie = (reach: number, land = 1) => ({
    ...{ width, height, reach: new Float32Array(width * height).fill(reach) },
    ...{ land: new Float32Array(width * height).fill(land), level: new Float32Array(width * height) },
    plate: { width, height, r: new Float32Array(), g: new Float32Array(), b: new Float32Array() },
  });

  it('stands where the lie of the land has it meet the ground', () => {
    const foot = seenFoot(bare, lie(12), at)!;
    const pane = { ...lit(bare, window(1)), foot };
    expect(foot.v).toBeGreaterThan(at.v);
    // Twins of it stand as far ahead.
    const twin = footOfTwin(bare, pane, middleOf(window(-3)));
    expect(twin.v).toBeCloseTo(foot.v, 2);
    expect(twin.u).toBeLessThan(foot.u);
  });

  it('is left to its usual height before the sky, too far off, and where a wall is said', () => {
    expect(seenFoot(bare, lie(12, 0), at)).toBeUndefined();
    expect(seenFoot(bare, lie(1e6), at)).toBeUndefined();
    expect(seenFoot(walled, lie(12), at)).toBeUndefined();
  });
});
