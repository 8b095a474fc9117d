import { ValidationError } from 'yup';
import { expect, it } from 'vitest';
import { saveRequest } from '@/server/http/requests';
import { builtScene } from '../../../test/built-scene';
import { mutatedValue } from '../../../test/hard/mutate';
import { createRandom } from '../../../test/hard/random';
import { runCommand } from './command';
import { setNight } from './commands';
import { parseScene, SceneFormatError } from './parse-scene';
import { SCENE_VERSION, type Scene } from './schema';

const SCENE: Scene = {
  ...builtScene(),
  mattes: [
    {
      ...builtScene().mattes[0],
      passes: [
        ...builtScene().mattes[0].passes,
        {
          ...{ id: 'e', join: 'add', kind: 'edge' },
          strokes: [{ act: 'loop', path: [0.1, 0.2], size: 0.01 }],
        },
      ],
    },
  ],
};

/** How many mutants of a value are tried, each of it or of another mutant. */
const MUTANTS = 600;

/** What a check throws for mutants of a value that is sound; undefined for those that it takes. */
function faultsOf(sound: unknown, check: (value: unknown) => unknown): unknown[] {
  const random = createRandom(7);
  return Array.from({ length: MUTANTS }, (_, n) => {
    const once = mutatedValue(sound, random);
    const value = n % 3 === 0 ? mutatedValue(once, random) : once;
    try {
      check(JSON.parse(JSON.stringify(value) ?? 'null'));
      return undefined;
    } catch (error) {
      return error;
    }
  });
}

it('says of every part of a scene that is not what it should be that the scene is damaged, in whatever version', () => {
  for (const version of [1, 4, SCENE_VERSION]) {
    const faults = faultsOf({ ...SCENE, version }, parseScene).filter((fault) => fault !== undefined);
    expect(faults.find((fault) => !(fault instanceof SceneFormatError))).toBeUndefined();
    expect(faults.length).toBeGreaterThan(MUTANTS / 4);
  }
});

it('says of every part of a save that is not what it should be that the request is bad', () => {
  const { change } = runCommand(SCENE, setNight('Night', { exposure: -2, kelvin: 4000 }));
  const entry = { id: crypto.randomUUID(), kind: 'do', ...change };
  const sound = { version: SCENE_VERSION, base: 0, entries: [entry, { ...entry, id: crypto.randomUUID() }] };
  const faults = faultsOf(sound, (value) => saveRequest.validateSync(value, { strict: true }));
  expect(faults.find((fault) => fault !== undefined && !(fault instanceof ValidationError))).toBeUndefined();
});
