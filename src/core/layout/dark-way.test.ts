import { expect, it } from 'vitest';
import { darkWay } from './dark-way';

const WIDTH = 80;
const HEIGHT = 60;

/** A bright plate with a thin dark line across it, at a height that a function of x tells. */
const lined = (lineAt: (x: number) => number) => ({
  ...{ width: WIDTH, height: HEIGHT },
  data: Float32Array.from({ length: WIDTH * HEIGHT }, (_, i) =>
    Math.abs(Math.floor(i / WIDTH) - lineAt(i % WIDTH)) < 1 ? 0.1 : 0.8,
  ),
});
const drawn = [
  { u: 0.1, v: 0.5 },
  { u: 0.9, v: 0.5 },
];

it('goes to the dark line beside it, and follows its bends', () => {
  const lineAt = (x: number) => 32 + 2 * Math.sin(x / 12);
  const way = darkWay(lined(lineAt), drawn);
  for (const { u, v } of way.slice(2, -2))
    expect(Math.abs(v * HEIGHT - 0.5 - lineAt(u * WIDTH - 0.5))).toBeLessThan(1.6);
});

it('stays where no line is darker', () => {
  expect(
    darkWay(
      lined(() => -99),
      drawn,
    ),
  ).toEqual(drawn);
  expect(
    darkWay(
      lined(() => 10),
      drawn,
    ),
  ).toEqual(drawn);
});
