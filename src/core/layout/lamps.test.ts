import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createCamera, project, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { wallPieces } from '../plan/wall-pieces';
import type { Plane } from '../plane/plane';
import { hangLamp } from './hang-lamp';
import { lampGlass, showsSuchGlass } from './lamp-glass';
import { postBelow } from './post-below';

const [WIDTH, HEIGHT] = [480, 320];
const CAMERA = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 30 }, 1.5);
const seen = (x: number, y: number, z: number): PlatePoint => project(CAMERA, [x, y, z])!;
const isGround = (_u: number, v: number) => v > 0.5;
const NOTHING = { walls: [], decks: [] };
const GLOBE = { radius: 0.15, height: 3.4, round: true };

interface Drawn {
  globes?: { at: PlatePoint; radius: number; tone?: number }[];
  /** Upright strips between two places, as broad as so many pixels. */
  posts?: { top: PlatePoint; foot: PlatePoint; breadth: number; tone?: number }[];
}

/** A plate of sky, then ground, with globes and posts on it, smoothed over a pixel. */
function plateOf({ globes = [], posts = [] }: Drawn): Plane {
  const data = new Float32Array(WIDTH * HEIGHT);
  const steps = [0.25, 0.75];
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      let sum = 0;
      for (const [px, py] of steps.flatMap((a) => steps.map((b) => [x + a, y + b]))) {
        const globe = globes.find(
          ({ at, radius }) => Math.hypot(px - at.u * WIDTH, py - at.v * HEIGHT) < radius * WIDTH,
        );
        const post = posts.find(
          ({ top, foot, breadth }) =>
            py > top.v * HEIGHT && py < foot.v * HEIGHT && Math.abs(px - foot.u * WIDTH) < breadth / 2,
        );
        sum += globe ? (globe.tone ?? 230) : post ? (post.tone ?? 30) : py < HEIGHT / 2 ? 150 : 110;
      }
      data[y * WIDTH + x] = sum / 4;
    }
  }
  return { width: WIDTH, height: HEIGHT, data };
}

