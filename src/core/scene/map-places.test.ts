import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readdirSync, readFileSync } from 'node:fs';
import { testPlaced } from '../../../test/placed';
import { FIRST_DRIFT } from '../drift/drift-schema';
import { createCamera } from '../geometry/camera';
import { createPlaceMap, type Homography, type PlaceMap, type SamePlace } from '../geometry/place-map';
import { groundPoint } from '../geometry/ground';
import { runCommand } from './command';
import { bringEverything } from './lighting-commands';
import { mapPlaces } from './map-places';
import { newScene } from './new-scene';
import { checkedScene, parseScene } from './parse-scene';
import type { Scene } from './schema';

const STAYS: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** A photo of which the middle is seen, enlarged: what is at (0.5, 0.5) stays there. */
const zoomed = (times: number): Homography => [
  ...([times, 0, 0.5 - times / 2] as const),
  ...([0, times, 0.5 - times / 2] as const),
  ...([0, 0, 1] as const),
];

const plate = { asset: 'a'.repeat(64), width: 1600, height: 1067 };

/** A scene of the demo; its assets are told when it is seeded. */
function demoScene(file: string): Scene {
  const { scene } = JSON.parse(readFileSync(`demo/scenes/${file}`, 'utf8')) as { scene: Scene };
  const fixtures = scene.fixtures.map((fixture) => ({ ...fixture, on: undefined }));
  return parseScene({ ...scene, plate, placed: [], fixtures });
}

const demo = demoScene('tannery-court.json');

describe('createPlaceMap', () => {
  it('is the map of the plane where nothing else is known', () => {
    const { place, times } = createPlaceMap(zoomed(1.5), []);
    expectNear(place({ u: 0.7, v: 0.4 }), { u: 0.8, v: 0.35 });
    expect(times({ u: 0.3, v: 0.8 })).toBeCloseTo(1.5, 9);
  });

  it('goes through places that are known beside each other, and leaves far ones where the plane has them', () => {
    const known: SamePlace[] = Array.from({ length: 25 }, (_, k) => {
      const from = { u: 0.2 + 0.01 * (k % 5), v: 0.6 + 0.01 * Math.floor(k / 5) };
      return { from, to: { u: from.u + 0.03, v: from.v } };
    });
    const { place } = createPlaceMap(STAYS, known);
    expect(place({ u: 0.22, v: 0.62 }).u).toBeCloseTo(0.25, 2);
    expectNear(place({ u: 0.8, v: 0.2 }), { u: 0.8, v: 0.2 });
  });

  it('stays within what documents hold, whatever the map', () => {
    const any = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(fc.array(any, { minLength: 9, maxLength: 9 }), any, any, (flat, u, v) => {
        const { place, times } = createPlaceMap(flat as unknown as Homography, []);
        const at = place({ u, v });
        expect(at.u >= -4 && at.u <= 5 && at.v >= -4 && at.v <= 5).toBe(true);
        expect(times({ u, v })).toBeGreaterThan(0);
      }),
    );
  });
});

