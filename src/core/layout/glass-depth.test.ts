import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import type { Plane } from '../plane/plane';
import { glassDepth, type FrameSide } from './glass-depth';

const SIZE = 60;

/** A view whose rows below row 10 go through tones of some depth each, with grain; upright bars cross them from `bars` down. */
function rowsOf(tones: readonly [depth: number, code: number][], bars = 0): Plane {
  const random = seeded(5);
  const ends = tones.map((_, k) => 10 + tones.slice(0, k + 1).reduce((sum, [depth]) => sum + depth, 0));
  const tone = (y: number) => (y < 10 ? 200 : (tones[ends.findIndex((end) => y < end)] ?? tones.at(-1)!)[1]);
  const data = Float32Array.from({ length: SIZE * SIZE }, (_, i) => {
    const [x, y] = [i % SIZE, Math.floor(i / SIZE)];
    // Each pixel is softened over its neighbours, like in a photo.
    const rows = Array.from({ length: 8 }, (_, k) => tone(y - 0.5 + (k + 0.5) / 4));
    const mean = rows.reduce((sum, value) => sum + value, 0) / rows.length;
    const isBar = bars > 0 && y > ends[bars - 1] && x % 14 < 3;
    return (isBar ? 220 : mean) + 2 * (random() - 0.5);
  });
  return { width: SIZE, height: SIZE, data };
}

/** The same with columns for rows. */
const turned = ({ data }: Plane): Plane => ({
  width: SIZE,
  height: SIZE,
  data: data.map((_, i) => data[(i % SIZE) * SIZE + Math.floor(i / SIZE)]),
});

/** Between pixels 9 and 10 the frame begins. */
const OUTER: FrameSide = { upright: false, inward: 1, from: 4, to: 56, ends: [9.5, 9.5] };
const depthOf = (view: Plane, side: Partial<FrameSide> = {}) => glassDepth(view, { ...OUTER, ...side }, 8);

describe('glassDepth', () => {
  it('is nothing where glass begins at the outer edge, whatever bars cross it', () => {
    expect(depthOf(rowsOf([[40, 40]]))).toBe(0);
    expect(depthOf(rowsOf([[40, 40]], 1))).toBe(0);
  });

  it.each([4, 5.5, 7])(
    'is that of a head in the shade, %f pixels deep, behind which bars cross the glass',
    (deep) => {
      const view = rowsOf(
        [
          [deep, 85],
          [40, 40],
        ],
        1,
      );
      expect(Math.abs(depthOf(view) - deep)).toBeLessThan(0.7);
      expect(Math.abs(depthOf(turned(view), { upright: true }) - deep)).toBeLessThan(0.7);
    },
  );

  it('goes no further for a bar along the side, nor for the shade of the frame on the glass', () => {
    const bar = rowsOf([
      [3, 230],
      [3, 45],
      [2, 220],
      [40, 45],
    ]);
    expect(Math.abs(depthOf(bar) - 3)).toBeLessThan(0.7);
    const shade = rowsOf([
      [3, 170],
      [3, 60],
      [40, 72],
    ]);
    expect(Math.abs(depthOf(shade) - 3)).toBeLessThan(0.7);
  });

  it('follows a side that is turned, from the other way too', () => {
    const view = rowsOf([
      [4, 90],
      [40, 40],
    ]);
    const sheared: Plane = {
      ...view,
      data: view.data.map((_, i) => {
        const [x, y] = [i % SIZE, Math.floor(i / SIZE)];
        return view.data[Math.min(SIZE - 1, Math.max(0, y - Math.round(x / 12))) * SIZE + x];
      }),
    };
    expect(Math.abs(depthOf(sheared, { ends: [9.5 + 4 / 12, 9.5 + 56 / 12] }) - 4)).toBeLessThan(0.8);
    const flipped: Plane = { ...view, data: view.data.toReversed() };
    expect(Math.abs(depthOf(flipped, { inward: -1, ends: [49.5, 49.5] }) - 4)).toBeLessThan(0.7);
  });

  it('is within reach and finite at the edges of the view', () => {
    const view = rowsOf([[20, 90]]);
    for (const at of [0, 1, SIZE - 1]) {
      for (const inward of [1, -1] as const) {
        const depth = depthOf(view, { inward, from: 0, to: SIZE, ends: [at, at] });
        expect(depth).toBeGreaterThanOrEqual(0);
        expect(depth).toBeLessThanOrEqual(8.5);
      }
    }
  });
});
