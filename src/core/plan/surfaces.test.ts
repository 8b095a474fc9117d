import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addPointSpill } from '../light/add-point-spill';
import { boundsOf, occlude, type StandingCoverage } from '../light/occlusion';
import { SOFT_LEVELS, softenCoverage } from '../light/soft-coverage';
import { wholeRegion } from '../plane/region';
import { withinOutline } from '../geometry/within-outline';
import { createCamera, project, rayThrough, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { reliefOf } from '../relief/relief';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { intersectLevel } from './deck-plane';
import { DULL, deckPieces, standsAhead, standsOn } from './surfaces';
import { NO_SURFACES, type Surfaces } from '../relief/relief-surfaces';
import { meetWall, wallPieces } from './wall-pieces';
import { surveyPlate } from '../survey/survey';
import type { Vec3 } from '../geometry/vec3';

const [WIDTH, HEIGHT] = [60, 40];
const REGION = wholeRegion(WIDTH, HEIGHT);
const CAMERA = createCamera({ horizon: { left: 0.4, right: 0.4 }, eyeHeight: 1.6, lens: 30 }, 1.5);
const COUNT = WIDTH * HEIGHT;

/** A place of the ground as it is seen. */
const seen = (x: number, y: number, z = 0): PlatePoint => project(CAMERA, [x, y, z])!;
const pixel = ({ u, v }: PlatePoint) => Math.floor(v * HEIGHT) * WIDTH + Math.floor(u * WIDTH);

/** A wall right across, eight metres ahead. */
const across = { id: 'w', name: 'Wall', foot: [seen(-6, 8), seen(6, 8)], height: 3 };

const grey = (value: number) => new Float32Array(COUNT).fill(value);
const PLATE = { width: WIDTH, height: HEIGHT, r: grey(0.3), g: grey(0.3), b: grey(0.3) };
const SURVEY = surveyPlate(PLATE, { left: 0.4, right: 0.4 });

function relief(surfaces: Partial<Surfaces>): Relief {
  const out = Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(COUNT)]),
  ) as unknown as Relief;
  reliefOf(out, PLATE, SURVEY, CAMERA, REGION, { ...NO_SURFACES, ...surfaces });
  return out;
}

/** A standee as light meets it. */
function standing(ahead: number, data: Float32Array): StandingCoverage {
  const levels = new Float32Array(SOFT_LEVELS * COUNT);
  softenCoverage(levels, { width: WIDTH, height: HEIGHT, data });
  return { ahead, width: WIDTH, height: HEIGHT, levels, bounds: boundsOf(data, WIDTH, HEIGHT) };
}

/** World place of what a relief shows at a pixel. */
function placeOf({ reach }: Relief, i: number): [number, number, number] {
  const ray = rayThrough(CAMERA, {
    u: ((i % WIDTH) + 0.5) / WIDTH,
    v: (Math.floor(i / WIDTH) + 0.5) / HEIGHT,
  });
  return [ray[0] * reach[i], ray[1] * reach[i], 1.6 + ray[2] * reach[i]];
}

describe('what is seen under the foot of a wall', () => {
  it('is ground, not a seam behind the wall, where the survey’s soft edge reaches down over it', () => {
    const foot = Math.floor(seen(0, 8).v * HEIGHT);
    const isRim = (i: number) => Math.abs(Math.floor(i / WIDTH) - foot) <= 3;
    const [slope, offset] = [grey(0), SURVEY.ground.offset.map((own, i) => (isRim(i) ? 0.5 : own))];
    // What stands there by the survey stands far behind the wall.
    const feet = SURVEY.feet.map((own, i) => (isRim(i) ? 0.42 : own));
    const survey = { ...SURVEY, feet, ground: { slope, offset } };
    const planes = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(COUNT)]),
    ) as unknown as Relief;
    const walls = wallPieces(CAMERA, [across]);
    reliefOf(planes, PLATE, survey, CAMERA, REGION, { ...NO_SURFACES, walls });
    for (let y = foot + 1; y < foot + 4; y++) {
      const i = y * WIDTH + WIDTH / 2;
      const [, ahead, up] = placeOf(planes, i);
      expect(ahead).toBeLessThan(8);
      expect(up).toBeCloseTo(0, 5);
      expect([planes.normalZ[i], planes.unknownFacing[i]]).toEqual([1, 0]);
    }
    expect(planes.normalY[(foot - 2) * WIDTH + WIDTH / 2]).toBeCloseTo(-1, 5);
  });
});

