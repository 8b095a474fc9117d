import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wholeRegion } from '../plane/region';
import {
  fitFrame,
  frameFromPlate,
  framedSize,
  isWholeFrame,
  levelAngle,
  plateFromFrame,
  WHOLE_FRAME,
  withRatio,
  type Frame,
} from './frame';
import { framedRegion } from './framed-region';
import { straightenRows } from './straighten';

const ASPECT = 1.5;
const WHOLE_PART = { left: 0, top: 0, width: 1, height: 1 };
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const frames: fc.Arbitrary<Frame> = fc.record({
  u: number(0, 1),
  v: number(0, 1),
  width: number(0.1, 1),
  height: number(0.1, 1),
  angle: number(-45, 45),
});

describe('frame', () => {
  it('carries places to the plate and back', () => {
    fc.assert(
      fc.property(frames, number(-1, 2), number(-1, 2), (frame, u, v) => {
        const back = frameFromPlate(frame, ASPECT, plateFromFrame(frame, ASPECT, { u, v }));
        expect(back.u).toBeCloseTo(u, 9);
        expect(back.v).toBeCloseTo(v, 9);
      }),
    );
  });

  it('lies within the plate once it is fitted, with its ratio and its angle', () => {
    fc.assert(
      fc.property(frames, (frame) => {
        const fitted = fitFrame(frame, ASPECT);
        for (const corner of [0, 1].flatMap((u) => [0, 1].map((v) => ({ u, v })))) {
          const { u, v } = plateFromFrame(fitted, ASPECT, corner);
          for (const place of [u, v]) {
            expect(place).toBeGreaterThan(-1e-9);
            expect(place).toBeLessThan(1 + 1e-9);
          }
        }
        expect(fitted.width / fitted.height).toBeCloseTo(frame.width / frame.height, 9);
        expect(fitted.angle).toBe(frame.angle);
        expect(fitFrame(fitted, ASPECT).width).toBeCloseTo(fitted.width, 9);
      }),
    );
  });

  it('takes a ratio within what it had', () => {
    expect(withRatio(WHOLE_FRAME, 1, ASPECT)).toMatchObject({ width: 2 / 3, height: 1 });
    expect(withRatio(WHOLE_FRAME, 3, ASPECT)).toMatchObject({ width: 1, height: 0.5 });
    expect(isWholeFrame(WHOLE_FRAME)).toBe(true);
    expect(framedSize({ width: 300, height: 200 }, { width: 0.5, height: 0.001 })).toEqual({
      width: 150,
      height: 1,
    });
  });

  it('levels by what is level and by what is plumb', () => {
    expect(levelAngle({ u: 0, v: 0 }, { u: 1, v: 0.15 }, ASPECT)).toBeCloseTo(5.71, 2);
    expect(levelAngle({ u: 1, v: 0.15 }, { u: 0, v: 0 }, ASPECT)).toBeCloseTo(5.71, 2);
    expect(levelAngle({ u: 0.5, v: 0 }, { u: 0.4, v: 1.5 }, ASPECT)).toBeCloseTo(5.71, 2);
  });
});

describe('framedRegion', () => {
  it('is the plate for the whole frame, and cuts to the pixel without a turn', () => {
    const size = { width: 300, height: 200 };
    expect(framedRegion(WHOLE_FRAME, WHOLE_PART, size, ASPECT)).toEqual(wholeRegion(300, 200));
    const half = { ...WHOLE_FRAME, u: 0.25, width: 0.5 };
    expect(framedRegion(half, WHOLE_PART, size, ASPECT)).toMatchObject({ left: 0, width: 150, height: 200 });
  });
});

describe('straightenRows', () => {
  const size = { width: 60, height: 40 };
  /** A ramp that rises along the level of a plate that leans by an angle. */
  function leaning(angle: number): Uint8Array {
    const radians = (angle * Math.PI) / 180;
    return Uint8Array.from({ length: 3 * 60 * 40 }, (_, i) => {
      const [x, y] = [((i / 3) | 0) % 60, Math.floor(i / 180)];
      return 128 + 2 * ((x - 29.5) * Math.cos(radians) + (y - 19.5) * Math.sin(radians));
    });
  }

  it('is the same pixels for the whole frame', () => {
    const source = leaning(7);
    const out = new Uint8Array(source.length);
    straightenRows(out, source, wholeRegion(60, 40), WHOLE_FRAME, ASPECT, size, { from: 0, to: 40 });
    expect(out).toEqual(source);
  });

  it('stands a leaning ramp level', () => {
    const frame = fitFrame({ ...WHOLE_FRAME, angle: 10 }, ASPECT);
    const framed = framedSize(size, frame);
    const out = new Uint8Array(3 * framed.width * framed.height);
    const rows = { from: 0, to: framed.height };
    straightenRows(out, leaning(10), wholeRegion(60, 40), frame, ASPECT, framed, rows);
    const at = (x: number, y: number) => out[3 * (y * framed.width + x)];
    for (let x = 2; x < framed.width - 2; x++) {
      expect(Math.abs(at(x, 3) - at(x, framed.height - 4))).toBeLessThanOrEqual(2);
      expect(at(x, 3) - at(x - 1, 3)).toBeGreaterThanOrEqual(1);
    }
  });
});
