import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newScene, PLAIN_FINISH, PLAIN_SURFACE } from '../scene/new-scene';
import type { GroundPlan, Scene } from '../scene/schema';
import { withinOutline } from '../geometry/within-outline';
import { simplifyPath } from '../geometry/simplify-path';
import { streetLamp, testCircuit } from '../../../test/street';
import { createCamera, project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { guessDecks } from './guess-decks';
import { guessPerspective } from './guess-horizon';
import { guessLens } from './guess-lens';
import { guessPosts } from './guess-posts';
import { closingWall } from './closing-wall';
import { guessEyeHeight } from './guess-eye';
import { guessThings, type ThingBox } from './guess-things';
import { guessWalls } from './guess-walls';
import { planFaults } from '../picture/plan-faults';
import { popUpMesh } from '../plan/pop-up-mesh';
import { wallPieces } from '../plan/wall-pieces';
import { horizonThrough, vanishingPoint, type PlateLine } from '../geometry/vanishing-point';
import { placeSeen, rectangleBetween, wallAt } from '../plan/wall-at';
import { wallGrid } from '../plan/wall-grid';

const ASPECT = 1.5;
const SETTINGS = { horizon: { left: 0.46, right: 0.46 }, eyeHeight: 1.6, lens: 28 };
const CAMERA = createCamera(SETTINGS, ASPECT);
const seen = (x: number, y: number, z: number): PlatePoint => project(CAMERA, [x, y, z])!;
const STREET = [-6, -4, 3, 5].flatMap((x) =>
  [0, 3, 5.5].map((z): PlateLine => [seen(x, 5, z), seen(x, 22, z)]),
);

describe('a horizon from lines', () => {
  it('lies where two lines meet that run beside each other into the distance', () => {
    const meet = vanishingPoint(STREET[0], STREET[8], ASPECT)!;
    expect(meet.v).toBeCloseTo(0.46, 6);
    expect(horizonThrough({ left: 0.5, right: 0.52 }, meet).left).toBeCloseTo(0.46 - 0.02 * meet.u, 6);
    const level: PlateLine = [seen(-1, 8, 0), seen(1, 8, 0)];
    expect(vanishingPoint(level, [seen(-1, 9, 0), seen(1, 9, 0)], ASPECT)).toBeUndefined();
  });

  const stray = Array.from({ length: 12 }, (_, i): PlateLine => [
    { u: (i * 0.37) % 1, v: (i * 0.61) % 1 },
    { u: ((i * 0.37) % 1) + 0.06, v: ((i * 0.61) % 1) + 0.03 * ((i % 5) - 2.2) },
  ]);
  const street = (camera: Camera, turn = 0): PlateLine[] => {
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const at = (x: number, y: number, z: number) =>
      project(camera, [cos * x + sin * y, cos * y - sin * x, z])!;
    const along = [-6, -4, 3, 5].flatMap((x) =>
      [0, 3, 5.5].map((z): PlateLine => [at(x, 9, z), at(x, 22, z)]),
    );
    const across = [12, 16, 20].flatMap((y) =>
      [0.3, 3, 5.5].map((z): PlateLine => [at(-3, y, z), at(3, y, z)]),
    );
    const uprights = [9, 13, 17].flatMap((y) => [-6, 5].map((x): PlateLine => [at(x, y, 0), at(x, y, 5.5)]));
    return [...along, ...across, ...uprights];
  };

  it('is guessed with its turn, its directions and its lens, among edges that mean nothing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.35, max: 0.65, noNaN: true }),
        fc.double({ min: -0.04, max: 0.04, noNaN: true }),
        fc.double({ min: 20, max: 45, noNaN: true }),
        fc.double({ min: 0.25, max: 0.5, noNaN: true }),
        (middle, rise, lens, turn) => {
          const horizon = { left: middle - rise / 2, right: middle + rise / 2 };
          const lines = street(createCamera({ horizon, lens, eyeHeight: 1.6 }, ASPECT), turn);
          const found = guessPerspective([...lines, ...stray], ASPECT)!;
          expect(Math.abs(found.horizon.left - horizon.left)).toBeLessThan(0.012);
          expect(Math.abs(found.horizon.right - horizon.right)).toBeLessThan(0.012);
          if (found.lens !== undefined) expect(Math.abs(Math.log(found.lens / lens))).toBeLessThan(0.12);
        },
      ),
      { numRuns: 20 },
    );
    const found = guessPerspective(street(CAMERA, 0.3), ASPECT)!;
    expect(found.lens).toBeCloseTo(28, 0);
    expect(found.level[0].u).toBeCloseTo(0.5 + (28 / 36) * Math.tan(0.3), 1);
  });

  it('is told by what runs away from the eye, however much faces it', () => {
    const facing = Array.from({ length: 60 }, (_, i): PlateLine => {
      const [y, z] = [12 + (i % 3), 0.1 * i];
      return [seen(-5, y, z), seen(5, y, z)];
    });
    const away = street(CAMERA).slice(0, 6);
    const found = guessPerspective([...facing, ...away, ...stray], ASPECT)!;
    expect(found.horizon.left).toBeCloseTo(0.46, 2);
    expect(found.horizon.right).toBeCloseTo(0.46, 2);
    expect(Math.abs(found.level[0].u)).toBeGreaterThan(5);
    expect(guessPerspective(facing, ASPECT)).toBeUndefined();
  });

  it('needs less where it lies as the lean of uprights and a usual lens have it', () => {
    const tilted = createCamera({ ...SETTINGS, horizon: { left: 0.6, right: 0.6 } }, ASPECT);
    const lines = street(tilted);
    const uprights = lines.slice(-6);
    const scattered = Array.from({ length: 200 }, (_, i): PlateLine => {
      const [u, v, turn] = [(i * 0.377) % 1, (i * 0.619) % 1, 0.35 + (i % 9) * 0.27];
      return [
        { u, v },
        { u: u + 0.1 * Math.cos(turn), v: v + 0.15 * Math.sin(turn) },
      ];
    });
    const crooked = uprights.map(([a, b]): PlateLine => [a, { u: 1.06 * b.u - 0.03, v: b.v }]);
    const counts = [40, 60, 80, 100, 120, 140, 160, 180, 200];
    const told = (standing: PlateLine[]) =>
      counts.filter((count) => {
        const found = guessPerspective(
          [...standing, ...lines.slice(0, 6), ...scattered.slice(0, count)],
          ASPECT,
        );
        if (found) expect(Math.abs(found.horizon.left - 0.6)).toBeLessThan(0.02);
        return found;
      });
    expect(told(uprights).length).toBeGreaterThan(told(crooked).length);
  });

  it('is not guessed where nothing leads to it', () => {
    expect(guessPerspective([], ASPECT)).toBeUndefined();
    expect(guessPerspective([STREET[0]], ASPECT)).toBeUndefined();
    expect(guessPerspective(stray, ASPECT)).toBeUndefined();
  });

  it('is not said of leaves, water or noise, upright, broad or square', () => {
    const random = (seed: number) => {
      let state = seed;
      return () => (state = (state * 16807) % 2147483647) / 2147483647;
    };
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 2 ** 30 }),
        fc.constantFrom(0.6, 1, 1.5, 3),
        fc.integer({ min: 100, max: 900 }),
        (seed, aspect, count) => {
          const next = random(seed);
          const lines = Array.from({ length: count }, (): PlateLine => {
            const [u, v, turn, length] = [next(), next(), Math.PI * next(), 0.015 + 0.06 * next() ** 2];
            const [du, dv] = [length * Math.cos(turn), length * aspect * Math.sin(turn)];
            return [
              { u, v },
              { u: u + du, v: v + dv },
            ];
          });
          expect(guessPerspective(lines, aspect)).toBeUndefined();
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('guessLens', () => {
  it('is told by directions at right angles, by where uprights meet, or not at all', () => {
    const focal = 0.75;
    const at = (x: number, share = 0.3) => ({ x, share });
    expect(guessLens(0, [at(0.5), at(-2)], undefined, focal)).toBeCloseTo(36, 6);
    // Both on one side: they are not at right angles.
    expect(guessLens(0, [at(0.5), at(2)], undefined, focal)).toBeUndefined();
    // One is nearly at infinity: it says too little.
    expect(guessLens(0, [at(0.001), at(-900)], undefined, focal)).toBeUndefined();
    expect(guessLens(0.1, [], { lean: 0, along: 0.2, support: 5 }, focal)).toBeCloseTo(36 * Math.SQRT1_2, 6);
    expect(guessLens(0.1, [], { lean: 0, along: -0.2, support: 5 }, focal)).toBeUndefined();
    expect(guessLens(0, [at(0.06), at(-7), at(-30)], undefined, focal)).toBeUndefined();
  });
});

describe('guessPosts', () => {
  const [width, height] = [200, 130];
  /** All under the horizon is ground, but for a house on the right. */
  const ground = Float32Array.from({ length: width * height }, (_, i) =>
    Math.floor(i / width) / height > 0.47 && i % width < 150 ? 1 : 0,
  );
  const post = (x: number, y: number, tall: number, half = 0.06) => ({
    outline: [seen(x - half, y, tall), seen(x + half, y, tall), seen(x + half, y, 0), seen(x - half, y, 0)],
  });
  const guess = (...things: { outline: PlatePoint[] }[]) =>
    guessPosts(things, { width, height, ground }, CAMERA, SETTINGS.horizon);

  it('takes what stands on the ground and has the size of a post', () => {
    const [found] = guess(post(-1, 6, 1));
    expect(found.foot.u).toBeCloseTo(seen(-1, 6, 0).u, 2);
    expect(found.foot.v).toBeCloseTo(seen(-1, 6, 0).v, 3);
    expect(guess(post(-1, 6, 0.1))).toEqual([]);
    // A bench's leg is too low, a leg under a coat too broad for its height.
    expect(guess(post(-1, 6, 0.45, 0.03))).toEqual([]);
    expect(guess(post(-1, 6, 0.7, 0.12))).toEqual([]);
    expect(guess(post(-1, 6, 2, 0.8))).toEqual([]);
  });

  it('leaves what hangs on a house, ends over the horizon, or is covered by a larger one', () => {
    expect(guess(post(3, 7, 1))).toEqual([]);
    const [a, b, c] = [seen(-1, 20, 6), seen(-0.9, 20, 6), seen(-0.9, 20, 3)];
    expect(guess({ outline: [a, b, c] })).toEqual([]);
    expect(guess(post(-1, 6, 1), post(-1, 6, 1.8))).toHaveLength(1);
    expect(guess(post(-1, 6, 1), post(-2, 8, 1))).toHaveLength(2);
  });

  it('leaves a door or a pipe: on its sides stands the wall, right over its foot', () => {
    const wall = Float32Array.from(ground, (value, i) =>
      Math.floor(i / width) / height > 0.605 ? value : 0,
    );
    const at = (y: number) =>
      guessPosts([post(-1, y, 2)], { width, height, ground: wall }, CAMERA, SETTINGS.horizon);
    expect(seen(-1, 12, 0).v).toBeGreaterThan(0.61);
    expect(at(12)).toEqual([]);
    expect(at(6)).toHaveLength(1);
  });

  it('guesses a bounded number, and never anything but numbers', () => {
    const many = Array.from({ length: 60 }, (_, k) => post(-3 + k / 15, 9, 1, 0.02));
    const found = guess(...many);
    expect(found.length).toBeGreaterThan(3);
    expect(found.length).toBeLessThanOrEqual(16);
    expect(found.every(({ foot }) => Number.isFinite(foot.u) && Number.isFinite(foot.v))).toBe(true);
  });
});

describe('guessThings', () => {
  const box = (x: number, y: number, half: number, tall: number, open = false) => {
    const [low, high] = [seen(x, y, 0), seen(x, y, tall)];
    const [left, right] = [seen(x - half, y, 0).u, seen(x + half, y, 0).u];
    return { left, right, top: high.v, foot: low.v, open };
  };
  const guess = (...boxes: ThingBox[]) => guessThings(boxes, CAMERA, SETTINGS.horizon);

  it('loops around what stands, as high as a person where it goes on over the horizon', () => {
    const [person] = guess({ ...box(-1, 6, 0.3, 1.3), open: true });
    const head = seen(-1, 6, 1.85).v;
    const vs = person.loop.filter((_, i) => i % 2 === 1);
    expect(Math.min(...vs)).toBeLessThan(head);
    expect(Math.min(...vs)).toBeGreaterThan(head - 0.08);
    expect(person.foot.v).toBeCloseTo(seen(-1, 6, 0).v, 6);
  });

  it('leaves what lies flat, is too low or too high, or stands at the horizon; the largest first', () => {
    expect(guess(box(0, 6, 1.5, 1))).toEqual([]);
    expect(guess(box(0, 6, 0.1, 0.25))).toEqual([]);
    expect(guess(box(0, 6, 0.5, 6))).toEqual([]);
    expect(guess(box(0, 60, 0.5, 3))).toEqual([]);
    const both = guess(box(-1, 8, 0.2, 0.8), box(1, 5, 0.3, 1.2));
    expect(both.map(({ foot }) => foot.u)).toEqual(
      [seen(1, 5, 0).u, seen(-1, 8, 0).u].map((u) => expect.closeTo(u, 2) as number),
    );
    const many = Array.from({ length: 30 }, (_, k) => box(-3 + k / 5, 7, 0.1, 0.9));
    expect(guess(...many)).toHaveLength(16);
  });

  it('believes what is seen to be a car though it is broad, and not where no car could be so high; parts of it are none, nor what is seen on a wall', () => {
    const car: ThingBox = { ...box(1, 8, 2, 1.5), is: 'car' };
    const [found, ...others] = guess(box(1, 8, 0.2, 0.9), car);
    expect([found.is, others]).toEqual(['car', []]);
    expect(found.foot).toEqual({ u: (car.left + car.right) / 2, v: car.foot });
    expect(guess({ ...box(1, 8, 2, 0.6), is: 'car' })).toEqual([]);
    expect(guess({ ...box(1, 8, 2, 0.6), is: 'bench' })).toHaveLength(1);
    expect(guess({ ...box(1, 8, 0.3, 3.2), is: 'person' })).toEqual([]);
    const low = (foot: number): ThingBox => ({
      left: 0.4,
      right: 0.6,
      top: foot - 0.09,
      foot,
      open: false,
      is: 'car',
    });
    expect([guess(low(0.995)).length, guess(low(0.97)).length]).toEqual([1, 0]);
    const wall: PlateLine = [seen(-4, 9, 0), seen(4, 9, 0)];
    const before = (y: number) =>
      guessThings([{ ...box(1, y, 0.3, 1.7), is: 'person' }], CAMERA, SETTINGS.horizon, [wall]);
    expect(before(7)[0].foot.v).toBeCloseTo(seen(1, 7, 0).v, 6);
    expect(before(10)[0].foot.v).toBeGreaterThan(seen(1, 9, 0).v);
    expect(before(16)).toEqual([]);
    const both = guess(box(-2, 4, 0.5, 1.4), { ...box(1, 9, 0.2, 1.7), is: 'person' });
    expect(both.map(({ is }) => is)).toEqual(['person', 'thing']);
  });
});

describe('guessEyeHeight', () => {
  const { horizon, eyeHeight } = SETTINGS;
  const stands = (is: ThingBox['is'], x: number, y: number, tall: number): ThingBox => {
    const [low, high] = [seen(x, y, 0), seen(x, y, tall)];
    return { is, left: low.u - 0.01, right: low.u + 0.01, top: high.v, foot: low.v, open: false };
  };

  it('is told by people and cars, whatever the horizon’s tilt, and by nothing else', () => {
    const boxes = [stands('person', -1, 6, 1.72), stands('car', 2, 9, 1.5), stands('bench', 1, 5, 4)];
    expect(guessEyeHeight(boxes, horizon)).toBeCloseTo(eyeHeight, 1);
    expect(guessEyeHeight(boxes.slice(0, 1), horizon)).toBeUndefined();
    expect(guessEyeHeight([], horizon)).toBeUndefined();
  });

  it('is not told by what does not agree, stands at the horizon, or is cut by the picture', () => {
    const person = stands('person', -1, 6, 1.72);
    expect(guessEyeHeight([person, stands('person', 1, 6, 0.9)], horizon)).toBeUndefined();
    expect(guessEyeHeight([person, stands('person', 1, 90, 1.72)], horizon)).toBeUndefined();
    expect(guessEyeHeight([person, { ...person, foot: 1 }], horizon)).toBeUndefined();
  });
});

describe('guessDecks', () => {
  const [width, height] = [100, 66];
  const level = (share: number) => ({ width, height, ground: new Float32Array(width * height).fill(share) });
  const foot: PlateLine = [seen(4, 5, 0), seen(4, 24, 0)];
  const guess = (lines: PlateLine[], walls = [foot], share = 1) =>
    guessDecks(lines, walls, level(share), CAMERA, SETTINGS.horizon);
  const kerb: PlateLine = [seen(2, 4, 0), seen(2, 24, 0)];

  it('takes the pavement between a wall and the kerb along it, and neither the road nor what is under the wall', () => {
    const joint: PlateLine = [seen(3.6, 6, 0), seen(3.6, 12, 0)];
    const [{ outline }, ...others] = guess([joint, kerb]);
    expect(others).toEqual([]);
    const inside = ({ u, v }: PlatePoint) =>
      withinOutline(
        outline.map((at) => [at.u, at.v] as const),
        u,
        v,
      ) > 0;
    expect(inside(seen(3, 9, 0))).toBe(true);
    expect(inside(seen(3, 16, 0))).toBe(true);
    expect(inside(seen(1, 9, 0))).toBe(false);
    expect(inside(seen(4.5, 9, 0))).toBe(false);
  });

  it('tells one pavement a wall, whichever way the wall is drawn', () => {
    const other: PlateLine = [seen(-3, 40, 0), seen(-3, 3.6, 0)];
    const left: PlateLine = [seen(-1.5, 4, 0), seen(-1.5, 40, 0)];
    expect(guess([kerb, left], [foot, other])).toHaveLength(2);
    expect(guess([kerb], [[foot[1], foot[0]]])).toEqual(guess([kerb]));
  });

  it.each<[string, PlateLine[], PlateLine[]?, number?]>([
    ['no wall', [kerb], []],
    ['an edge across the wall', [[seen(-4, 9, 0), seen(3, 9, 0)]]],
    ['an edge that turns away from it', [[seen(2, 4, 0), seen(-2, 24, 0)]]],
    ['a road as broad as a square', [[seen(-4, 4, 0), seen(-4, 24, 0)]]],
    ['an edge on the wall itself', [[seen(3.9, 5, 0), seen(3.9, 20, 0)]]],
    ['what rises', [kerb], [foot], 0],
    ['a wall that ends near to the eye', [kerb], [[seen(4, 5, 0), seen(4, 14, 0)]]],
    ['an edge that ends where its kerb turns a corner', [[seen(2, 10, 0), seen(2, 24, 0)]]],
    ['short edges', [[seen(2, 6, 0), seen(2, 7, 0)]]],
  ])('tells nothing of %s', (_, lines, walls, share) => {
    expect(guess(lines, walls, share)).toEqual([]);
  });
});

describe('closingWall', () => {
  const [width, height] = [150, 100];
  const { horizon } = SETTINGS;
  const left: PlateLine = [seen(-4, 6, 0), seen(-4, 30, 0)];
  const right: PlateLine = [seen(5, 31, 0), seen(5, 7, 0)];
  /** Ground up to some metres ahead, something that stands behind it, and sky or none. */
  const cover = (groundUpTo: number, isOpen = false) => {
    const foot = seen(0, groundUpTo, 0).v;
    const isAt = (test: (v: number) => boolean) =>
      Float32Array.from({ length: width * height }, (_, i) =>
        Number(test((Math.floor(i / width) + 0.5) / height)),
      );
    return { width, height, ground: isAt((v) => v > foot), sky: isAt((v) => isOpen && v < horizon.left) };
  };
  const closes = (feet: PlateLine[], ...over: Parameters<typeof cover>) =>
    closingWall(feet, cover(...over), CAMERA, horizon);

  it('runs square between the far ends of two walls where the ground ends with them', () => {
    const [from, to] = closes([right, left], 30)!;
    // They end at 30 and 31 m: midway between, and square to both.
    for (const [at, x] of [
      [from, -4],
      [to, 5],
    ] as const) {
      const place = groundPoint(CAMERA, at);
      expect(place[0]).toBeCloseTo(x, 6);
      expect(place[1]).toBeCloseTo(30.5, 6);
    }
    expect(closes([left, right], 26)).toEqual([from, to]);
  });

  it.each<[string, PlateLine[], number, boolean?]>([
    ['the ground goes on', [left, right], 300],
    ['there is sky behind', [left, right], 30, true],
    ['one ends much farther off', [left, [seen(5, 60, 0), right[1]]], 30],
    ['there is one wall', [left], 30],
    ['they meet', [left, [seen(-3.5, 30, 0), right[1]]], 30],
    ['they do not run beside each other', [left, [seen(5, 31, 0), seen(25, 7, 0)]], 30],
  ])('is none where %s', (_, feet, groundUpTo, isOpen) => {
    expect(closes(feet, groundUpTo, isOpen)).toBeUndefined();
  });
});

describe('guessWalls', () => {
  const [width, height] = [200, 130];
  const plane = (value: (u: number, v: number) => number) =>
    Float32Array.from({ length: width * height }, (_, i) =>
      value(((i % width) + 0.5) / width, (Math.floor(i / width) + 0.5) / height),
    );
  const grey = { width, height, r: plane(() => 0.2), g: plane(() => 0.2), b: plane(() => 0.2) };
  const open = {
    width,
    height,
    sky: plane(() => 0),
    ground: plane((_u, v) => Number(v > 0.46)),
    plate: grey,
  };
  const away = { horizon: SETTINGS.horizon, level: [{ u: 0.5, share: 1 }] };
  const upright = (x: number, y: number, low: number, high: number): PlateLine => [
    seen(x, y, high),
    seen(x, y, low),
  ];
  /** A house on the left with eaves and a moulding, sills, windows, doors and pipes, and a kerb before it. */
  const house: PlateLine[] = [
    ...[2.6, 4, 5.5].map((z): PlateLine => [seen(-4, 8, z), seen(-4, 25, z)]),
    ...[9, 11, 14, 17, 20].map((y) => upright(-4, y, 0.9, 2)),
    ...[10, 13, 16, 19].map((y) => upright(-4, y, 0, y === 13 ? 5.5 : 2)),
    [seen(-4, 8, 0.9), seen(-4, 25, 0.9)],
    [seen(-2.5, 8, 0), seen(-2.5, 25, 0)],
    [seen(-2.5, 8, 0.12), seen(-2.5, 25, 0.12)],
  ];

  it('finds the foot on which uprights end, and takes neither the sills nor the kerb for it', () => {
    const walls = guessWalls(house, away, open, ASPECT);
    expect(walls).toHaveLength(1);
    const [from, to] = walls[0].foot;
    for (const at of [from, to]) expect(groundPoint(CAMERA, at)[0]).toBeCloseTo(-4, 0);
    expect(to.u - from.u).toBeGreaterThan(0.15);
  });

  it('looks past posts that stand before it', () => {
    const posts = [8, 12].map((y) => upright(-2.8, y, 0, 2.2));
    const [wall] = guessWalls([...house, ...posts], away, open, ASPECT);
    expect(groundPoint(CAMERA, wall.foot[0])[0]).toBeCloseTo(-4, 0);
  });

  it('goes down to where ground begins, where all over it looks like the wall', () => {
    const windows = [9, 10.5, 12, 13.5, 15, 17, 19].map((y) => upright(-4, y, 0.9, 2.2));
    const isWall = (u: number, v: number) => u < 0.5 && groundPoint(CAMERA, { u, v })[0] < -4;
    const shown = (wall: number, road: number) => plane((u, v) => (isWall(u, v) ? wall : road));
    const cover = { ...open, ground: plane((u, v) => Number(v > 0.46 && !isWall(u, v))) };
    const lines = [...house.slice(0, 3), ...windows];
    const red = { ...grey, r: shown(0.5, 0.2), g: shown(0.1, 0.2) };
    const [wall] = guessWalls(lines, away, { ...cover, plate: red }, ASPECT);
    expect(groundPoint(CAMERA, wall.foot[0])[0]).toBeCloseTo(-4, 0);
    const [above] = guessWalls(lines, away, open, ASPECT);
    expect(groundPoint(CAMERA, above.foot[0])[0]).toBeLessThan(-7);
  });

  it('goes on below the plate where uprights run down to its edge, but not for a post', () => {
    const eaves = [1.9, 2.4, 3.2].map((z): PlateLine => [seen(-1, 1.7, z), seen(-1, 9, z)]);
    const front = [1.75, 1.9, 2.1, 2.3, 2.6, 3].map((y): PlateLine => {
      const end = seen(-1, y, 0.2);
      return [seen(-1, y, 1.9), { u: end.u, v: Math.min(1, end.v) }];
    });
    const cut = front.map(([top, { u }]): PlateLine => [top, { u, v: 1 }]);
    const [wall] = guessWalls([...eaves, ...cut], away, open, ASPECT);
    expect(Math.min(...wall.foot.map(({ v }) => v))).toBeGreaterThan(1);
    expect(guessWalls([...eaves, ...cut.slice(0, 2)], away, open, ASPECT)).toEqual([]);
  });

  it('says nothing where nothing upright ends on a foot, or where no ground lies under it', () => {
    const kerbs = house.filter(([a, b]) => Math.abs(a.u - b.u) > 0.02);
    expect(guessWalls(kerbs, away, open, ASPECT)).toEqual([]);
    expect(guessWalls(house, away, { ...open, ground: plane(() => 0) }, ASPECT)).toEqual([]);
    expect(guessWalls([], away, open, ASPECT)).toEqual([]);
  });
});

describe('simplifyPath', () => {
  it('keeps ends and corners, and nothing between', () => {
    const bent = Array.from({ length: 21 }, (_, i) => ({ u: i / 20, v: i < 10 ? 0 : (i - 10) / 20 }));
    expect(simplifyPath(bent, 0.01)).toEqual([bent[0], bent[10], bent[20]]);
    expect(simplifyPath(bent.slice(0, 1), 0.01)).toHaveLength(1);
  });

  it('never strays farther than its tolerance', () => {
    const place = fc.record({
      u: fc.double({ min: 0, max: 1, noNaN: true }),
      v: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 40 }), (points) => {
        const kept = simplifyPath(points, 0.05);
        for (const point of points) {
          const away = kept.slice(1).map((b, i) => {
            const a = kept[i];
            const [eu, ev] = [b.u - a.u, b.v - a.v];
            const t = Math.min(
              1,
              Math.max(0, ((point.u - a.u) * eu + (point.v - a.v) * ev) / Math.max(1e-12, eu * eu + ev * ev)),
            );
            return Math.hypot(point.u - a.u - t * eu, point.v - a.v - t * ev);
          });
          expect(Math.min(...away)).toBeLessThan(0.0501);
        }
      }),
    );
  });
});

