import { describe, expect, it } from 'vitest';
import { RANGES } from '@/core/fields/ranges';
import { withValues } from '@/core/fixture/make-fixture';
import type { PlatePoint } from '@/core/geometry/camera';
import { middleOf } from '@/core/plane/middle-of';
import { streetScene, testCircuit } from '../../../test/street';
import { newFixture } from './fixture-actions';
import { asWindow, nextWindow, windowsBySize } from './window-choice';

const box = (left: number, right: number, top = 0.3, bottom = 0.4): PlatePoint[] => [
  { u: left, v: top },
  { u: right, v: top },
  { u: right, v: bottom },
  { u: left, v: bottom },
];
const [light, pair, all] = [box(0.3, 0.34), box(0.3, 0.38), box(0.3, 0.46)];
const empty = streetScene([]);
const scene = { ...empty, circuits: [testCircuit('row')] };
const bySize = windowsBySize(scene, [pair, all, light]);

describe('windows that a click may mean', () => {
  it('come by their size, and the next larger or smaller of any outline is told', () => {
    expect(bySize.map(({ path }) => path)).toEqual([light, pair, all]);
    expect(nextWindow(bySize, pair, 'larger')?.path).toBe(all);
    expect(nextWindow(bySize, pair, 'smaller')?.path).toBe(light);
    expect(nextWindow(bySize, all, 'larger')).toBeUndefined();
    expect(nextWindow(bySize, light, 'smaller')).toBeUndefined();
    // Of one whose corners were dragged since.
    expect(nextWindow(bySize, box(0.3, 0.4), 'larger')?.path).toBe(all);
    expect(nextWindow([], pair, 'larger')).toBeUndefined();
  });

  it('are lit in their own place, as bright as before', () => {
    const pane = { ...newFixture(scene, 'pane', middleOf(pair), pair, scene.circuits[0]), lumens: 300 };
    const larger = asWindow(scene, pane, bySize[2]);
    expect(larger).toMatchObject({ at: middleOf(all), path: all });
    expect(larger.lumens).toBeCloseTo(600, 6);
    expect(larger.foot!.u).toBeCloseTo(middleOf(all).u, 2);
    expect(asWindow(scene, withValues(pane, larger), bySize[1]).lumens).toBeCloseTo(300, 6);
    const foot = { u: 0.31, v: 0.8 };
    expect(asWindow(scene, pane, { path: light, foot })).toMatchObject({ foot, aim: foot });
    const bright = { ...pane, lumens: RANGES.lumens.max };
    expect(asWindow(scene, bright, bySize[2]).lumens).toBe(RANGES.lumens.max);
  });
});
