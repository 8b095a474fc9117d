import { expect, it } from 'vitest';
import { brightSpots } from './bright-spots';

const [WIDTH, HEIGHT] = [40, 20];
const plane = (spots: [x: number, y: number, light: number][]) => {
  const data = new Float32Array(WIDTH * HEIGHT).fill(0.1);
  for (const [x, y, light] of spots) data[y * WIDTH + x] = light;
  return { width: WIDTH, height: HEIGHT, data };
};
const everywhere = new Float32Array(WIDTH * HEIGHT).fill(1);

it('finds the brightest places under a stroke, apart from one another', () => {
  const light = plane([
    [5, 5, 0.9],
    [6, 5, 0.8],
    [30, 10, 0.7],
    [20, 15, 0.2],
  ]);
  expect(brightSpots(light, everywhere, 4)).toEqual([
    { x: 5, y: 5 },
    { x: 30, y: 10 },
  ]);
  const left = everywhere.map((_, i) => (i % WIDTH < 20 ? 1 : 0));
  expect(brightSpots(light, left, 4)).toEqual([{ x: 5, y: 5 }]);
});

it('finds nothing where all is alike, dark, or not under the stroke', () => {
  expect(brightSpots(plane([]), everywhere, 4)).toEqual([]);
  const flat = { width: WIDTH, height: HEIGHT, data: everywhere.slice().fill(0.8) };
  expect(brightSpots(flat, everywhere, 4)).toEqual([]);
  expect(
    brightSpots(
      plane([[5, 5, 1]]),
      everywhere.map(() => 0),
      4,
    ),
  ).toEqual([]);
});