describe('mapPlaces', () => {
  it('leaves a scene as it is where nothing moves, but what edges were found', () => {
    const same = mapPlaces(demo, createPlaceMap(STAYS, []));
    const found = demo.mattes.map(({ passes, ...matte }) => ({
      ...matte,
      passes: passes.map((pass) => (pass.kind === 'edge' ? { ...pass, asset: undefined } : pass)),
    }));
    expectNear({ ...same }, { ...demo, mattes: found });
  });

  it('keeps the lie of the land under a longer lens: feet stand as far off, on a lens as much longer', () => {
    const scene = { ...demo, plan: { ...demo.plan, horizon: { left: 0.5, right: 0.5 }, lens: 30 } };
    const moved = mapPlaces(scene, createPlaceMap(zoomed(1.2), []));
    expect(moved.plan.lens).toBe(36);
    expectNear(moved.plan.horizon, { left: 0.5, right: 0.5 });
    const aspect = demo.plate.width / demo.plate.height;
    const [before, after] = [scene, moved].map(({ plan }) => createCamera(plan, aspect));
    scene.fixtures.forEach(({ foot, size }, k) => {
      const [x, y] = groundPoint(before, foot);
      const [mx, my] = groundPoint(after, moved.fixtures[k].foot);
      if (y < 60) expect([mx / x, my / y]).toEqual([expect.closeTo(1, 4), expect.closeTo(1, 4)]);
      expect(moved.fixtures[k].size / size).toBeCloseTo(1.2, 6);
    });
  });

  it('turns what is told by where the eye looks: sun and moon go to the right as what is seen does', () => {
    const aside: PlaceMap = createPlaceMap([1, 0, 0.1, 0, 1, 0, 0, 0, 1], []);
    const { plan, moon, sky } = newScene('Aside', demo.plate);
    const moved = mapPlaces({ ...demo, plan, moon: { ...moon, azimuth: 175 }, sky }, aside);
    const degrees = (Math.atan((0.1 * 36) / plan.lens) * 180) / Math.PI;
    expect(moved.moon.azimuth).toBeCloseTo(175 + degrees - 360 * Number(175 + degrees > 180), 6);
    expect(moved.sky.sun).toBeCloseTo(sky.sun + degrees, 6);
    expect(moved.sky.when.bearing).toBeCloseTo(sky.when.bearing - degrees, 6);
  });

  it('moves outlines with their curves, and paths of strokes by their strides', () => {
    const curve = { u: 0.4, v: 0.4, out: { u: 0.1, v: 0 } };
    const passes = [
      { id: 'o', kind: 'outline', join: 'add', points: [curve] },
      {
        id: 'e',
        kind: 'edge',
        join: 'add',
        strokes: [{ act: 'take', path: [0.6, 0.6], size: 0.02 }],
        asset: 'a',
      },
    ];
    const matte = { ...demo.mattes[0], id: 'm', passes } as (typeof demo.mattes)[number];
    const [moved] = mapPlaces({ ...demo, mattes: [matte] }, createPlaceMap(zoomed(2), [])).mattes;
    expectNear(moved.passes[0], { ...passes[0], points: [{ u: 0.3, v: 0.3, out: { u: 0.2, v: 0 } }] });
    expectNear(moved.passes[1], {
      ...passes[1],
      strokes: [{ act: 'take', path: [0.7, 0.7], size: 0.04 }],
      asset: undefined,
    });
  });

  it.each(readdirSync('demo/scenes'))('moves every place that a document holds: %s', (file) => {
    const { lens, sky, ...scene } = demoScene(file);
    const all: Scene = {
      ...scene,
      lens: { ...lens, points: [{ id: 'p', at: { u: 0.4, v: 0.3 }, stops: 0 }] },
      sky: { ...sky, picture: { ...OWN_SKY, asset: plate.asset } },
      placed: [testPlaced('x')],
      drifts: [{ ...FIRST_DRIFT, id: 'd', name: 'Mist', at: { u: 0.5, v: 0.4 }, foot: { u: 0.5, v: 0.7 } }],
    };
    const aside = createPlaceMap([1, 0, 0.1, 0, 1, 0, 0, 0, 1], []);
    const [before, after] = [all, mapPlaces(all, aside)].map((one) => placesIn(one));
    expect(before.size).toBeGreaterThan(40);
    for (const [where, u] of before) expect(after.get(where), where).toBeCloseTo(u + 0.1, 6);
  });

  it('gives a scene that can be saved, however far things go', () => {
    for (const flat of [zoomed(3), zoomed(0.3), [1, 0, 3, 0, 1, -3, 0, 0, 1] as const])
      expect(() => checkedScene(mapPlaces(demo, createPlaceMap(flat, [])))).not.toThrow();
  });
});

describe('bringEverything', () => {
  it('makes a scene the other one around its own plate', () => {
    const own = newScene('Own', { ...demo.plate, asset: 'b'.repeat(64) });
    const { scene } = runCommand(own, bringEverything(demo));
    expect(scene).toEqual({ ...demo, title: 'Own', plate: own.plate, frame: own.frame });
  });
});

const OWN_SKY = {
  ...{ name: 'Own', width: 100, height: 100, at: { u: 0.5, v: 0.2 }, across: 0.8 },
  ...{ turn: 0, share: 1, exposure: 0, fit: 0 },
};

/** What of a document has u and v, or a path of them, and yet no place of the plate: offsets, the frame, cuts of placed pictures. */
const NO_PLACES = ['in', 'out', 'frame', 'cut'];

/** The u of every place in a document, by where it stands there. */
function placesIn(value: unknown, where = '', found = new Map<string, number>()): Map<string, number> {
  if (typeof value !== 'object' || value === null) return found;
  const { u, v } = value as { u?: unknown; v?: unknown };
  if (typeof u === 'number' && typeof v === 'number') found.set(where, u);
  for (const [name, part] of Object.entries(value)) {
    if (NO_PLACES.includes(name)) continue;
    if (name === 'path' && Array.isArray(part) && typeof part[0] === 'number')
      found.set(`${where}.path`, part[0]);
    placesIn(part, `${where}.${name}`, found);
  }
  return found;
}

/** Expects two documents to be alike, numbers but for rounding. */
function expectNear(a: unknown, b: unknown): void {
  const flat = (value: unknown) =>
    JSON.stringify(value, (_, one: unknown) => (typeof one === 'number' ? Number(one.toFixed(6)) + 0 : one));
  expect(JSON.parse(flat(a))).toEqual(JSON.parse(flat(b)));
}
