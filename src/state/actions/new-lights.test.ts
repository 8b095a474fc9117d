import { describe, expect, it } from 'vitest';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import { paneGrid } from '@/core/fixture/pane-grid';
import { tubePieces } from '@/core/fixture/tube-pieces';
import { placeFixture } from '@/core/fixture/place-fixture';
import { cameraOf } from '@/core/picture/camera-of';
import { project } from '@/core/geometry/camera';
import { runCommand } from '@/core/scene/command';
import {
  moveCircuit,
  moveFixtures,
  pasteFixtures,
  removeFixtures,
  setFixtures,
  splitFixture,
} from '@/core/scene/many-commands';
import { parseScene } from '@/core/scene/parse-scene';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import { MOST_FIXTURES, type Scene } from '@/core/scene/schema';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { copyOf, pasteInto } from './clipboard';
import { letteringAcross, missingLetters } from './lettering';
import { outlineOf, scatterIn } from './matte-lights';
import { gridOf } from './twins';

const bare = streetScene([]);
const seen = (x: number, y: number, z: number) => project(cameraOf(bare), [x, y, z])!;
/** A wall that leads away from the eye on the right. */
const walled: Scene = {
  ...bare,
  plan: {
    ...bare.plan,
    walls: [{ id: 'w', name: 'Wall', foot: [seen(3, 5, 0), seen(5, 15, 0)], height: 6, ...PLAIN_SURFACE }],
  },
};

describe('lettering', () => {
  it('stands its strokes on the line, each a piece of its own', () => {
    const { path, breaks } = letteringAcross(bare, 'HI', { u: 0.2, v: 0.5 }, { u: 0.6, v: 0.5 })!;
    const pieces = tubePieces({ path, breaks });
    // An H is three strokes, an I one.
    expect(pieces).toHaveLength(4);
    const foot = Math.max(...path.map(({ v }) => v));
    expect(foot).toBeCloseTo(0.5, 6);
    expect(Math.min(...path.map(({ u }) => u))).toBeGreaterThanOrEqual(0.2);
    expect(Math.max(...path.map(({ u }) => u))).toBeLessThanOrEqual(0.6);
    const [left, right] = pieces;
    expect(left[0].u).toBeCloseTo(left[1].u, 6);
    expect(right[0].u).toBeGreaterThan(left[0].u);
  });

  it('follows a wall, where letters farther off are smaller', () => {
    const { path, breaks } = letteringAcross(walled, 'III', seen(3.2, 6, 2), seen(4.6, 13, 2))!;
    const tall = tubePieces({ path, breaks }).map(([a, b]) => Math.abs(a.v - b.v));
    expect(tall[0]).toBeGreaterThan(1.4 * tall[2]);
  });

  it('says what it lacks, leaves it out, and refuses what a scene cannot hold', () => {
    expect(missingLetters('Bar Ж é Ж')).toEqual(['Ж', 'é']);
    const [a, b] = [
      { u: 0.2, v: 0.5 },
      { u: 0.6, v: 0.5 },
    ];
    expect(letteringAcross(bare, 'IЖ', a, b)).toEqual(letteringAcross(bare, 'I', a, b));
    expect(letteringAcross(bare, 'Ж', a, b)).toBeUndefined();
    expect(letteringAcross(bare, ' ', a, b)).toBeUndefined();
    expect(letteringAcross(bare, 'S'.repeat(MOST_POINTS), a, b)).toBeUndefined();
  });
});

describe('lights of a matte', () => {
  const [width, height] = [120, 80];
  const disc = {
    width,
    height,
    data: Uint8Array.from({ length: width * height }, (_, i) =>
      Math.hypot((i % width) - 60, Math.floor(i / width) - 40) < 25 ? 255 : 0,
    ),
  };
  const nothing = { width, height, data: new Uint8Array(width * height) };

  it('run along the largest outline, closed', () => {
    const speckled = { ...disc, data: disc.data.slice() };
    speckled.data[5 * width + 5] = 255;
    const path = outlineOf(speckled)!;
    expect(path[0]).toEqual(path.at(-1));
    for (const { u, v } of path)
      expect(Math.abs(Math.hypot(u * width - 60.5, v * height - 40.5) - 25)).toBeLessThan(1.2);
    expect(path.length).toBeGreaterThan(8);
    expect(outlineOf(nothing)).toBeUndefined();
  });

  it('are scattered inside, apart, the same for a seed', () => {
    const places = scatterIn(disc, 40, 3);
    expect(places.length).toBeGreaterThan(30);
    expect(scatterIn(disc, 40, 3)).toEqual(places);
    expect(scatterIn(disc, 40, 4)).not.toEqual(places);
    places.forEach(({ u, v }, i) => {
      expect(disc.data[Math.floor(v * height) * width + Math.floor(u * width)]).toBe(255);
      for (const other of places.slice(i + 1))
        expect(Math.hypot((u - other.u) * width, (v - other.v) * height)).toBeGreaterThan(3);
    });
    expect(scatterIn(nothing, 40, 3)).toEqual([]);
  });
});