describe('wallPieces', () => {
  it('keep their way where their foot is drawn over the horizon', () => {
    const [near, far] = [seen(-3, 5), seen(-3, 40)];
    const at = (t: number) => ({ u: near.u + t * (far.u - near.u), v: near.v + t * (far.v - near.v) });
    const over = at(2);
    expect(over.v).toBeLessThan(0.4);
    for (const foot of [
      [near, over],
      [over, near],
    ]) {
      const [piece] = wallPieces(CAMERA, [{ foot, height: 3 }]);
      expect(piece.normalX).toBeCloseTo(1, 6);
      expect(Math.max(piece.ay, piece.by)).toBeCloseTo(2000, 0);
      for (const x of [piece.ax, piece.bx]) expect(x).toBeCloseTo(-3, 3);
    }
    // One that lies over it all along stands as far off as ground is seen.
    const [above] = wallPieces(CAMERA, [
      {
        foot: [
          { u: 0.2, v: 0.3 },
          { u: 0.8, v: 0.3 },
        ],
        height: 3,
      },
    ]);
    expect(above.ay).toBeCloseTo(2000, 0);
  });

  it('stand on their feet and face the eye, whichever way they were drawn', () => {
    for (const foot of [across.foot, [...across.foot].reverse()]) {
      const [piece] = wallPieces(CAMERA, [{ ...across, foot }]);
      expect([piece.ay, piece.by]).toEqual([expect.closeTo(8, 6), expect.closeTo(8, 6)]);
      expect([piece.normalX, piece.normalY]).toEqual([expect.closeTo(0, 6), expect.closeTo(-1, 6)]);
    }
  });

  it('join at corners, and leave out what has no length', () => {
    const foot = [seen(-3, 8), seen(0, 8), seen(0, 8), seen(0, 14)];
    const pieces = wallPieces(CAMERA, [{ ...across, foot }]);
    expect(pieces).toHaveLength(2);
    expect(pieces[0].bx).toBeCloseTo(pieces[1].ax, 6);
    // Seen from its left, a wall along the view faces left.
    expect(wallPieces(CAMERA, [{ ...across, foot: [seen(2, 6), seen(2, 12)] }])[0].normalX).toBeCloseTo(
      -1,
      6,
    );
  });
});

describe('meetWall and intersectLevel', () => {
  const [piece] = wallPieces(CAMERA, [across]);

  it('meet what is before them, between their ends and their heights', () => {
    expect(meetWall(piece, 1.6, [0, 1, 0])).toBeCloseTo(8, 6);
    expect(meetWall(piece, 1.6, [0, 1, 0.2])).toBe(Infinity);
    expect(meetWall(piece, 1.6, [0, 1, -0.3])).toBe(Infinity);
    expect(meetWall(piece, 1.6, [1, 1, 0])).toBe(Infinity);
    expect(meetWall(piece, 1.6, [0, -1, 0])).toBe(Infinity);
    expect(intersectLevel(-1, 1.6, -0.5)).toBeCloseTo(5.2, 6);
    expect(intersectLevel(3, 1.6, 0.5)).toBeCloseTo(2.8, 6);
    expect(intersectLevel(3, 1.6, -0.5)).toBe(Infinity);
    expect(intersectLevel(3, 1.6, 0)).toBe(Infinity);
  });
});

