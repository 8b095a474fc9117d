import { describe, expect, it } from 'vitest';
import { RANGES } from '@/core/fields/ranges';
import type { Glint } from '@/core/lens/glint';
import { bringGlintsBack, resetLens, setGrain, setLens } from '@/core/scene/lens-commands';
import { runCommand, type Command } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { streetScene } from '../../../test/street';
import { addGlint, giveGlints, glintMarks, partGlint, strengthenGlints, takeGlints } from './lens-actions';

const OFF = RANGES.level.min;
const SCENE = streetScene([]);
const at = (u: number, from: Glint['from'] = 'fixture'): Glint => ({ u, v: 0.5, r: 1, g: 1, b: 1, from });
const run = (scene: Scene, command: Command) => runCommand(scene, command).scene;
const points = ({ lens }: Scene) => lens.points.map(({ at: { u }, stops }) => [u, stops]);

describe('what is said of sources', () => {
  it('takes spikes away and gives them again', () => {
    const marks = glintMarks(SCENE, [at(0.2), at(0.7)]);
    const taken = run(SCENE, takeGlints([marks[0]]));
    expect(points(taken)).toEqual([[0.2, OFF]]);
    const now = glintMarks(taken, [at(0.7)]);
    expect(now.map(({ isOn, at: { u } }) => [u, isOn])).toEqual([
      [0.7, true],
      [0.2, false],
    ]);
    expect(points(run(taken, giveGlints(now)))).toEqual([]);
    expect(points(run(taken, bringGlintsBack()))).toEqual([]);
  });

  it('takes many at once, as one change', () => {
    const taken = run(SCENE, takeGlints(glintMarks(SCENE, [at(0.1), at(0.4), at(0.9)])));
    expect(points(taken)).toEqual([
      [0.1, OFF],
      [0.4, OFF],
      [0.9, OFF],
    ]);
  });

  it('adds a source, and lets go of it when its spikes are taken away', () => {
    const added = run(SCENE, addGlint({ u: 0.5, v: 0.5 }));
    expect(points(added)).toEqual([[0.5, 0]]);
    const marks = glintMarks(added, [at(0.5, 'said')]);
    expect(points(run(added, takeGlints(marks)))).toEqual([]);
  });

  it('makes one stronger, and says so in one place however often', () => {
    let scene = SCENE;
    for (const stops of [1, 2])
      scene = run(scene, strengthenGlints([glintMarks(scene, [at(0.2)])[0]], stops));
    expect(points(scene)).toEqual([[0.2, 2]]);
    scene = run(scene, takeGlints(glintMarks(scene, [at(0.2)])));
    expect(points(scene)).toEqual([[0.2, OFF]]);
  });

  it('parts one in two, and moves one of the two', () => {
    const [mark] = glintMarks(SCENE, [at(0.2)]);
    const parted = run(SCENE, partGlint(mark, ['a', 'b'], { u: 0.207, v: 0.5 }));
    expect(points(parted)).toEqual([
      [0.2, 0],
      [0.207, 0],
    ]);
    const right = glintMarks(parted, [at(0.2), at(0.207)])[1];
    expect(points(run(parted, partGlint(right, ['c', 'd'], { u: 0.209, v: 0.5 })))).toEqual([
      [0.2, 0],
      [0.209, 0],
    ]);
  });

  it('is kept when the lens is reset', () => {
    const changed = [
      setLens('Turn', { turn: 40 }),
      setGrain('Grain', { iso: 800 }),
      addGlint({ u: 0.5, v: 0.5 }),
    ];
    const reset = run(changed.reduce(run, SCENE), resetLens());
    expect(reset.lens).toEqual({ ...SCENE.lens, points: reset.lens.points });
    expect(points(reset)).toEqual([[0.5, 0]]);
  });
});
