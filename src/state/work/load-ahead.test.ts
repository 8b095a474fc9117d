import { expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import { createLoadAhead } from './load-ahead';

const never = new AbortController().signal;
const [FINE, COARSE] = [wholeRegion(900, 600), wholeRegion(300, 200)];

/** A loader that notes what it is asked for, and fails as often as it is told to. */
function loader(failing = 0) {
  const asked: string[] = [];
  const { begin, codes } = createLoadAhead((asset, { width }) => {
    asked.push(`${asset} ${width}`);
    return asked.length <= failing
      ? Promise.reject(new Error('gone'))
      : Promise.resolve(Uint16Array.of(width));
  });
  return { asked, begin, codes };
}

it('loads the first picture once, ahead of its turn, and all else when it is asked for', async () => {
  const { asked, begin, codes } = loader();
  begin('plate', FINE, never);
  begin('plate', COARSE, never);
  expect(asked).toEqual(['plate 900']);
  expect(await codes('plate', COARSE, never)).toEqual(Uint16Array.of(300));
  expect(await codes('plate', FINE, never)).toEqual(Uint16Array.of(900));
  expect(asked).toEqual(['plate 900', 'plate 300']);
  // The memory may have let it go since.
  await codes('plate', FINE, never);
  await codes('sky', FINE, never);
  expect(asked).toEqual(['plate 900', 'plate 300', 'plate 900', 'sky 900']);
});

it('asks again for what did not come', async () => {
  const { asked, begin, codes } = loader(1);
  begin('plate', FINE, never);
  expect(await codes('plate', FINE, never)).toEqual(Uint16Array.of(900));
  expect(asked).toHaveLength(2);
});
