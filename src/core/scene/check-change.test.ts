import fc from 'fast-check';
import { expect, it } from 'vitest';
import { streetLamp, streetScene } from '../../../test/street';
import { half } from '../../../test/spy-renderer';
import { checkedChange } from './check-change';
import { PatchError, patchScene } from './command';
import { checkedScene } from './parse-scene';
import type { Scene } from './schema';

const SCENE: Scene = {
  ...streetScene([streetLamp('one', 0.3), streetLamp('two', 0.6)]),
  mattes: [half, { ...half, id: 'other' }],
  places: [{ matte: 'half', outside: false, stops: -1 }],
};

const fault = (check: () => unknown): string | undefined => {
  try {
    check();
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
};

const path = fc.constantFrom<(string | number)[]>(
  ...[['title'], ['desk', 'ambient'], ['desk'], ['night', 'exposure'], ['night', 'shape', 'points', 0, 'x']],
  ...[['fixtures', 0], ['fixtures', 1, 'id'], ['fixtures', 0, 'circuit'], ['fixtures', 2], ['fixtures']],
  ...[['mattes', 0, 'id'], ['mattes', 1], ['mattes'], ['places', 0, 'matte'], ['places', 0, 'stops']],
  ...[
    ['plan', 'walls'],
    ['plan'],
    ['circuits', 0],
    ['circuits', 0, 'grip'],
    ['extra'],
    ['version'],
    ['format'],
  ],
);

const value = fc.oneof(
  fc.constantFrom<unknown>(SCENE.fixtures[0], { ...SCENE.fixtures[0], id: 'three' }, half, SCENE.desk),
  fc.constantFrom<unknown>('one', 'half', 'gone', 'street', 0, 1, -3, 99, null, [], {}, 'x'.repeat(200)),
  fc.jsonValue({ maxDepth: 2 }),
);

const patch = fc.record({
  op: fc.constantFrom('replace' as const, 'add' as const, 'remove' as const),
  path,
  value,
});

it('judges a change as a check of the whole scene does, whatever was patched', () => {
  let sound = 0;
  fc.assert(
    fc.property(fc.array(patch, { minLength: 1, maxLength: 3 }), (patches) => {
      let changed: Scene;
      try {
        changed = patchScene(SCENE, patches);
      } catch (error) {
        expect(error).toBeInstanceOf(PatchError);
        return;
      }
      const [whole, part] = [fault(() => checkedScene(changed)), fault(() => checkedChange(changed, SCENE))];
      expect(part === undefined).toBe(whole === undefined);
      if (whole === undefined) sound++;
    }),
    { numRuns: 1500 },
  );
  expect(sound).toBeGreaterThan(20);
});

it('does not look at what did not change', () => {
  const changed = patchScene(SCENE, [{ op: 'replace', path: ['desk', 'ambient'], value: -2 }]);
  const fixtures = [{ ...SCENE.fixtures[0], id: 7 as unknown as string }];
  const before = { ...SCENE, fixtures };
  expect(checkedChange({ ...changed, fixtures }, before).desk.ambient).toBe(-2);
  expect(() => checkedChange({ ...changed, fixtures: [...fixtures, fixtures[0]] }, SCENE)).toThrow(
    'fixtures[0].id',
  );
});