describe('what is seen at a place', () => {
  const walls = wallPieces(CAMERA, [{ foot: [seen(-5, 9, 0), seen(5, 12, 0)], height: 5 }]);

  it('is the wall, or the ground before it', () => {
    const at = seen(0, 10.5, 2);
    expect(wallAt(CAMERA, walls, at)!.place).toEqual([
      expect.closeTo(0, 6),
      expect.closeTo(10.5, 6),
      expect.closeTo(2, 6),
    ]);
    expect(placeSeen(CAMERA, walls, seen(1, 4, 0))[1]).toBeCloseTo(4, 6);
    expect(wallAt(CAMERA, walls, seen(1, 4, 0))).toBeUndefined();
  });

  it('bounds a rectangle with level and upright sides on the wall', () => {
    const corners = rectangleBetween(CAMERA, walls, seen(-2, 9.9, 3), seen(1, 10.8, 2));
    const places = corners.map((corner) => wallAt(CAMERA, walls, corner)!.place);
    expect(places[0][2]).toBeCloseTo(places[1][2], 6);
    expect(places[1][0]).toBeCloseTo(places[2][0], 6);
    expect(corners[1].v).not.toBeCloseTo(corners[0].v, 3);
    const [a, b] = [seen(-2, 5, 0), seen(1, 4, 0)];
    expect(rectangleBetween(CAMERA, walls, a, b)[1]).toEqual({ u: b.u, v: a.v });
  });

  it('shows a grid on walls: a line a metre, coarser on large ones', () => {
    const lines = wallGrid(
      CAMERA,
      wallPieces(CAMERA, [{ foot: [seen(-2, 8, 0), seen(2, 8, 0)], height: 3 }]),
    );
    expect(lines).toHaveLength(3 + 2);
    expect(
      wallGrid(CAMERA, wallPieces(CAMERA, [{ foot: [seen(-2, 8, 0), seen(2, 8, 0)], height: 200 }])).length,
    ).toBeLessThan(40);
  });
});

