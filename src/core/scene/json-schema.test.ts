import { readdir, readFile } from 'node:fs/promises';
import { Ajv2020 } from 'ajv/dist/2020';
import { beforeAll, describe, expect, it } from 'vitest';
import { streetLamp, streetScene } from '../../../test/street';
import { KIND_NAMES } from '../fixture/kinds';
import { sceneJsonSchema } from './json-schema';
import { parseScene } from './parse-scene';
import type { Scene } from './schema';

const PLATE = { asset: 'a'.repeat(64), width: 300, height: 200 };

let isScene: (document: unknown) => boolean;
let scenes: Scene[];
beforeAll(async () => {
  isScene = new Ajv2020({ strict: false }).compile(sceneJsonSchema());
  const names = (await readdir('demo/scenes')).filter((name) => name.endsWith('.json'));
  scenes = await Promise.all(
    names.map(async (name) => {
      const { scene } = JSON.parse(await readFile(`demo/scenes/${name}`, 'utf8')) as { scene: Scene };
      return parseScene({
        ...scene,
        placed: [],
        plate: PLATE,
        fixtures: scene.fixtures.map((own) => ({ ...own, on: undefined })),
      });
    }),
  );
});

/** A document as it is in a file. */
const written = (scene: object): unknown => JSON.parse(JSON.stringify(scene));

describe('the JSON Schema of a scene', () => {
  it('is in the docs as the code has it: `npm run schema` writes it', async () => {
    expect(JSON.parse(await readFile('docs/scene.schema.json', 'utf8'))).toEqual(written(sceneJsonSchema()));
  });

  it('takes every scene of the demo, and lamps of every kind', () => {
    expect(scenes.length).toBeGreaterThan(4);
    for (const scene of scenes) expect(isScene(written(scene))).toBe(true);
    for (const kind of KIND_NAMES)
      expect(isScene(written(streetScene([streetLamp('1', 0.5, { kind })])))).toBe(true);
  });

  it('refuses what is no scene: a number out of range, a name too many, a part that is missing, a wrong kind', () => {
    const scene = written(scenes[0]) as Scene;
    const [lamp, ...others] = scene.fixtures;
    for (const wrong of [
      { ...scene, version: 99 },
      { ...scene, more: 1 },
      { ...scene, desk: { ...scene.desk, master: 50 } },
      { ...scene, desk: undefined },
      { ...scene, plate: { ...PLATE, asset: 'no hash' } },
      { ...scene, fixtures: [{ ...lamp, kind: 'candle' }, ...others] },
      { ...scene, fixtures: [{ ...lamp, lumens: '800' }, ...others] },
    ]) {
      expect(isScene(written(wrong))).toBe(false);
    }
  });
});
