import fc from 'fast-check';
import { expect, it } from 'vitest';
import { previewSize, surveySize } from './sizes';

const plate = fc.record({
  width: fc.integer({ min: 64, max: 20000 }),
  height: fc.integer({ min: 64, max: 20000 }),
});

it('a preview is never larger than the plate nor than 1.75 megapixels, and keeps its shape', () => {
  fc.assert(
    fc.property(plate, fc.integer({ min: 1, max: 8000 }), (size, view) => {
      const { width, height } = previewSize(size, view);
      expect(width).toBeLessThanOrEqual(size.width);
      expect(width * height).toBeLessThan(1.8e6);
      expect(Math.min(width, height)).toBeGreaterThanOrEqual(1);
      if (Math.min(width, height) > 100)
        expect(width / height / (size.width / size.height)).toBeCloseTo(1, 1);
    }),
  );
});

it('a plate of 3 : 2 is surveyed at 400 pixels across', () => {
  expect(surveySize({ width: 1800, height: 1200 })).toEqual({ width: 400, height: 267 });
  expect(surveySize({ width: 64, height: 5000 }).height).toBeLessThanOrEqual(800);
});
