import { describe, expect, it } from 'vitest';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import { COORDINATE } from '@/core/fields/fields';
import { changeFault } from '@/core/scene/check-change';
import { cameraOf } from '@/core/picture/camera-of';
import { project } from '@/core/geometry/camera';
import { placeFixture } from '@/core/fixture/place-fixture';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { Scene } from '@/core/scene/schema';
import { streetScene, testCircuit } from '../../../test/street';
import {
  hungValues,
  middleOfPath,
  newFixture,
  withUsualPower,
  paneAcross,
  tubeAlong,
} from './fixture-actions';

const bare = streetScene([]);
const seen = (x: number, y: number, z: number) => project(cameraOf(bare), [x, y, z])!;
/** A wall right across, eight metres ahead. */
const walled: Scene = {
  ...bare,
  plan: {
    ...bare.plan,
    walls: [{ id: 'w', name: 'Wall', foot: [seen(-6, 8, 0), seen(6, 8, 0)], height: 5, ...PLAIN_SURFACE }],
  },
};
const circuit = testCircuit('street');

describe('newFixture', () => {
  it('hangs a lamp on its usual height, but before a wall that is seen there', () => {
    const at = seen(1, 8, 3);
    const free = placeFixture(cameraOf(bare), newFixture(bare, 'globe', at, [], circuit)).place;
    const before = placeFixture(cameraOf(walled), newFixture(walled, 'globe', at, [], circuit)).place;
    expect(free[2]).toBeCloseTo(3.4, 1);
    expect(free[1]).toBeGreaterThan(8);
    expect(before[1]).toBeCloseTo(7.55, 1);
  });

  it('stands a lamp no farther out than a scene holds it, just under an eye as high as it', () => {
    const high = { ...bare, plan: { ...bare.plan, eyeHeight: 3.5, lens: 85 } };
    const lamp = newFixture(high, 'globe', { u: 0.5, v: 0.9 }, [], circuit);
    expect(lamp.foot.v).toBe(COORDINATE.max);
    expect(changeFault({ ...bare, circuits: [circuit], fixtures: [lamp] }, bare)).toBeUndefined();
  });

  it('gives a low lamp less power than a high one, so that both light the ground about alike', () => {
    const hung = (height: number) =>
      hungValues(bare, 'globe', { at: seen(0.5, 7, height), foot: seen(0.5, 7, 0) });
    expect(hung(3.4)).toMatchObject({ foot: seen(0.5, 7, 0), lumens: 2000 });
    expect(hung(1.7).lumens).toBe(500);
    expect(hung(0.4).lumens).toBe(400);
    expect(hung(9).lumens).toBe(4000);
    expect(hungValues(bare, 'globe', { at: seen(0, 7, 3), foot: seen(0, 7, 0), radius: 9 }).size).toBe(0.3);
  });

  it('stands what is drawn under the wall, and carries on the gel of its own kind only', () => {
    const path = paneAcross(walled, seen(-1, 8, 3), seen(1, 8, 1.5));
    const pane = newFixture(walled, 'pane', middleOfPath(path), path, circuit);
    expect(pane.foot.v).toBeCloseTo(seen(0, 8, 0).v, 3);
    const warm = { ...pane, gel: { ...pane.gel, kelvin: 1900 } };
    const next = { ...walled, circuits: [circuit], fixtures: [warm] };
    expect(newFixture(next, 'pane', pane.at, path, circuit).gel.kelvin).toBe(1900);
    expect(newFixture(next, 'tube', pane.at, path, circuit).gel.kelvin).toBe(2200);
    expect(newFixture(next, 'pane', pane.at, path, circuit).name).toBe('street pane 2');
  });
});

describe('withUsualPower', () => {
  it('has a window of any size shine as one of a lived-in room, and leaves lamps alone', () => {
    const pane = (breadth: number) => {
      const path = paneAcross(walled, seen(-breadth / 2, 8, 3), seen(breadth / 2, 8, 1.5));
      return withUsualPower(walled, newFixture(walled, 'pane', middleOfPath(path), path, circuit));
    };
    expect(Math.abs(pane(1).lumens - 100 * Math.PI * 1.5)).toBeLessThanOrEqual(25);
    expect(pane(2).lumens / pane(1).lumens).toBeCloseTo(2, 0);
    expect(pane(0.02).lumens).toBe(50);
    const globe = newFixture(walled, 'globe', seen(0, 8, 3), [], circuit);
    expect(withUsualPower(walled, globe)).toBe(globe);
  });
});

describe('tubeAlong', () => {
  const stroke = Array.from({ length: 5000 }, (_, i) => [i / 5000, 0.5 + 0.02 * ((i * 7919) % 11), 1]).flat();

  it('keeps a stroke within what a scene holds, and its ends when it shall be straight', () => {
    expect(tubeAlong(stroke, false).length).toBeLessThanOrEqual(MOST_POINTS);
    expect(tubeAlong(stroke, true)).toEqual([
      { u: 0, v: 0.5 },
      { u: stroke.at(-3), v: stroke.at(-2) },
    ]);
    expect(tubeAlong([0.5, 0.5, 1], false)).toEqual([]);
  });
});
