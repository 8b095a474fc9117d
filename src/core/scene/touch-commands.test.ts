import { describe, expect, it } from 'vitest';
import { plainCircuit } from './new-scene';
import { checkedScene } from './parse-scene';
import { removeMatte } from './matte-commands';
import { removeFixtures } from './many-commands';
import type { Scene, Touch } from './schema';
import {
  addTouch,
  layStroke,
  moveTouch,
  partStroke,
  removeStroke,
  removeTouch,
  setStroke,
  setTouch,
} from './touch-commands';
import { after, half } from '../../../test/spy-renderer';
import { streetLamp, streetScene } from '../../../test/street';
import { testStroke, testTouch } from '../../../test/touches';

const SCENE: Scene = { ...streetScene([streetLamp('lamp', 0.5)]), mattes: [half] };
const WITH = after(SCENE, addTouch(testTouch('t'), SCENE.circuits[0]));

describe('touches of a scene', () => {
  it('are added with their circuit, and both go together', () => {
    const circuit = plainCircuit('own', 'By hand');
    const added = after(SCENE, addTouch(testTouch('t', { circuit: 'own' }), circuit));
    expect(checkedScene(added).circuits.map(({ id }) => id)).toEqual(['street', 'own']);
    expect(after(added, removeTouch('t')).circuits.map(({ id }) => id)).toEqual(['street']);
    const moved = after(added, moveTouch('t', SCENE.circuits[0]));
    expect(moved.circuits.map(({ id }) => id)).toEqual(['street']);
    expect(moved.touches[0].circuit).toBe('street');
  });

  it('keep the circuit that their lamps leave', () => {
    const left = after(WITH, removeFixtures(['lamp']));
    expect(checkedScene(left).circuits.map(({ id }) => id)).toEqual(['street']);
  });

  it('let go of a matte and of a fixture that are removed', () => {
    const held = after(
      WITH,
      setTouch('Held', 't', { only: { matte: 'half', outside: false }, toward: 'lamp' }),
    );
    const gone = after(after(held, removeMatte('half')), removeFixtures(['lamp']));
    expect(checkedScene(gone).touches[0]).not.toHaveProperty('only');
    expect(gone.touches[0]).not.toHaveProperty('toward');
  });

  it('hold strokes that are laid on, weakened, set apart and removed', () => {
    const two = after(WITH, layStroke('t', testStroke({ flow: 0.5 })));
    expect(after(two, setStroke('t', 1, 0.3)).touches[0].strokes[1].strength).toBe(0.3);
    expect(after(two, removeStroke('t', 0)).touches[0].strokes).toEqual([testStroke({ flow: 0.5 })]);
    const apart = after(two, partStroke('t', 0, { id: 'own', name: 'Own' }));
    expect(apart.touches.map(({ id, strokes }) => [id, strokes.length])).toEqual([
      ['t', 1],
      ['own', 1],
    ]);
    expect(apart.touches[1]).toMatchObject({ circuit: 'street', strokes: [testStroke()] });
  });

  it.each<[string, Partial<Touch>]>([
    ['on no circuit', { circuit: 'nowhere' }],
    ['toward no fixture', { toward: 'nobody' }],
    ['in no matte', { only: { matte: 'none', outside: false } }],
    ['an amount out of range', { amount: 1e6 }],
    ['a lift by lux', { does: 'lift', circuit: undefined, amount: 30 }],
    ['a stroke of two numbers', { strokes: [testStroke({ path: [0.1, 0.2] })] }],
    ['a stroke of 100,000 places', { strokes: [testStroke({ path: Array<number>(300_000).fill(0.5) })] }],
  ])('are refused with %s', (_, more) => {
    expect(() => checkedScene({ ...SCENE, touches: [testTouch('t', more)] })).toThrow(/damaged/);
  });

  it('may lie outside of the picture, with no pressure at all', () => {
    const strokes = [testStroke({ path: [-2, 3, 0, 3, -2, 0] })];
    expect(checkedScene({ ...SCENE, touches: [testTouch('t', { strokes })] }).touches).toHaveLength(1);
  });
});
