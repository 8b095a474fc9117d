import { describe, expect, it } from 'vitest';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { streetScene } from '../../../test/street';
import { shadesToSay, stillUnsaid } from './shade-guess';

const bare = streetScene([]);
const wall = (id: string, dayShade?: number) => ({
  ...{ id, name: id, height: 5, dayShade, ...PLAIN_SURFACE },
  foot: [
    { u: 0.2, v: 0.8 },
    { u: 0.8, v: 0.8 },
  ],
});
const withWalls = (...walls: ReturnType<typeof wall>[]): Scene => ({
  ...bare,
  plan: { ...bare.plan, walls },
});

describe('the shade of walls', () => {
  it('is left as a person said it while it was being looked for, and so is a wall that is gone', () => {
    const found = new Map([
      ['left', 2],
      ['right', 1.5],
      ['gone', 1],
    ]);
    expect([...stillUnsaid(withWalls(wall('left', 0.5), wall('right')), found)]).toEqual([['right', 1.5]]);
  });

  it('is none on a day without a shadow of the sun', () => {
    const [width, height] = [30, 20];
    const plane = (value: number) => new Float32Array(width * height).fill(value);
    const land = {
      ...{ width, height, reach: plane(10), land: plane(1), level: plane(0) },
      plate: { width, height, r: plane(0.2), g: plane(0.2), b: plane(0.2) },
    };
    const shadow = { width, height, data: new Uint8Array(width * height) };
    expect(shadesToSay(withWalls(wall('left'), wall('right')), land, shadow).size).toBe(0);
  });
});
