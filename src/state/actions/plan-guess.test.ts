import { describe, expect, it } from 'vitest';
import { PLAIN_FINISH } from '@/core/scene/new-scene';
import { cameraOf } from '@/core/picture/camera-of';
import { project, type PlatePoint } from '@/core/geometry/camera';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import type { ThingBox } from '@/core/layout/guess-things';
import type { Scene } from '@/core/scene/schema';
import { streetScene } from '../../../test/street';
import { guessedDeck, guessedWall } from './plan-actions';
import { guessPlan, type Clues } from './plan-guess';

const street = streetScene([]);
const seen = (x: number, y: number, z: number) => project(cameraOf(street), [x, y, z])!;
const [width, height] = [60, 40];

const grey = () => new Float32Array(width * height).fill(0.2);

/** All below the horizon lies level, all above is sky. */
const land = () =>
  Promise.resolve({
    width,
    height,
    reach: new Float32Array(width * height).fill(10),
    land: Float32Array.from({ length: width * height }, (_, i) => (i >= (width * height) / 2 ? 1 : 0)),
    plate: { width, height, r: grey(), g: grey(), b: grey() },
    level: Float32Array.from({ length: width * height }, (_, i) => (i >= (width * height) / 2 ? 1 : 0)),
  });

const post = (x: number, y: number) => ({
  outline: [seen(x - 0.05, y, 1.1), seen(x + 0.05, y, 1.1), seen(x + 0.05, y, 0), seen(x - 0.05, y, 0)],
});
const box = (x: number, y: number): ThingBox => ({
  left: seen(x - 0.25, y, 0).u,
  right: seen(x + 0.25, y, 0).u,
  top: seen(x, y, 1).v,
  foot: seen(x, y, 0).v,
  open: false,
});
const clues = (
  posts: { outline: PlatePoint[] }[],
  boxes: ThingBox[],
  lines: PlateLine[] = [],
  seenToBe: ThingBox[] = [],
): Clues => ({
  straightLines: () => Promise.resolve(lines),
  uprightThings: () => Promise.resolve(posts),
  seenThings: () => Promise.resolve(seenToBe),
  standingThings: () => Promise.resolve(boxes),
});

/** A row of houses on the left, by edges that run along it and uprights that end on its foot, and edges on the right. */
const house: PlateLine[] = [
  ...[0, 0.9, 2.6, 4, 5.5].map((z): PlateLine => [seen(-4, 8, z), seen(-4, 25, z)]),
  ...[-2.5, 3, 5].map((x): PlateLine => [seen(x, 8, 0), seen(x, 25, 0)]),
  ...[9, 10, 11, 13, 14, 16, 17, 19].map((y): PlateLine => [seen(-4, y, 4), seen(-4, y, 0)]),
];

/** Sky over all that is higher than a house on the left of some height, in metres; what lies below the horizon lies level. */
const landUpTo = (top: number) => async () => {
  const own = await land();
  const [near, far] = [seen(-4, 8, top), seen(-4, 25, top)];
  const eaves = (u: number) => near.v + ((far.v - near.v) * (u - near.u)) / (far.u - near.u);
  const covered = own.land.map((value, i) =>
    Math.floor(i / width) >= height * eaves((i % width) / width) ? 1 : value,
  );
  return { ...own, land: covered };
};