describe('popUpMesh', () => {
  it('hangs together along a surface and is cut where distances leap', () => {
    const [width, height] = [40, 20];
    const reach = Float32Array.from({ length: width * height }, (_, i) => (i % width < 20 ? 10 : 30));
    const land = new Float32Array(width * height).fill(1);
    const whole = popUpMesh(CAMERA, {
      width,
      height,
      reach: new Float32Array(width * height).fill(10),
      land,
    });
    const cut = popUpMesh(CAMERA, { width, height, reach, land });
    expect(whole.triangles.length).toBe(3 * 2 * 19 * 9);
    expect(whole.triangles.length - cut.triangles.length).toBe(3 * 2 * 9);
    const skyless = popUpMesh(CAMERA, {
      width,
      height,
      reach,
      land: land.map((_, i) => Number(i >= width * 10)),
    });
    expect(skyless.triangles.length).toBeLessThan(0.6 * cut.triangles.length);
    expect(cut.places.every(Number.isFinite)).toBe(true);
  });
});

describe('planFaults', () => {
  const scene = (plan: Partial<GroundPlan>, more: Partial<Scene> = {}): Scene => {
    const base = newScene('Faults', { asset: 'a'.repeat(64), width: 1500, height: 1000 });
    return { ...base, ...more, plan: { ...base.plan, ...SETTINGS, ...plan } };
  };
  const wall = (name: string, a: [number, number], b: [number, number], height = 4) => ({
    ...{ id: name, name, height, ...PLAIN_SURFACE },
    foot: [seen(a[0], a[1], 0), seen(b[0], b[1], 0)],
  });
  const standee = { ...{ id: 's', name: 'Traveller', matte: 'm', roundness: 0, crease: 0, ...PLAIN_FINISH } };

  it('finds nothing wrong with a plan that can be', () => {
    const walls = [wall('A', [-4, 9], [0, 9]), wall('B', [0, 9], [4, 14])];
    const outline = [seen(-1, 4, 0.2), seen(1, 4, 0.2), seen(1, 5, 0.2)];
    const decks = [{ ...{ id: 'd', name: 'Kerb', outline, height: 0.2 }, ...PLAIN_SURFACE }];
    expect(planFaults(scene({ walls, decks, standees: [{ ...standee, foot: seen(0, 5, 0) }] }))).toEqual([]);
  });

  it.each<[string, Scene]>([
    ['The horizon lies above the picture', scene({ horizon: { left: -0.2, right: -0.3 } })],
    ['The horizon lies below the picture', scene({ horizon: { left: 1.2, right: 1.3 } })],
    [
      'foot of W lies above the horizon',
      scene({
        walls: [
          {
            ...wall('W', [-1, 8], [1, 8]),
            foot: [
              { u: 0.2, v: 0.3 },
              { u: 0.6, v: 0.7 },
            ],
          },
        ],
      }),
    ],
    ['A and B cross', scene({ walls: [wall('A', [-4, 9], [4, 9]), wall('B', [0, 6], [0.5, 14])] })],
    [
      'Traveller stands behind A',
      scene({ walls: [wall('A', [-4, 6], [4, 6])], standees: [{ ...standee, foot: seen(0, 12, 0) }] }),
    ],
    [
      'Awning, at 3.0 m, can only be seen above the horizon',
      scene({
        decks: [
          {
            ...{ id: 'd', name: 'Awning', height: 3, ...PLAIN_SURFACE },
            outline: [seen(-1, 4, 0), seen(1, 4, 0), seen(1, 6, 0)],
          },
        ],
      }),
    ],
    [
      'lamp hangs right before the eye',
      scene(
        {},
        {
          circuits: [testCircuit('c')],
          fixtures: [
            streetLamp('lamp', 0.5, { circuit: 'c', at: { u: 0.5, v: 0.46 }, foot: { u: 0.5, v: 5 } }),
          ],
        },
      ),
    ],
  ])('says that %s, and what to do', (fault, made) => {
    const found = planFaults(made);
    expect(found.some((text) => text.includes(fault))).toBe(true);
    expect(found.every((text) => /\. .+\./.test(text) || text.endsWith('.'))).toBe(true);
  });
});
