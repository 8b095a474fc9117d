import fc from 'fast-check';
import { DataUtils } from 'three';
import { expect, it } from 'vitest';
import { writeHalves } from './half-floats';

const halfOf = (value: number) => {
  const out = new Uint16Array(1);
  writeHalves(out, 0, Float32Array.of(value), 0, 1);
  return out[0];
};

it('writes halves that another program reads as the nearest number', () => {
  fc.assert(
    fc.property(fc.float({ min: -60000, max: 60000, noNaN: true }), (value) => {
      const read = DataUtils.fromHalfFloat(halfOf(value));
      expect(Math.abs(read - value)).toBeLessThanOrEqual(
        Math.max(2 ** -24, Math.abs(value) * 2 ** -11) * 1.001,
      );
    }),
  );
});

it('holds to the largest half, and takes what is no number for 0', () => {
  expect(DataUtils.fromHalfFloat(halfOf(1e9))).toBe(65504);
  expect(DataUtils.fromHalfFloat(halfOf(-Infinity))).toBe(-65504);
  expect(DataUtils.fromHalfFloat(halfOf(65520))).toBe(65504);
  expect(halfOf(NaN)).toBe(0);
  expect(DataUtils.fromHalfFloat(halfOf(1))).toBe(1);
});