describe('a lamp’s glass', () => {
  it('is found around any place inside of it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 14, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        fc.constantFrom(230, 40),
        (pixels, dx, dy, tone) => {
          const radius = pixels / WIDTH;
          const at = { u: 0.4, v: 0.3 };
          const clicked = { u: at.u + dx * radius, v: at.v + dy * radius * 1.5 };
          const glass = lampGlass(plateOf({ globes: [{ at, radius, tone }] }), clicked)!;
          expect(glass.radius / radius).toBeGreaterThan(0.8);
          expect(glass.radius / radius).toBeLessThan(1.25);
          expect(Math.hypot(glass.at.u - at.u, (glass.at.v - at.v) / 1.5)).toBeLessThan(0.35 * radius);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('is not found on what has no rim', () => {
    expect(lampGlass(plateOf({}), { u: 0.4, v: 0.2 })).toBeUndefined();
    expect(lampGlass(plateOf({}), { u: 0.4, v: 0.5 })).toBeUndefined();
  });

  it('tells a twin from a post and from a globe of another size', () => {
    const own = { at: { u: 0.3, v: 0.3 }, radius: 9 / WIDTH };
    const twin = { at: { u: 0.5, v: 0.3 }, radius: 6 / WIDTH };
    const large = { at: { u: 0.7, v: 0.3 }, radius: 12 / WIDTH };
    const posts = [{ top: { u: 0.9, v: 0.1 }, foot: { u: 0.9, v: 0.5 }, breadth: 8 }];
    const shows = showsSuchGlass(plateOf({ globes: [own, twin, large], posts }), own.at, own.radius);
    expect(shows(twin.at, 6 / 9)).toBe(true);
    expect(shows(large.at, 6 / 9)).toBe(false);
    expect(shows({ u: 0.9, v: 0.3 }, 6 / 9)).toBe(false);
    // A lamp whose glass is not the disc that is seen there is held against nothing.
    expect(showsSuchGlass(plateOf({ globes: [own] }), own.at, 2 * own.radius)({ u: 0.9, v: 0.3 }, 1)).toBe(
      true,
    );
  });
});

describe('what carries a lamp', () => {
  const at = seen(0.6, 9, 3);
  const foot = seen(0.6, 9, 0);
  const radius = (0.15 / 9) * (30 / 36);
  const lamp = { globes: [{ at, radius }], posts: [{ top: at, foot, breadth: 5 }] };

  it('is the post below, down to its foot', () => {
    const post = postBelow(plateOf(lamp), { at, radius }, isGround)!;
    expect(Math.abs(post.v - foot.v) * HEIGHT).toBeLessThan(2.5);
    expect(Math.abs(post.u - foot.u) * WIDTH).toBeLessThan(2);
    expect(postBelow(plateOf({ globes: lamp.globes }), { at, radius }, isGround)).toBeUndefined();
  });

  it('goes on down a pedestal that is broader than the post', () => {
    const middle = { u: foot.u, v: 0.55 + 0.25 * (foot.v - 0.55) };
    const posts = [
      { top: at, foot: middle, breadth: 5 },
      { top: middle, foot, breadth: 12 },
    ];
    const post = postBelow(plateOf({ ...lamp, posts }), { at, radius }, isGround)!;
    expect(Math.abs(post.v - foot.v) * HEIGHT).toBeLessThan(3);
    // Another paving below a post is none.
    const paving = [posts[0], { ...posts[1], tone: 90 }];
    const alone = postBelow(plateOf({ ...lamp, posts: paving }), { at, radius }, isGround)!;
    expect(Math.abs(alone.v - middle.v) * HEIGHT).toBeLessThan(6);
  });

  it('stands a lamp of any size on its post', () => {
    for (const radiusM of [0.1, 0.15, 0.25]) {
      const size = (radiusM / 9) * (30 / 36);
      const plate = plateOf({ ...lamp, globes: [{ at, radius: size }] });
      const hung = hangLamp(plate, CAMERA, NOTHING, GLOBE, at, isGround)!;
      expect(groundPoint(CAMERA, hung.foot)[1]).toBeGreaterThan(8.2);
      expect(groundPoint(CAMERA, hung.foot)[1]).toBeLessThan(9.8);
      expect(hung.radius! / size).toBeCloseTo(1, 0);
    }
  });

  it('is the wall behind, an arm before it, where no post is seen', () => {
    const wall = { id: 'w', name: 'Wall', foot: [seen(-5, 9.3, 0), seen(5, 9.3, 0)], height: 7 };
    const walls = wallPieces(CAMERA, [{ ...wall, sheen: 0, roughness: 1, crease: 0 }]);
    const hung = hangLamp(
      plateOf({ globes: lamp.globes }),
      CAMERA,
      { walls, decks: [] },
      GLOBE,
      at,
      isGround,
    )!;
    expect(groundPoint(CAMERA, hung.foot)[1]).toBeCloseTo(9, 0);
    // A lamp is never behind its wall.
    const near = { ...wall, foot: [seen(-3, 5, 0), seen(3, 5, 0)] };
    const nearer = wallPieces(CAMERA, [{ ...near, sheen: 0, roughness: 1, crease: 0 }]);
    const before = hangLamp(
      plateOf({ globes: lamp.globes }),
      CAMERA,
      { walls: nearer, decks: [] },
      GLOBE,
      at,
      isGround,
    )!;
    expect(groundPoint(CAMERA, before.foot)[1]).toBeLessThan(5.1);
  });

  it('is the canopy above, whatever is usual of its kind, and no deck that is seen from above', () => {
    // Under a canopy at 3.2 m that reaches from 4 to 7 m ahead, flush with it or on a rod.
    const outline = [seen(-2, 4, 3.2), seen(2, 4, 3.2), seen(2, 7, 3.2), seen(-2, 7, 3.2)];
    const ahead = (at: PlatePoint, decks: { outline: PlatePoint[]; height: number }[], wall?: number) => {
      const plate = plateOf({ globes: [{ at, radius: (0.08 / 5) * (30 / 36) }] });
      const feet = wall === undefined ? [] : [{ foot: [seen(-5, wall, 0), seen(5, wall, 0)], height: 7 }];
      const carriers = { walls: wallPieces(CAMERA, feet), decks };
      return groundPoint(CAMERA, hangLamp(plate, CAMERA, carriers, GLOBE, at, isGround)!.foot)[1];
    };
    const canopy = { outline, height: 3.2 };
    const [flush, rod] = [seen(0.5, 5, 3.1), seen(0.5, 5, 2.7)];
    expect(ahead(flush, [canopy])).toBeGreaterThan(4.7);
    expect(ahead(flush, [canopy])).toBeLessThan(5.4);
    expect(ahead(flush, [canopy], 7.5)).toBeLessThan(5.4);
    expect(ahead(rod, [canopy])).toBeGreaterThan(4);
    expect(ahead(rod, [canopy])).toBeLessThan(7.1);
    expect(ahead(flush, [])).toBeGreaterThan(6);
    expect(ahead(flush, [{ outline, height: 0.5 }])).toBeCloseTo(ahead(flush, []), 6);
  });

  it('is told by size and height alone where nothing is seen to carry it', () => {
    const hung = hangLamp(plateOf({ globes: lamp.globes }), CAMERA, NOTHING, GLOBE, at, isGround)!;
    const ahead = groundPoint(CAMERA, hung.foot)[1];
    expect(ahead).toBeGreaterThan(7);
    expect(ahead).toBeLessThan(13);
    // A lantern stays where it was clicked, with the glass of its kind.
    const lantern = hangLamp(plateOf(lamp), CAMERA, NOTHING, { ...GLOBE, round: false }, at, isGround)!;
    expect(lantern.at).toEqual(at);
    expect(lantern.radius).toBeUndefined();
  });

  it('may lie anywhere: at the edge, in the corner, below the horizon', () => {
    for (const [u, v] of [
      [0, 0],
      [1, 1],
      [0.5, 0.5],
      [0.999, 0.2],
    ]) {
      const hung = hangLamp(plateOf(lamp), CAMERA, NOTHING, GLOBE, { u, v }, isGround);
      if (hung) expect([hung.foot.u, hung.foot.v].every(Number.isFinite)).toBe(true);
    }
  });
});
