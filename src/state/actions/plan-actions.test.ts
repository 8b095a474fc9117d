import { describe, expect, it } from 'vitest';
import { newScene } from '@/core/scene/new-scene';
import { parseScene } from '@/core/scene/parse-scene';
import {
  footAt,
  footGoneOn,
  heightOf,
  lowestOf,
  middleOfWall,
  newDeck,
  newStandee,
  newWall,
  wallEnd,
} from './plan-actions';

const scene = newScene('Test', { asset: '0'.repeat(64), width: 300, height: 200 });

describe('surfaces that are drawn', () => {
  it('are what a scene can hold, with names of their own', () => {
    const wall = newWall(scene, { u: 0.2, v: 0.8 }, { u: 0.5, v: 0.7 });
    const deck = newDeck(scene, { u: 0.2, v: 0.8 }, { u: 0.5, v: 0.9 });
    const plan = { ...scene.plan, walls: [wall], decks: [deck] };
    expect(newWall({ ...scene, plan }, wall.foot[0], wall.foot[1]).name).toBe('Wall 2');
    expect(parseScene({ ...scene, plan }).plan).toEqual(plan);
  });

  it('are as wet as the ground, where all of that is', () => {
    const on = (ground: Partial<typeof scene.plan.ground>) => {
      const plan = { ...scene.plan, ground: { ...scene.plan.ground, ...ground } };
      return newDeck({ ...scene, plan }, { u: 0.2, v: 0.8 }, { u: 0.5, v: 0.9 });
    };
    expect(on({ sheen: 0.5, roughness: 0.2, crease: 0.1 })).toMatchObject({
      ...{ sheen: 0.5, roughness: 0.2, crease: 0.1 },
    });
    expect(on({ sheen: 0.5, wet: 'puddles' })).toMatchObject({ sheen: 0 });
    expect(on({ sheen: 0.5, wet: 'puddles' })).not.toHaveProperty('wet');
  });

  it('keep their feet on the ground', () => {
    expect(footAt(scene, { u: 0.5, v: 0.1 }).v).toBeGreaterThan(0.5);
    expect(footAt(scene, { u: 0.5, v: 0.9 })).toEqual({ u: 0.5, v: 0.9 });
  });

  it('go on beyond the edge of the picture along their line', () => {
    const end = wallEnd(scene, { u: 0.4, v: 0.6 }, { u: 0.005, v: 0.8 });
    expect(end.u).toBe(-0.5);
    expect((end.v - 0.6) / (end.u - 0.4)).toBeCloseTo(0.2 / -0.395, 6);
    expect(wallEnd(scene, { u: 0.4, v: 0.6 }, { u: 0.2, v: 0.8 })).toEqual({ u: 0.2, v: 0.8 });
    // A near wall leaves the picture below: what is seen of it beyond that stands on its foot too.
    const below = wallEnd(scene, { u: 0.6, v: 0.6 }, { u: 0.9, v: 0.995 });
    expect((below.v - 0.6) / (below.u - 0.6)).toBeCloseTo(0.395 / 0.3, 6);
    expect([below.u, below.v]).toEqual([expect.closeTo(1.5, 6), expect.closeTo(1.785, 6)]);
    expect(wallEnd(scene, { u: 0.2, v: 0.995 }, { u: 0.6, v: 0.99 })).toEqual({ u: 0.6, v: 0.99 });
  });

  it('go on along their line where they are let: to the side, below the picture, and up to the horizon', () => {
    const foot = [
      { u: 0.2, v: 0.8 },
      { u: 0.4, v: 0.7 },
    ];
    const [left] = footGoneOn(scene, foot, 'left');
    expect([left.u, left.v]).toEqual([expect.closeTo(-0.5, 6), expect.closeTo(1.15, 6)]);
    const [, far] = footGoneOn(scene, foot, 'right');
    expect([far.u, far.v]).toEqual([expect.closeTo(0.792, 6), expect.closeTo(0.504, 6)]);
    // The other way round it is the same wall.
    expect(footGoneOn(scene, [...foot].reverse(), 'right')).toEqual([far, foot[0]]);
    const steep = [
      { u: 0.3, v: 0.95 },
      { u: 0.31, v: 0.6 },
    ];
    expect(footGoneOn(scene, steep, 'left')[0].v).toBeCloseTo(2, 6);
    // What has gone on goes no farther.
    const gone = footGoneOn(scene, foot, 'left');
    expect(footGoneOn(scene, gone, 'left')).toEqual(gone);
  });

  it('have their top over the middle of what is seen of them, at their height', () => {
    const wall = { ...newWall(scene, { u: -0.4, v: 0.9 }, { u: 0.6, v: 0.7 }), height: 3.2 };
    const [foot, top] = middleOfWall(scene, wall)!;
    expect(foot.u).toBe(0.3);
    expect(foot.v).toBeCloseTo(0.76, 6);
    expect(heightOf(scene, [foot, top])).toBeCloseTo(3.2, 6);
  });

  it('stand a matte at its lowest place', () => {
    const data = new Uint8Array(60).fill(0);
    data[3 * 10 + 4] = data[3 * 10 + 6] = data[10] = 255;
    const foot = lowestOf({ width: 10, height: 6, data })!;
    expect(foot).toEqual({ u: 0.55, v: 4 / 6 });
    expect(newStandee(scene, { id: 'm', name: 'Traveller' }, foot)).toMatchObject({
      name: 'Traveller',
      foot,
    });
    expect(lowestOf({ width: 10, height: 6, data: new Uint8Array(60) })).toBeUndefined();
  });
});
