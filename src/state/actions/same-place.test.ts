import { expect, it } from 'vitest';
import type { Homography } from '@/core/geometry/place-map';
import type { Matte } from '@/core/scene/schema';
import { streetLamp, streetScene } from '../../../test/street';
import { OtherPlaceError, sceneOfSamePlace } from './same-place';

const FLAT: Homography = [1, 0, 0.1, 0, 1, 0, 0, 0, 1];
const HASH = 'c'.repeat(64);

const edge = { id: 'e', kind: 'edge', join: 'add', asset: 'a'.repeat(64) } as const;
const stroke = { act: 'take', path: [0.3, 0.4, 0.35, 0.4], size: 0.02 } as const;
const matte = {
  ...{ id: 'm', name: 'Post', refine: 0, grow: 0, feather: 0, invert: false },
  passes: [{ ...edge, strokes: [{ ...stroke, path: [...stroke.path] }] }],
} as Matte;
const other = { ...streetScene([streetLamp('Lamp', 0.3)]), mattes: [matte] };

it('moves everything, and looks for what edge brushes found again', async () => {
  const asked: unknown[] = [];
  const moved = await sceneOfSamePlace('other', other, {
    samePlace: (id, plate) => {
      asked.push([id, plate]);
      return Promise.resolve({ flat: FLAT, known: [] });
    },
    brush: (before, strokes) => {
      asked.push([before, strokes[0].path[0]]);
      return Promise.resolve(HASH);
    },
  });
  expect(asked).toEqual([
    ['other', other.plate],
    [undefined, expect.closeTo(0.4, 9)],
  ]);
  expect(moved.fixtures[0].at.u).toBeCloseTo(0.4, 9);
  expect(moved.mattes[0].passes[0]).toMatchObject({ kind: 'edge', asset: HASH });
});

it('says that it is another place where too little is alike', async () => {
  const finder = {
    samePlace: () => Promise.resolve(undefined),
    brush: () => Promise.reject(new Error('no')),
  };
  await expect(sceneOfSamePlace('other', other, finder)).rejects.toThrow(OtherPlaceError);
});
