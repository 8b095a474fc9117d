import { expect, it } from 'vitest';
import { OUTPUT_FORMATS, outputSize } from './output-formats';

it('makes the longer side as long as is said, and never longer than it is', () => {
  expect(outputSize({ width: 6000, height: 4000 }, 1500)).toEqual({ width: 1500, height: 1000 });
  expect(outputSize({ width: 4000, height: 6000 }, 1500)).toEqual({ width: 1000, height: 1500 });
  expect(outputSize({ width: 600, height: 400 }, 1500)).toEqual({ width: 600, height: 400 });
  expect(outputSize({ width: 600, height: 400 })).toEqual({ width: 600, height: 400 });
  expect(outputSize({ width: 9000, height: 3 }, 16)).toEqual({ width: 16, height: 1 });
});

it('has a label of its own for each format', () => {
  const labels = Object.values(OUTPUT_FORMATS).map(({ label }) => label);
  expect(new Set(labels).size).toBe(labels.length);
});
