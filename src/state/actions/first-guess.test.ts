import { describe, expect, it } from 'vitest';
import { groundPoint } from '@/core/geometry/ground';
import { createCamera, project, rayThrough } from '@/core/geometry/camera';
import type { ThingBox } from '@/core/layout/guess-things';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { cameraOf } from '@/core/picture/camera-of';
import { meetWall, wallPieces } from '@/core/plan/wall-pieces';
import { setPlan } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { streetLamp, streetScene } from '../../../test/street';
import { guessPlan } from './plan-guess';
import { firstGuess, guessSays, isSeveral, isUntouched, takeFirstGuess, withThings } from './first-guess';
import { SUN_LIFT } from './matte-actions';

const scene = streetScene([]);
const TRUE = { horizon: { left: 0.44, right: 0.46 }, eyeHeight: 1.6, lens: 28 };
const camera = createCamera(TRUE, 1.5);
const seen = (x: number, y: number, z: number) => project(camera, [x, y, z])!;
const upright = (x: number, y: number, high: number): PlateLine => [seen(x, y, high), seen(x, y, 0)];

/** A row of houses on the left that runs away a little to the right, and a low wall across. */
const along = (z: number): PlateLine => [seen(-4, 7, z), seen(0, 27, z)];
const HOUSES: PlateLine[] = [
  ...[0, 2.6, 3.1, 4, 4.6, 5.5].map(along),
  ...[0.1, 0.3, 0.5, 0.7, 0.9].map((share) => upright(-4 + 4 * share, 7 + 20 * share, 2.4)),
  ...[0, 0.3, 0.6, 0.9].map((z): PlateLine => [seen(8, 14, z), seen(3, 15, z)]),
];

const [width, height] = [60, 40];
const grey = () => new Float32Array(width * height).fill(0.2);
const level = Float32Array.from({ length: width * height }, (_, i) =>
  Number(Math.floor(i / width) > 0.47 * height),
);
const land = () =>
  Promise.resolve({
    ...{ width, height, reach: grey(), land: grey().fill(1), level },
    plate: { width, height, r: grey(), g: grey(), b: grey() },
  });
const clues = (lines: PlateLine[]) => ({ straightLines: () => Promise.resolve(lines) });