describe('a grid of panes', () => {
  const square = [
    { u: 0, v: 0 },
    { u: 1, v: 0 },
    { u: 1, v: 1 },
    { u: 0, v: 1 },
  ];

  it('fills its corners evenly, and in perspective where they are seen so', () => {
    expect(paneGrid(square, 2, 1, 0.5)[1]).toEqual([
      { u: 0.625, v: 0.25 },
      { u: 0.875, v: 0.25 },
      { u: 0.875, v: 0.75 },
      { u: 0.625, v: 0.75 },
    ]);
    // A wall from five to fifteen metres: cells of equal breadth in the world.
    const corners = [seen(3, 5, 4), seen(3, 15, 4), seen(3, 15, 1), seen(3, 5, 1)];
    paneGrid(corners, 5, 1, 0).forEach(([topLeft], k) => {
      const expected = seen(3, 5 + 2 * k, 4);
      expect(topLeft.u).toBeCloseTo(expected.u, 6);
      expect(topLeft.v).toBeCloseTo(expected.v, 6);
    });
    const none = paneGrid([square[0], square[0], square[0], square[0]], 2, 2, 0.2);
    expect(none.flat().every(({ u, v }) => Number.isFinite(u) && Number.isFinite(v))).toBe(true);
  });

  it('shares the light of the pane, on one bulb', () => {
    const pane = streetLamp('front', 0.5, { kind: 'pane', path: square, lumens: 600 });
    const scene = streetScene([pane]);
    const parts = gridOf(scene, pane, 3, 2, 0.3);
    const { fixtures } = runCommand(scene, splitFixture('grid', 'front', 'b', parts)).scene;
    expect(fixtures.map(({ lumens, bulb }) => [lumens, bulb])).toEqual(Array(6).fill([100, 'b']));
    expect(new Set(fixtures.map(({ id }) => id)).size).toBe(6);
  });
});

describe('several fixtures at once', () => {
  const scene: Scene = {
    ...streetScene([streetLamp('a', 0.2), streetLamp('b', 0.4), streetLamp('c', 0.6, { circuit: 'other' })]),
    circuits: [testCircuit('street'), testCircuit('other'), testCircuit('third')],
  };
  const after = (command: Parameters<typeof runCommand>[1]) => runCommand(scene, command).scene;

  it('are moved, set and taken away together, and nothing else is', () => {
    const moved = after(moveFixtures(['a', 'b'], { u: 0.1, v: -0.05 })).fixtures;
    expect(moved[0].at).toEqual({ u: expect.closeTo(0.3, 9) as number, v: expect.closeTo(0.3, 9) as number });
    expect(moved[0].foot).toEqual({ u: expect.closeTo(0.3, 9) as number, v: 0.75 });
    expect(moved[2]).toEqual(scene.fixtures[2]);
    expect(after(moveFixtures(['a'], { u: 0.1, v: 0 }, true)).fixtures[0].foot).toEqual(
      scene.fixtures[0].foot,
    );
    expect(after(setFixtures('halo', ['a', 'c'], { halo: 2 })).fixtures.map(({ halo }) => halo)).toEqual([
      2, 1, 2,
    ]);
    const left = after(removeFixtures(['a', 'b']));
    expect(left.fixtures.map(({ id }) => id)).toEqual(['c']);
    expect(left.circuits.map(({ id }) => id)).toEqual(['other']);
  });

  it('order circuits, held on the desk', () => {
    const order = (id: string, to: number) => after(moveCircuit(id, to)).circuits.map((c) => c.id);
    expect(order('third', 0)).toEqual(['third', 'street', 'other']);
    expect(order('street', 99)).toEqual(['other', 'third', 'street']);
    expect(order('street', -1)).toEqual(['street', 'other', 'third']);
    expect(order('none', 0)).toEqual(['street', 'other', 'third']);
  });
});

describe('copies between scenes', () => {
  const matte = {
    ...{ id: 'm', name: 'M', passes: [], refine: 0, grow: 0, feather: 0, invert: false },
  };
  const lamps = [
    streetLamp('a', 0.3, { bulb: 'x', behind: 'm' }),
    streetLamp('b', 0.5, { bulb: 'x', only: { matte: 'm', outside: true } }),
  ];
  const from: Scene = { ...streetScene(lamps), mattes: [matte] };
  const copied = copyOf(from, ['a', 'b']);
  const pasted = (scene: Scene) => {
    const { fixtures, circuits, differs } = pasteInto(scene, copied);
    return {
      scene: parseScene(runCommand(scene, pasteFixtures(fixtures, circuits)).scene),
      fixtures,
      differs,
    };
  };

  it('stand aside of the originals in the same scene, on the same circuit, with a bulb of their own', () => {
    const { scene, fixtures, differs } = pasted(from);
    expect(differs).toBe(false);
    expect(scene.fixtures).toHaveLength(4);
    expect(scene.circuits).toHaveLength(1);
    expect(fixtures[0].at.u).toBeCloseTo(0.32, 9);
    expect(fixtures[0].bulb).toBe(fixtures[1].bulb);
    expect(fixtures[0].bulb).not.toBe('x');
    expect([fixtures[0].behind, fixtures[1].only?.matte]).toEqual(['m', 'm']);
  });

  it('hang as high and are as large by another ground plan, and let go of mattes that it lacks', () => {
    const other: Scene = {
      ...bare,
      plan: { ...bare.plan, horizon: { left: 0.42, right: 0.44 }, lens: 50, eyeHeight: 2.4 },
    };
    const { scene, fixtures, differs } = pasted(other);
    expect(differs).toBe(true);
    expect(scene.circuits).toHaveLength(1);
    fixtures.forEach((fixture, i) => {
      const there = placeFixture(cameraOf(from), lamps[i]);
      const here = placeFixture(cameraOf(other), fixture);
      expect(here.place[2]).toBeCloseTo(there.place[2], 4);
      expect(here.radius).toBeCloseTo(there.radius, 4);
      expect([fixture.behind, fixture.only]).toEqual([undefined, undefined]);
    });
  });

  it('never make a scene hold more than it can', () => {
    const full = streetScene(Array.from({ length: MOST_FIXTURES - 1 }, (_, k) => streetLamp(`l${k}`, 0.5)));
    expect(pasteInto(full, copied).fixtures).toHaveLength(1);
  });
});