describe('standsAhead', () => {
  const corners = (height: number, near: number, far: number) =>
    [
      [-4, near],
      [4, near],
      [4, far],
      [-4, far],
    ].map(([x, y]) => seen(x, y, height));
  const water = { outline: corners(-1.2, 5, 20), height: -1.2 };
  const platform = { outline: corners(0.5, 6, 9), height: 0.5 };
  const awning = { outline: corners(3, 6, 9), height: 3 };

  it('stands on the deck that is seen at its foot, the nearest of several, and else on the ground', () => {
    expect(standsAhead(CAMERA, { foot: seen(1, 12, -1.2) }, [water])).toBeCloseTo(12, 6);
    expect(standsAhead(CAMERA, { foot: seen(1, 12) }, [])).toBeCloseTo(12, 6);
    expect(standsAhead(CAMERA, { foot: seen(8, 12) }, [water, platform])).toBeCloseTo(12, 6);
    for (const decks of [
      [water, platform],
      [platform, water],
    ])
      expect(standsAhead(CAMERA, { foot: seen(0, 8, 0.5) }, decks)).toBeCloseTo(8, 6);
    expect(standsOn(CAMERA, seen(0, 8, 0.5), [water, platform])[2]).toBe(0.5);
    expect(standsOn(CAMERA, seen(0, 8, 0.5), [awning])[2]).toBe(0);
  });
});

