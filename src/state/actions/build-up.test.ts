import { expect, it } from 'vitest';
import { litLayerIds } from '../../../test/lit-layers';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { buildUpSays, builtUp } from './build-up';

const scene = {
  ...streetScene([streetLamp('1', 0.3, { circuit: 'a' }), streetLamp('2', 0.6, { circuit: 'b' })]),
  circuits: [testCircuit('a', { muted: true }), testCircuit('b', { solo: true })],
};

it('lights one circuit after another, whatever is muted or soloed', () => {
  expect([0, 1, 2, 9].map((count) => litLayerIds(builtUp(scene, count)))).toEqual([
    [],
    ['a'],
    ['a', 'b'],
    ['a', 'b'],
  ]);
  expect([0, 1, 2].map((count) => buildUpSays(scene, count))).toEqual([
    'No lamps',
    '+ a',
    '+ b: all of them',
  ]);
});
