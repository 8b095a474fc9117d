import { describe, expect, it } from 'vitest';
import { project, type PlatePoint } from '@/core/geometry/camera';
import { middleOfCoverage } from '@/core/matte/coverage-picture';
import { cameraOf } from '@/core/picture/camera-of';
import { newScene, PLAIN_FINISH } from '@/core/scene/new-scene';
import { newGloss, turnAt } from './gloss-actions';
import { guessedWall } from './plan-actions';

const bare = newScene('Test', { asset: '0'.repeat(64), width: 300, height: 200 });
const camera = cameraOf(bare);
const seen = (x: number, y: number, z: number): PlatePoint => project(camera, [x, y, z])!;
const withPlan = (plan: Partial<typeof bare.plan>) => ({ ...bare, plan: { ...bare.plan, ...plan } });

describe('a new gloss', () => {
  it('is turned as the wall that it lies on, or else straight to the eye', () => {
    // A wall that runs from the left before the eye away to the right: it faces right and back, by 45 degrees.
    const wall = guessedWall(bare, { foot: [seen(-6, 6, 0), seen(2, 14, 0)], rise: 4 });
    const scene = withPlan({ walls: [wall] });
    expect(turnAt(scene, seen(-2, 10, 2))).toBe(45);
    expect(turnAt(bare, { u: 0.5, v: 0.6 })).toBe(0);
    expect(newGloss(scene, { id: 'm', name: 'Shop' }, seen(-2, 10, 2))).toMatchObject({
      ...{ name: 'Shop', matte: 'm', turn: 45, lean: 0, sheen: 1 },
    });
  });

  it('is turned as the side of the box on which it lies', () => {
    const box = { left: seen(-1, 9, 0), right: seen(1, 9, 0), height: 2 };
    const car = { id: 'c', name: 'Car', matte: 'm', foot: seen(0, 8, 0), roundness: 0.5, crease: 0, box };
    const scene = withPlan({ standees: [{ ...car, ...PLAIN_FINISH }] });
    expect(turnAt(scene, seen(-0.5, 8.5, 1))).toBe(-45);
    expect(turnAt(scene, seen(0.5, 8.5, 1))).toBe(45);
    expect(turnAt(scene, seen(4, 8.5, 1))).toBe(0);
  });

  it('takes a name that no other has', () => {
    const first = newGloss(bare, { id: 'm', name: 'Shop' }, { u: 0.5, v: 0.5 });
    const scene = withPlan({ glosses: [first] });
    expect(newGloss(scene, { id: 'm', name: 'Shop' }, { u: 0.5, v: 0.5 }).name).toBe('Shop 1');
  });
});

describe('the middle of a coverage', () => {
  it('is where it covers most, and nowhere where it covers nothing', () => {
    const data = new Uint8Array(20);
    expect(middleOfCoverage({ width: 5, height: 4, data })).toBeUndefined();
    data[1 * 5 + 2] = data[1 * 5 + 3] = 255;
    const middle = middleOfCoverage({ width: 5, height: 4, data })!;
    expect(middle.u).toBeCloseTo(0.6, 12);
    expect(middle.v).toBeCloseTo(0.375, 12);
  });
});