describe('reliefOf with surfaces', () => {
  it('puts a wall where it was drawn, ground before it, and no crack between', () => {
    const found = relief({ walls: wallPieces(CAMERA, [across]) });
    const upon = pixel(seen(1, 8, 1.5));
    expect(placeOf(found, upon)[1]).toBeCloseTo(8, 5);
    expect([found.normalY[upon], found.normalZ[upon], found.unknownFacing[upon]]).toEqual([-1, 0, 0]);
    const x = 30;
    let before = Infinity;
    for (let y = HEIGHT - 1; y >= 0; y--) {
      const ahead = placeOf(found, y * WIDTH + x)[1];
      if (before < 7.5) expect(ahead - before).toBeLessThan(2);
      before = ahead;
    }
  });

  it('lays a deck at its height and stands a standee on its foot', () => {
    const outline = [seen(-2, 4), seen(2, 4), seen(2, 6), seen(-2, 6)];
    const water = relief({ decks: [{ outline, height: -1, ...DULL }] });
    const on = pixel(seen(0, 5));
    expect(placeOf(water, on)[2]).toBeCloseTo(-1, 5);
    expect(water.normalZ[on]).toBe(1);
    const person = Float32Array.from({ length: COUNT }, (_, i) => (i % WIDTH > 25 && i % WIDTH < 30 ? 1 : 0));
    const ahead = standsAhead(CAMERA, { foot: seen(0, 5) }, []);
    const stood = relief({ standees: [{ ahead, coverage: person, roundness: 0, creased: 0, ...DULL }] });
    expect(placeOf(stood, 20 * WIDTH + 27)[1]).toBeCloseTo(5, 5);
    expect(stood.unknownFacing[20 * WIDTH + 27]).toBe(1);
  });

  it('lays a deck before a wall and not through it', () => {
    const walls = wallPieces(CAMERA, [across]);
    const pavement = { outline: [seen(-3, 4), seen(3, 4), seen(3, 30), seen(-3, 30)], height: 0.15, ...DULL };
    const found = relief({ walls, decks: [pavement] });
    expect(found.normalZ[pixel(seen(0, 6))]).toBe(1);
    expect(found.normalZ[pixel(seen(0, 8, 0.6))]).toBe(0);
    expect(found.normalY[pixel(seen(0, 8, 0.6))]).toBeCloseTo(-1, 5);
  });

  it('keeps what a surface shines like to where it lies, and ripples it by the folds that the plate shows', () => {
    const outline = [seen(-2, 4), seen(2, 4), seen(2, 6), seen(-2, 6)];
    const folds = { width: 1, height: 1, right: Float32Array.of(0.2), up: Float32Array.of(0.4) };
    const water = { outline, height: -1, sheen: 0.8, roughness: 0.5, crease: 0.5 };
    const found = relief({ decks: [water], folds });
    const [on, off] = [pixel(seen(0, 5)), pixel(seen(0, 7))];
    expect(found.sheen[on]).toBeCloseTo(0.8, 6);
    expect(found.alpha[on]).toBeCloseTo(0.25, 6);
    expect(found.sheen[off]).toBe(0);
    // Folds are held under a slope of 0.35.
    const fold = (right: number, up: number) => {
      const held = 1 / Math.hypot(1, Math.hypot(right, up) / 0.35);
      return [held * right, held * up];
    };
    const unit = (...normal: number[]): unknown[] =>
      normal.map((c): unknown => expect.closeTo(c / Math.hypot(...normal), 4));
    const normalAt = (of: Relief, i: number) => [of.normalX[i], of.normalY[i], of.normalZ[i]];
    const [right, up] = fold(0.1, 0.2);
    expect(normalAt(found, on)).toEqual(unit(right, up, 1));
    const walled = relief({
      walls: wallPieces(CAMERA, [{ ...across, sheen: 0.3, roughness: 1, crease: 1 }]),
      folds,
    });
    const wall = pixel(seen(0, 8, 1.5));
    expect(walled.sheen[wall]).toBeCloseTo(0.3, 6);
    const [aside, rising] = fold(0.2, 0.4);
    expect(normalAt(walled, wall)).toEqual(unit(aside, -1, rising));
    const wet = grey(0);
    wet[off] = 1;
    const damp = relief({ ground: { sheen: 0.5, roughness: 0.3, crease: 0 }, wet });
    expect(damp.sheen[off]).toBeGreaterThan(0.45);
    expect(damp.sheen[on]).toBe(0);
  });

  it('holds nothing but numbers, whatever is drawn', () => {
    const place = fc.record({
      u: fc.double({ min: -4, max: 5, noNaN: true }),
      v: fc.double({ min: -4, max: 5, noNaN: true }),
    });
    const wall = fc.record({
      id: fc.constant('w'),
      name: fc.constant('W'),
      foot: fc.array(place, { minLength: 2, maxLength: 4 }),
      height: fc.double({ min: 0.05, max: 200, noNaN: true }),
    });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const finish = fc.record({ sheen: share, roughness: share, crease: share });
    const deck = fc.record({
      outline: fc.array(place, { minLength: 3, maxLength: 5 }),
      height: fc.double({ min: -20, max: 50, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(wall, { maxLength: 3 }),
        fc.array(deck, { maxLength: 2 }),
        place,
        finish,
        (walls, plain, foot, own) => {
          const decks = plain.map((deck) => ({ ...deck, ...own }));
          const pieces = wallPieces(
            CAMERA,
            walls.map((drawn) => ({ ...drawn, ...own })),
          );
          const tilts = { width: 1, height: 1, right: Float32Array.of(0.9), up: Float32Array.of(-0.8) };
          const form = { ...own, roundness: 1, creased: 1, round: tilts };
          const standee = { ahead: standsAhead(CAMERA, { foot }, []), coverage: grey(0.7), ...form };
          const found = relief({ ground: own, folds: tilts, walls: pieces, decks, standees: [standee] });
          for (const name of RELIEF_PLANES) expect(found[name].every(Number.isFinite)).toBe(true);
          const light = { place: [0, 5, 3] as const, spillCandela: 1, airCandela: 1, radius: 0.1 };
          const shade = grey(1);
          occlude(shade, found, CAMERA, REGION, light, {
            walls: pieces,
            decks: deckPieces(CAMERA, decks),
            standees: [standing(standee.ahead, standee.coverage)],
            ends: {},
          });
          expect(shade.every((share) => share >= 0 && share <= 1)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('occlude', () => {
  const lamp = (radius: number) => ({ place: [0, 10, 3] as const, spillCandela: 1, airCandela: 1, radius });
  const low = { id: 'w', name: 'W', foot: [seen(-6, 8), seen(6, 8)], height: 1.5 };
  const ground = { reach: new Float32Array(COUNT) };
  ground.reach.forEach((_, i) => {
    const at = { u: ((i % WIDTH) + 0.5) / WIDTH, v: (Math.floor(i / WIDTH) + 0.5) / HEIGHT };
    ground.reach[i] = groundPoint(CAMERA, at)[1] / rayThrough(CAMERA, at)[1];
  });
  const shadow = (radius: number, walls = wallPieces(CAMERA, [low])) => {
    const out = grey(1);
    occlude(out, ground, CAMERA, REGION, lamp(radius), { walls, decks: [], standees: [], ends: {} });
    return (x: number, y: number) => out[pixel(seen(x, y))];
  };

  it('casts the umbra of a wall as far as its top throws it', () => {
    // From (10, 3 high) over a wall of 1.5 at 8: the shadow ends at 6.
    const at = shadow(0.001);
    expect([at(0, 7), at(0, 6.4)]).toEqual([0, 0]);
    expect([at(0, 5.2), at(0, 12)]).toEqual([1, 1]);
    expect(at(0, 9)).toBe(1);
  });

  it('lets no light through along the foot of a wall, however near to it a place lies', () => {
    const foot = (before: number) => {
      const at = seen(0, 8);
      const region = {
        ...REGION,
        left: Math.floor(at.u * WIDTH),
        top: Math.floor(at.v * HEIGHT),
        width: 1,
        height: 1,
      };
      const ahead = rayThrough(CAMERA, {
        u: (region.left + 0.5) / WIDTH,
        v: (region.top + 0.5) / HEIGHT,
      })[1];
      const out = Float32Array.of(1);
      const reach = Float32Array.of((8 - before) / ahead);
      const walls = wallPieces(CAMERA, [{ ...low, height: 6 }]);
      occlude(out, { reach }, CAMERA, region, lamp(0.001), { walls, decks: [], standees: [], ends: {} });
      return out[0];
    };
    for (const before of [0.001, 0.01, 0.039, 0.1, 1]) expect(foot(before)).toBe(0);
    // What lies on the wall is not shaded by it.
    expect(foot(0)).toBe(1);
  });

  it('casts of a wall that ends at a matte only what the matte covers', () => {
    const half = Float32Array.from({ length: COUNT }, (_, i) => (i % WIDTH < 30 ? 1 : 0));
    const out = grey(1);
    const walls = wallPieces(CAMERA, [{ ...low, until: 'half' }]);
    const ends = { half: standing(0, half) };
    occlude(out, ground, CAMERA, REGION, lamp(0.001), { walls, decks: [], standees: [], ends });
    expect(out[pixel(seen(-1.5, 7))]).toBe(0);
    expect(out[pixel(seen(1.5, 7))]).toBe(1);
    expect(out[pixel(seen(-1.5, 9))]).toBe(1);
  });

  it('softens the edge by the size of the source', () => {
    const at = shadow(0.5);
    expect(at(0, 7.6)).toBe(0);
    expect(at(0, 5.8)).toBeGreaterThan(0.05);
    expect(at(0, 5.8)).toBeLessThan(0.95);
    expect(at(0, 4)).toBe(1);
  });

  it('casts a standee by its own shape, and none from what the lamp hangs on', () => {
    // Half of the picture, from the middle to the left, stands six metres ahead.
    const half = Float32Array.from({ length: COUNT }, (_, i) => (i % WIDTH < 30 ? 1 : 0));
    const cast = (ahead: number) => {
      const out = grey(1);
      occlude(out, ground, CAMERA, REGION, lamp(0.01), {
        walls: [],
        decks: [],
        standees: [standing(ahead, half)],
        ends: {},
      });
      return (x: number, y: number) => out[pixel(seen(x, y))];
    };
    expect([cast(6)(-1.5, 4), cast(6)(1.5, 4)]).toEqual([0, 1]);
    expect(cast(6)(-1.5, 7)).toBe(1);
    expect(cast(10)(-1.5, 4)).toBe(1);
  });

  it('softens a standee’s edge by the size of the source, the farther behind it the more', () => {
    // A strip of the picture, three columns wide, stands six metres ahead.
    const strip = Float32Array.from({ length: COUNT }, (_, i) => Number(i % WIDTH >= 26 && i % WIDTH < 34));
    const row = (radius: number, ahead: number) => {
      const out = grey(1);
      const standees = [standing(6, strip)];
      occlude(out, ground, CAMERA, REGION, lamp(radius), { walls: [], decks: [], standees, ends: {} });
      const first = Math.floor(seen(0, ahead).v * HEIGHT) * WIDTH;
      return out.subarray(first, first + WIDTH);
    };
    const partial = (shades: Float32Array) => shades.filter((share) => share > 0.02 && share < 0.98).length;
    expect(partial(row(0.001, 4))).toBeLessThanOrEqual(4);
    expect(partial(row(0.6, 4))).toBeGreaterThan(partial(row(0.2, 4)));
    expect(Math.min(...row(0.001, 4))).toBe(0);
    expect(Math.max(...row(0.6, 4))).toBe(1);
  });

  it('casts a slab, soft at its rim by the size of the source', () => {
    // A square of two metres a side, two metres up, under a lamp at three: its shadow on the ground is three times as large.
    const corners = [
      [-1, 9],
      [1, 9],
      [1, 11],
      [-1, 11],
    ] as const;
    const cast = (radius: number) => {
      const out = grey(1);
      const decks = [{ height: 2, riseX: 0, riseY: 0, corners }];
      occlude(out, ground, CAMERA, REGION, lamp(radius), { walls: [], decks, standees: [], ends: {} });
      return (x: number, y: number) => out[pixel(seen(x, y))];
    };
    expect([cast(0.001)(0, 8), cast(0.001)(0, 6), cast(0.001)(4, 10)]).toEqual([0, 1, 1]);
    expect(cast(0.5)(0, 7)).toBeGreaterThan(0.02);
    expect(cast(0.5)(0, 7)).toBeLessThan(0.98);
    expect(withinOutline(corners, 0, 10)).toBeCloseTo(1, 9);
    expect(withinOutline(corners, 3, 10)).toBeCloseTo(-2, 9);
  });
});

describe('light that grazes a round wall', () => {
  it('ends by the cosine, without a step from part to part', () => {
    const arc = Array.from({ length: 4 }, (_, k) => {
      const turn = -1.2 + 0.8 * k;
      return seen(3 * Math.sin(turn), 11 - 3 * Math.cos(turn));
    });
    const pieces = wallPieces(CAMERA, [{ ...across, foot: arc, height: 4 }]);
    const width = 900;
    const region = { fullWidth: width, fullHeight: 600, left: 0, top: 250, width, height: 1 };
    const [r, g, b] = [0, 1, 2].map(() => new Float32Array(width).fill(0.3));
    const row = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(width)]),
    ) as unknown as Relief;
    const surfaces = { ...NO_SURFACES, walls: pieces };
    reliefOf(row, { width, height: 1, r, g, b }, SURVEY, CAMERA, region, surfaces);
    const light = { place: [-9, 9, 2] as Vec3, spillCandela: 1000, airCandela: 0, radius: 0.05 };
    const lit = new Float32Array(width);
    addPointSpill(lit, row, CAMERA, region, light);
    const seenOf = Float32Array.from(lit, (value) => (value > 0 ? 1 : 0));
    occlude(seenOf, row, CAMERA, region, light, { walls: pieces, decks: [], standees: [], ends: {} });
    const onWall = Array.from(lit.keys()).filter((x) => row.unknownFacing[x] === 0 && row.normalZ[x] === 0);
    const shown = onWall.map((x) => lit[x] * seenOf[x]);
    const brightest = Math.max(...shown);
    expect(brightest).toBeGreaterThan(1);
    expect(shown.at(-1)).toBe(0);
    const last = shown.findLast((value) => value > 0)!;
    expect(last).toBeLessThan(0.003 * brightest);
    expect(onWall.length).toBeGreaterThan(300);
  });
});
