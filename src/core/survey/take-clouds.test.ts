import { expect, it } from 'vitest';
import type { PlateFeatures } from './plate-features';
import { takeClouds } from './take-clouds';

const [width, height] = [40, 30];
const inBox = (left: number, top: number, right: number, bottom: number) => (x: number, y: number) =>
  x >= left && x < right && y >= top && y < bottom;

/** Blue sky down to row 20, land below; what is pale and warm, or dark, stands in it. */
function skyWith(
  isPale: (x: number, y: number) => boolean,
  isDark: (x: number, y: number) => boolean = () => false,
) {
  const plane = (value: (x: number, y: number) => number) =>
    Float32Array.from({ length: width * height }, (_, i) => value(i % width, Math.floor(i / width)));
  const tone = (pale: number, blue: number, land: number) =>
    plane((x, y) => (isPale(x, y) ? pale : isDark(x, y) || y >= 20 ? land : blue));
  const lightness = tone(0.92, 0.7, 0.4);
  const features: PlateFeatures = {
    ...{ width, height, lightness, softLightness: lightness },
    ...{ a: tone(0.002, -0.02, 0), b: tone(0.02, -0.06, 0.03), texture: plane(() => 0.01) },
    ...{ lift: 1, doubt: 0, oneHue: false },
  };
  const sky = Uint8Array.from(plane((x, y) => Number(y < 20 && !isPale(x, y) && !isDark(x, y))));
  const before = sky.slice();
  takeClouds(features, sky, Uint8Array.from(plane((_, y) => Number(y < 22))));
  return { sky, before, at: (x: number, y: number) => sky[y * width + x] };
}

it('takes clouds that the sun lights amid the sky, and at the upper edge', () => {
  expect(skyWith(inBox(10, 5, 22, 12)).at(15, 8)).toBe(1);
  expect(skyWith(inBox(10, 0, 30, 6)).at(20, 2)).toBe(1);
  expect(skyWith(inBox(0, 4, 9, 9)).at(3, 6)).toBe(1);
});

it('takes a cloud at whose side a mast stands, and none beside a tower', () => {
  const cloud = inBox(10, 5, 22, 12);
  expect(skyWith(cloud, inBox(22, 2, 23, 20)).at(15, 8)).toBe(1);
  expect(skyWith(cloud, inBox(22, 2, 30, 20)).at(15, 8)).toBe(0);
});

it('takes no pale house, no chimney on a roof and no gable at the upper edge', () => {
  for (const [pale, dark] of [
    [inBox(8, 12, 20, 24), undefined],
    [inBox(10, 14, 14, 18), inBox(6, 18, 30, 20)],
    [inBox(0, 0, 12, 14), inBox(12, 0, 16, 14)],
  ] as const) {
    const { sky, before } = skyWith(pale, dark);
    expect(sky).toEqual(before);
  }
});
