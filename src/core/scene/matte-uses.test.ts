import { describe, expect, it } from 'vitest';
import { PLAIN_FINISH } from './new-scene';
import { streetLamp, streetScene } from '../../../test/street';
import { runCommand } from './command';
import { addStroke, removeMatte } from './matte-commands';
import { parseScene } from './parse-scene';
import type { Matte, Scene } from './schema';
import type { PaintStroke, Pass } from '../matte/pass';
import { usesOf } from './matte-uses';

const matte = (id: string, name: string, passes: Pass[]): Matte => ({
  id,
  name,
  passes,
  refine: 0,
  grow: 0,
  feather: 0,
  invert: false,
});
const sky: Pass = { id: 's', join: 'add', kind: 'sky' };

/** One matte, used in every way there is. */
const scene: Scene = {
  ...streetScene([
    streetLamp('First', 0.3, { behind: 'm' }),
    streetLamp('Second', 0.6, { only: { matte: 'm', outside: true } }),
    streetLamp('Third', 0.8),
  ]),
  mattes: [
    matte('m', 'Crowd', [sky]),
    matte('n', 'Rest', [
      { ...sky, id: 't' },
      { id: 'o', join: 'subtract', kind: 'matte', matte: 'm' },
    ]),
  ],
  places: [{ matte: 'm', outside: true, stops: -1 }],
};
scene.plan = {
  ...scene.plan,
  ground: { ...scene.plan.ground, wet: 'm' },
  standees: [
    {
      id: 'st',
      name: 'Crowd',
      matte: 'm',
      foot: { u: 0.5, v: 0.9 },
      roundness: 0,
      crease: 0,
      ...PLAIN_FINISH,
    },
  ],
};

describe('usesOf', () => {
  it('names every use of a matte, and none of one that is not used', () => {
    expect(usesOf(parseScene(structuredClone(scene)), 'm')).toEqual([
      'the night’s light outside',
      'First, behind it',
      'Second’s spill',
      'where the ground shines',
      'the standee Crowd',
      'the matte Rest',
    ]);
    expect(usesOf(scene, 'n')).toEqual([]);
  });
});

describe('removeMatte', () => {
  it('takes a matte away wherever it is used, and nothing else', () => {
    const { scene: left } = runCommand(scene, removeMatte('m'));
    expect(usesOf(left, 'm')).toEqual([]);
    expect(left.mattes).toEqual([matte('n', 'Rest', [{ ...sky, id: 't' }])]);
    expect(left.fixtures).toHaveLength(3);
    expect(left.fixtures[2]).toEqual(scene.fixtures[2]);
    expect(parseScene(structuredClone(left))).toEqual(left);
  });
});

describe('addStroke', () => {
  it('adds to a pass without writing the earlier strokes anew', () => {
    const stroke: PaintStroke = {
      path: [0.1, 0.2, 1],
      size: 0.1,
      soft: 0,
      flow: 1,
      strength: 1,
      erase: false,
      pressure: 'none',
    };
    const paint: Pass = { id: 'p', join: 'add', kind: 'paint', strokes: [stroke, stroke] };
    const painted = { ...scene, mattes: [matte('m', 'Crowd', [paint])], places: [] };
    const { scene: next, change } = runCommand(painted, addStroke('Paint', 'm', 'p', stroke));
    expect((next.mattes[0].passes[0] as typeof paint).strokes).toHaveLength(3);
    expect(change.patches).toEqual([
      { op: 'add', path: ['mattes', 0, 'passes', 0, 'strokes', 2], value: stroke },
    ]);
    expect(JSON.stringify(change.inverse).length).toBeLessThan(200);
  });
});
