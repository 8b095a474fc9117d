import { describe, expect, it } from 'vitest';
import { boxAround, cutBox, grown, pasteBox } from './box';

const [WIDTH, HEIGHT] = [12, 9];
const plane = Float32Array.from({ length: WIDTH * HEIGHT }, (_, i) => i);

describe('a box', () => {
  it('holds all that counts and no row or column more', () => {
    const counted = new Set([3 * WIDTH + 2, 5 * WIDTH + 7]);
    expect(boxAround(WIDTH, HEIGHT, (i) => counted.has(i))).toEqual({ left: 2, top: 3, right: 8, bottom: 6 });
    expect(boxAround(WIDTH, HEIGHT, () => false)).toBeUndefined();
    expect(boxAround(WIDTH, HEIGHT, () => true)).toEqual({ left: 0, top: 0, right: WIDTH, bottom: HEIGHT });
  });

  it('grows no further than the picture', () => {
    const box = { left: 2, top: 3, right: 8, bottom: 6 };
    expect(grown(box, 1, WIDTH, HEIGHT)).toEqual({ left: 1, top: 2, right: 9, bottom: 7 });
    expect(grown(box, 99, WIDTH, HEIGHT)).toEqual({ left: 0, top: 0, right: WIDTH, bottom: HEIGHT });
  });

  it('is cut out and put back where it was, and touches nothing else', () => {
    const box = { left: 2, top: 3, right: 5, bottom: 5 };
    const part = cutBox(plane, WIDTH, box);
    expect([...part]).toEqual([38, 39, 40, 50, 51, 52]);
    const out = new Float32Array(plane.length);
    pasteBox(out, WIDTH, box, part);
    expect(out.filter((value) => value > 0)).toEqual(part);
    expect(out[3 * WIDTH + 2]).toBe(38);
  });
});
