import { describe, expect, it } from 'vitest';
import { newScene } from '@/core/scene/new-scene';
import { parseScene } from '@/core/scene/parse-scene';
import { newMatte, OWN_KINDS, placeStops, withPlace } from './matte-actions';

const blank = newScene('Test', { asset: '0'.repeat(64), width: 300, height: 200 });

describe('newMatte', () => {
  it('makes mattes of every kind that a scene can have, each with a name of its own', () => {
    let scene = blank;
    for (const kind of [...OWN_KINDS, 'sky'] as const) {
      scene = { ...scene, mattes: [...scene.mattes, newMatte(scene, kind)] };
    }
    expect(parseScene(structuredClone(scene))).toEqual(scene);
    expect(new Set(scene.mattes.map(({ name }) => name)).size).toBe(scene.mattes.length);
  });
});

describe('withPlace', () => {
  it('sets, replaces and takes away', () => {
    const one = { ...blank, places: withPlace(blank, { matte: 'm', outside: false, stops: -1 }) };
    const two = { ...one, places: withPlace(one, { matte: 'm', outside: true, stops: 2 }) };
    expect([placeStops(two, 'm', false), placeStops(two, 'm', true), placeStops(two, 'n', true)]).toEqual([
      -1, 2, 0,
    ]);
    expect(withPlace(two, { matte: 'm', outside: false, stops: 0 })).toEqual([
      { matte: 'm', outside: true, stops: 2 },
    ]);
  });
});
