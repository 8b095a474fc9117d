import { expect, it } from 'vitest';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { runCommand } from './command';
import { cueOf } from './cues';
import { takeLighting } from './lighting-commands';
import { checkedScene } from './parse-scene';
import type { Scene } from './schema';

let count = 0;
const newId = () => `new-${count++}`;

const base = streetScene([streetLamp('here', 0.4, { circuit: 'own' })]);
const source: Scene = {
  ...base,
  title: 'Quay',
  fixtures: [],
  circuits: [
    testCircuit('a', { name: 'Lamps', level: -2, warmth: 30 }),
    testCircuit('b', { name: 'Windows' }),
  ],
  night: { ...base.night, exposure: -5, lut: { asset: 'f'.repeat(64), name: 'Elsewhere', strength: 1 } },
  lens: {
    ...base.lens,
    blades: 5,
    within: 'matte-there',
    points: [{ id: 'p', at: { u: 0.5, v: 0.5 }, stops: 1 }],
  },
  desk: { ...base.desk, master: -1 },
};
const cued = { ...source, cues: [cueOf(source, 'cue', 'Evening')] };
const target: Scene = { ...base, circuits: [testCircuit('own', { name: 'Lamps' })] };

it('takes what goes by no place, and leaves what refers to a file, a matte or a place', () => {
  const { scene } = runCommand(target, takeLighting(cued, newId));
  expect(checkedScene(scene)).toEqual(scene);
  expect(scene.fixtures).toEqual(target.fixtures);
  expect(scene.circuits.map(({ id, name, level }) => [id, name, level])).toEqual([
    ['own', 'Lamps', -2],
    [expect.stringMatching(/^new-/), 'Windows', 0],
  ]);
  expect(scene.cues[0].circuits.map(({ id }) => id)).toEqual(scene.circuits.map(({ id }) => id));
  expect([scene.desk.master, scene.night.exposure, scene.lens.blades]).toEqual([-1, -5, 5]);
  expect([scene.night.lut, scene.lens.points, scene.lens.within]).toEqual([null, [], undefined]);
});

it('adds nothing more when it is taken again', () => {
  const once = runCommand(target, takeLighting(cued, newId)).scene;
  const twice = runCommand(once, takeLighting(cued, newId)).scene;
  expect(twice).toEqual(once);
});

it('stays within what a scene holds', () => {
  const circuits = Array.from({ length: 100 }, (_, i) => testCircuit(`c${i}`, { name: `Circuit ${i}` }));
  const cues = Array.from({ length: 40 }, (_, i) => ({ ...cued.cues[0], id: `cue-${i}`, name: `Cue ${i}` }));
  const full: Scene = { ...target, circuits: [...target.circuits, ...circuits.slice(1)], cues };
  const { scene } = runCommand(full, takeLighting(cued, newId));
  expect([scene.circuits.length, scene.cues.length]).toEqual([100, 40]);
  expect(checkedScene(scene)).toEqual(scene);
});