describe('guessPlan', () => {
  it('tells the wall of a house with its height, and nothing of what is hardly higher than the eye', async () => {
    const { walls } = await guessPlan(street, clues([], [], house), landUpTo(5.5));
    expect(walls.map((wall) => guessedWall(street, wall).height)).toEqual([expect.closeTo(5.5, 0)]);
    expect((await guessPlan(street, clues([], [], house), landUpTo(2.2))).walls).toEqual([]);
  });

  it('tells the eye height by people and cars, walls as many times as high as the eye, and things by that', async () => {
    // By the plan's own eye of 1.6 m they are half as high as they are: the eye stood at twice that.
    const half = (x: number, y: number, tall: number, is: ThingBox['is']): ThingBox => ({
      ...{ left: seen(x - 0.2, y, 0).u, right: seen(x + 0.2, y, 0).u, is, open: false },
      ...{ top: seen(x, y, tall / 2).v, foot: seen(x, y, 0).v },
    });
    const people = [half(-1, 7, 1.72, 'person'), half(1, 9, 1.72, 'person'), half(2, 6, 0.5, 'bench')];
    const guess = await guessPlan(street, clues([], [], house, people), landUpTo(5.5));
    expect(guess.eyeHeight).toBe(3.2);
    expect(guess.things.map(({ is }) => is)).toEqual(expect.arrayContaining(['person', 'person', 'bench']));
    const high: Scene = { ...street, plan: { ...street.plan, eyeHeight: guess.eyeHeight! } };
    expect(guessedWall(high, guess.walls[0]).height).toBeCloseTo(
      2 * guessedWall(street, guess.walls[0]).height,
      6,
    );
    const own = await guessPlan(high, clues([], [], house, people), landUpTo(5.5));
    expect(own.eyeHeight).toBeUndefined();
    const one = await guessPlan(street, clues([], [], house, people.slice(1)), landUpTo(5.5));
    expect(one.eyeHeight).toBeUndefined();
  });

  it('tells posts and things, and no post that is a part of a thing', async () => {
    const guess = await guessPlan(street, clues([post(-1, 6), post(1.1, 5)], [box(1, 5)]), land);
    expect(guess.horizon).toBeUndefined();
    expect(guess.things).toHaveLength(1);
    expect(guess.posts.map(({ foot }) => foot.u)).toEqual([expect.closeTo(seen(-1, 6, 0).u, 2)]);
    const ids = [...guess.posts, ...guess.things].map(({ id }) => id);
    expect(new Set(ids).size).toBe(2);
  });

  it('tells no pipe of a wall for a post, and the post that stands well before it', async () => {
    const wall = guessedWall(street, { foot: [seen(-3, 8, 0), seen(3, 8, 0)] });
    const walled: Scene = { ...street, plan: { ...street.plan, walls: [wall] } };
    const guess = await guessPlan(walled, clues([post(-1, 7.6), post(1, 6)], []), land);
    expect(guess.posts.map(({ foot }) => foot.u)).toEqual([expect.closeTo(seen(1, 6, 0).u, 2)]);
  });

  it('tells no wall before most of one that was drawn, and one that ends before it', async () => {
    const drawn = (from: PlatePoint, to: PlatePoint): Scene => ({
      ...street,
      plan: { ...street.plan, walls: [guessedWall(street, { foot: [from, to] })] },
    });
    // Another row of houses beyond the one that the edges tell, and a wall across at its far end.
    const beyond = drawn(seen(-6, 10, 0), seen(-6, 24, 0));
    expect((await guessPlan(beyond, clues([], [], house), landUpTo(5.5))).walls).toEqual([]);
    const across = drawn(seen(-9, 26, 0), seen(9, 26, 0));
    expect((await guessPlan(across, clues([], [], house), landUpTo(5.5))).walls).toHaveLength(1);
    // Nor one behind a wall that is higher than the eye.
    const before = drawn(seen(-2.6, 6, 0), seen(-2.6, 17, 0));
    expect((await guessPlan(before, clues([], [], house), landUpTo(5.5))).walls).toEqual([]);
    before.plan.walls[0].height = 1;
    expect((await guessPlan(before, clues([], [], house), landUpTo(5.5))).walls).toHaveLength(1);
  });

  it('tells nothing twice: what stands already is left out', async () => {
    const standee = {
      id: 's',
      name: 'S',
      matte: 'm',
      foot: seen(1, 5, 0),
      roundness: 0,
      crease: 0,
      ...PLAIN_FINISH,
    };
    const kerb: PlateLine = [seen(2.5, 4, 0), seen(2.5, 24, 0)];
    const wall = guessedWall(street, { foot: [seen(4.5, 5, 0), seen(4.5, 24, 0)] });
    const walled: Scene = { ...street, plan: { ...street.plan, walls: [wall] } };
    const bare = await guessPlan(walled, clues([], [], [kerb]), land);
    const deck = guessedDeck(street, bare.decks[0]);
    expect(deck).toMatchObject({ name: 'Deck 1', height: 0.15 });
    const stood: Scene = { ...walled, plan: { ...walled.plan, standees: [standee], decks: [deck] } };
    const guess = await guessPlan(stood, clues([post(-1, 6)], [box(1, 5)], [kerb]), land);
    expect([guess.posts.length, guess.things.length, guess.decks.length]).toEqual([1, 0, 0]);
  });
});