describe('firstGuess', () => {
  it('offers horizon and walls together, and takes them in one change', async () => {
    const offer = (await firstGuess(scene, clues(HOUSES), land))!;
    expect(offer.plan.horizon.left).toBeCloseTo(0.44, 2);
    expect(offer.plan.walls).toHaveLength(1);
    expect(guessSays(offer)).toBe('One wall and the horizon look like this.');
    const { scene: taken, change } = runCommand(scene, takeFirstGuess(offer));
    expect(change.label).toBe('Use the first guess');
    expect(taken.plan).toEqual(offer.plan);
    const [x, y] = groundPoint(camera, taken.plan.walls[0].foot[0]);
    expect(x + 4).toBeCloseTo((y - 7) / 5, 0);
  });

  it('believes the lens that the photo says, and offers nothing where edges tell nothing', async () => {
    expect((await firstGuess(scene, clues(HOUSES), land, 41))?.plan.lens).toBe(41);
    expect(await firstGuess(scene, clues([]), land)).toBeUndefined();
  });

  it('offers the sun’s shadow where much of the picture lies in it, and lifts it with the rest', async () => {
    const covering = (share: number) => (_: unknown, id: string) => {
      asked.push(id);
      const data = new Uint8Array(width * height).fill(255, 0, Math.round(share * width * height));
      return Promise.resolve({ width, height, data });
    };
    const asked: string[] = [];
    const little = (await firstGuess(scene, clues(HOUSES), land, undefined, covering(0.03)))!;
    expect(little.shadow).toBeUndefined();
    const offer = (await firstGuess(scene, clues(HOUSES), land, undefined, covering(0.1)))!;
    expect(asked.at(-1)).toBe(offer.shadow?.id);
    expect(guessSays(offer)).toBe('One wall, the horizon and the sun’s shadow look like this.');
    const { scene: taken } = runCommand(scene, takeFirstGuess(offer));
    expect(taken.plan.sunShadow).toEqual({ matte: offer.shadow!.id, lift: SUN_LIFT });
    expect(taken.mattes.map(({ id }) => id)).toContain(offer.shadow!.id);
    const bare = { plan: { ...offer.plan, walls: [] } };
    expect(guessSays(bare)).toBe('The horizon looks like this.');
    expect(guessSays({ ...bare, shadow: offer.shadow })).toBe(
      'The horizon and the sun’s shadow look like this.',
    );
    expect([bare, { ...bare, shadow: offer.shadow }, offer].map(isSeveral)).toEqual([false, true, true]);
  });

  it('says which walls lie in the day’s shade, where the sun shines', async () => {
    const lit = await land();
    const isWall = (i: number) => i % width < width / 2 && Math.floor(i / width) < 0.8 * height;
    // All of the left side is dark, and the wall is what is seen there.
    const dark = grey().map((value, i) => (isWall(i) ? value / 8 : value));
    const streetInSun = (asked: typeof scene) => {
      const pieces = wallPieces(cameraOf(asked), asked.plan.walls);
      const reach = lit.reach.map((far, i) => {
        const at = { u: ((i % width) + 0.5) / width, v: (Math.floor(i / width) + 0.5) / height };
        const ways = pieces.map((piece) => meetWall(piece, TRUE.eyeHeight, rayThrough(cameraOf(asked), at)));
        return Math.min(1e4 * far, ...ways);
      });
      return Promise.resolve({ ...lit, reach, plate: { width, height, r: dark, g: dark, b: dark } });
    };
    const covering = (share: number) => () =>
      Promise.resolve({ width, height, data: new Uint8Array(width * height).fill(255 * share) });
    const inSun = (await firstGuess(scene, clues(HOUSES), streetInSun, undefined, covering(0.03)))!;
    expect(inSun.plan.walls[0].dayShade).toBeGreaterThan(2);
    expect(inSun.shadow).toBeUndefined();
    expect(guessSays(inSun)).toBe('One wall, the horizon and the sun’s shadow look like this.');
    const overcast = await firstGuess(scene, clues(HOUSES), streetInSun, undefined, covering(0));
    expect(overcast!.plan.walls[0].dayShade).toBeUndefined();
  });

  it('offers what is seen to stand there, too, and all sizes by the eye height that it tells', async () => {
    const offer = (await firstGuess(scene, clues(HOUSES), land))!;
    // By an eye of 1.6 m they are half as high as people and cars are.
    const half = (x: number, y: number, tall: number, is: ThingBox['is']): ThingBox => ({
      ...{ left: seen(x - 0.25, y, 0).u, right: seen(x + 0.25, y, 0).u, is, open: false },
      ...{ top: seen(x, y, tall / 2).v, foot: seen(x, y, 0).v },
    });
    const boxes = [half(1, 6, 1.72, 'person'), half(-1, 7, 1.72, 'person'), half(0, 9, 1.5, 'car')];
    const sees = (some: ThingBox[]) => ({ seenThings: () => Promise.resolve(some) });
    const full = await withThings(scene, offer, sees(boxes));
    expect(full.plan.eyeHeight).toBeCloseTo(3.2, 1);
    expect(full.plan.walls[0].height / offer.plan.walls[0].height).toBeCloseTo(full.plan.eyeHeight / 1.6, 6);
    expect(guessSays(full)).toBe('One wall, the horizon and three things that stand look like this.');
    expect(full.things!.map(({ is }) => is)).toEqual(['person', 'person', 'car']);
    const { plan } = runCommand(scene, takeFirstGuess(full)).scene;
    expect(plan).toEqual(full.plan);
    const people = await withThings(scene, offer, sees(boxes.slice(0, 2)));
    expect(guessSays(people)).toBe('One wall, the horizon and two people look like this.');
    expect(isSeveral({ ...people, plan: { ...people.plan, walls: [] } })).toBe(true);
    expect(await withThings(scene, offer, sees([]))).toEqual({ ...offer, things: [] });
  });

  it('takes no pipe on a guessed wall for a post, and one before it for one', async () => {
    const post = (x: number, y: number) => ({
      outline: [seen(x - 0.06, y, 1.2), seen(x + 0.06, y, 1.2), seen(x + 0.06, y, 0), seen(x - 0.06, y, 0)],
    });
    const guess = await guessPlan(
      scene,
      {
        ...clues(HOUSES),
        uprightThings: () => Promise.resolve([post(-2, 17), post(-1, 9)]),
        seenThings: () => Promise.resolve([]),
        standingThings: () => Promise.resolve([]),
      },
      land,
    );
    expect(guess.walls).toHaveLength(1);
    expect(guess.posts.map(({ foot }) => foot.u)).toEqual([expect.closeTo(seen(-1, 9, 0).u, 2)]);
  });

  it('is for photos that nobody has touched', () => {
    expect(isUntouched(scene)).toBe(true);
    expect(isUntouched(streetScene([streetLamp('l', 0.5)]))).toBe(false);
    const moved = runCommand(scene, setPlan('Horizon', { horizon: { left: 0.5, right: 0.51 } })).scene;
    expect(isUntouched(moved)).toBe(false);
  });
});
