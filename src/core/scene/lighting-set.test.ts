import { describe, expect, it } from 'vitest';
import { builtScene } from '../../../test/built-scene';
import { lightingOf, parseLighting } from './lighting-set';
import { checkedScene } from './parse-scene';
import { SCENE_VERSION, type Scene } from './schema';

const built = builtScene();
const scene: Scene = {
  ...built,
  fixtures: built.fixtures.map((fixture, k) =>
    k === 0 ? { ...fixture, behind: 'half', only: { matte: 'half', outside: true } } : fixture,
  ),
  lens: { ...built.lens, within: 'half' },
};
const written = () => JSON.parse(JSON.stringify(lightingOf(scene))) as Record<string, unknown>;

describe('a lighting set', () => {
  it('holds every lamp with its settings, circuits, night, lens and desk, and is a scene of its own', () => {
    const read = parseLighting(written());
    expect(checkedScene(read)).toEqual(read);
    expect(read.fixtures.map(({ name, kind, lumens, gel }) => ({ name, kind, lumens, gel }))).toEqual(
      scene.fixtures.map(({ name, kind, lumens, gel }) => ({ name, kind, lumens, gel })),
    );
    expect([read.circuits, read.cues, read.desk, read.moon]).toEqual([
      scene.circuits,
      scene.cues,
      scene.desk,
      scene.moon,
    ]);
    expect(read.night).toEqual({ ...scene.night, lut: null });
    expect(read.lens.grain).toEqual(scene.lens.grain);
  });

  it('holds nothing of the photo that it was made on', () => {
    const { plan, mattes, places, touches, placed, drifts, fixtures, lens, sky } = parseLighting(written());
    expect([plan.walls, plan.standees, plan.decks, plan.strokes]).toEqual([[], [], [], []]);
    expect([mattes, places, touches, placed, drifts, lens.points]).toEqual([[], [], [], [], [], []]);
    expect([plan.sunShadow, lens.within, sky.picture ?? undefined]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    for (const { behind, only, on } of fixtures)
      expect([behind, only, on]).toEqual([undefined, undefined, undefined]);
  });

  it('of a newer version, or damaged, is refused with a reason', () => {
    const with_ = (changed: object) => ({
      ...written(),
      scene: { ...(written().scene as object), ...changed },
    });
    expect(() => parseLighting({ format: 'sundew-scene' })).toThrow('This file is no Sundew lighting set.');
    expect(() => parseLighting(null)).toThrow('This file is no Sundew lighting set.');
    expect(() => parseLighting(with_({ version: SCENE_VERSION + 1 }))).toThrow('newer Sundew');
    expect(() => parseLighting({ ...written(), scene: undefined })).toThrow('This is not a Sundew scene.');
    const [first, ...rest] = (written().scene as Scene).fixtures;
    const unknown = with_({ fixtures: [{ ...first, kind: 'comet' }, ...rest] });
    expect(() => parseLighting(unknown)).toThrow(/^The scene is damaged: .*kind/);
  });
});
