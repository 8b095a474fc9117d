import { describe, expect, it } from 'vitest';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import { runCommand } from '@/core/scene/command';
import { copyPlaced } from '@/core/scene/placed-commands';
import { checkedScene } from '@/core/scene/parse-scene';
import { WHOLE_BODY } from '@/core/placed/placed-schema';
import { testPlaced } from '../../../test/placed';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { copyOf, pasteInto } from './clipboard';
import { newFixture } from './fixture-actions';
import { aheadOf, copyOfPlaced, newPlaced, placedUnder } from './placed-actions';

const PICTURE = { asset: 'a'.repeat(64), width: 100, height: 200, body: WHOLE_BODY };
const bare = streetScene([]);
const foot = [
  { u: 0, v: 0.7 },
  { u: 1, v: 0.7 },
];
const walled = {
  ...bare,
  plan: { ...bare.plan, walls: [{ id: 'w', name: 'Wall', foot, height: 5, ...PLAIN_SURFACE }] },
};
const SCENE = { ...bare, placed: [testPlaced('p')] };

describe('a new placed picture', () => {
  it('stands on the ground where it is put, and never above the horizon', () => {
    const put = newPlaced(bare, PICTURE, 'lamp post.png', { u: 0.4, v: 0.8 });
    expect(put).toMatchObject({ name: 'lamp post', hangs: false, foot: { u: 0.4, v: 0.8 } });
    expect(newPlaced(bare, PICTURE, 'x.png', { u: 0.4, v: 0.1 }).foot.v).toBeGreaterThan(0.5);
    const again = newPlaced({ ...bare, placed: [put] }, PICTURE, 'lamp post.png', { u: 0.4, v: 0.8 });
    expect(again.name).not.toBe(put.name);
    expect(newPlaced(bare, PICTURE, '.png', { u: 0.4, v: 0.8 }).name).toBe('Picture');
  });

  it('hangs on a wall that is seen there, as far off as the wall', () => {
    const hung = newPlaced(walled, PICTURE, 'sign.png', { u: 0.5, v: 0.4 });
    expect(hung.hangs).toBe(true);
    const stands = { ...hung, hangs: false, foot: { u: 0.5, v: 0.7 } };
    expect(aheadOf(walled, hung)).toBeCloseTo(aheadOf(walled, stands), 3);
  });
});

describe('a lamp in a placed picture', () => {
  it('is lit where the picture stands, and is part of it', () => {
    const at = { u: 0.5, v: 0.65 };
    const lamp = newFixture(SCENE, 'globe', at, [], testCircuit('street'));
    expect(lamp.on).toBe('p');
    expect(lamp.foot.v).toBeCloseTo(0.8, 6);
    expect(newFixture(SCENE, 'globe', { u: 0.1, v: 0.65 }, [], testCircuit('street')).on).toBeUndefined();
  });

  it('is the nearer picture’s where two are seen', () => {
    const two = { ...bare, placed: [testPlaced('far', { foot: { u: 0.5, v: 0.7 } }), testPlaced('near')] };
    expect(placedUnder(two, { u: 0.5, v: 0.6 })?.id).toBe('near');
  });

  it('is copied with it, and pasted without it', () => {
    const lit = { ...streetScene([streetLamp('lamp', 0.5, { on: 'p' })]), placed: [testPlaced('p')] };
    const { copy, lamps } = copyOfPlaced(lit, lit.placed[0]);
    const { scene } = runCommand(lit, copyPlaced('p', copy, lamps));
    expect(scene.fixtures[1].on).toBe(copy.id);
    expect(checkedScene(scene)).toBe(scene);
    expect(pasteInto(bare, copyOf(lit, ['lamp'])).fixtures[0].on).toBeUndefined();
  });
});
