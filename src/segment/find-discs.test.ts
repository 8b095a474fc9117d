import { describe, expect, it } from 'vitest';
import { hypot } from '@/core/plane/hypot';
import { seeded } from '@/core/fixture/seeded';
import { findDiscs } from './find-discs';

const [width, height] = [480, 320];

/** Globes before bricks, a pale column and a dark door, and a pale bar. */
function yard(globes: readonly (readonly [x: number, y: number, radius: number])[]) {
  const random = seeded(9);
  const data = Float32Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    const grain = 8 * random();
    if (globes.some(([cx, cy, radius]) => hypot(x - cx, y - cy) < radius)) return 215 + grain;
    if (Math.abs(x - 60) < 9 && Math.abs(y - 150) < 40) return 215 + grain;
    if (x > 330 && x < 390) return 40 + grain;
    if (x > 216 && x < 232) return 170 + grain;
    return (Math.floor(y / 6) % 2 ? 95 : 120) + grain;
  });
  return { width, height, data };
}

const GLOBES = [
  [120, 150, 12],
  [234, 150, 12],
  [350, 152, 12],
  [430, 149, 8],
] as const;
const at = ([x, y]: readonly number[]) => ({ u: (x + 0.5) / width, v: (y + 0.5) / height });
const level = ({ v }: { v: number }) => Math.abs(v - 0.47) < 0.03;

describe('findDiscs', () => {
  const found = findDiscs(yard(GLOBES), at(GLOBES[0]), level);
  const near = (globe: readonly number[]) =>
    found.filter((one) => hypot(one.at.u * width - globe[0] - 0.5, one.at.v * height - globe[1] - 0.5) < 3);

  it('finds globes whatever lies behind them, with their own sizes', () => {
    for (const globe of GLOBES.slice(1)) {
      const best = near(globe).sort((a, b) => b.score - a.score)[0];
      expect(best?.times, `${globe[0]}`).toBeGreaterThan((0.85 * globe[2]) / 12);
      expect(best?.times, `${globe[0]}`).toBeLessThan((1.15 * globe[2]) / 12);
    }
  });

  it('finds none in a bar that is as pale, and none where no twin may be', () => {
    expect(found.filter((one) => Math.abs(one.at.u - 60 / width) < 0.05)).toEqual([]);
    const above = findDiscs(yard([...GLOBES, [300, 60, 12]]), at(GLOBES[0]), level);
    expect(above.filter((one) => one.at.v < 0.4)).toEqual([]);
  });

  it('says nothing where the lamp itself shows no rim', () => {
    expect(findDiscs(yard(GLOBES), { u: 0.95, v: 0.9 }, level)).toEqual([]);
  });
});
