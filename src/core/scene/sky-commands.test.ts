import { describe, expect, it } from 'vitest';
import { RANGES } from '../fields/ranges';
import { NOCTURNES } from '../night/nocturnes';
import { FIRST_SKY } from '../sky/sky-schema';
import { trueMoon } from '../sky/true-moon';
import { patchScene, runCommand, type Command } from './command';
import { newScene } from './new-scene';
import { parseScene, SceneFormatError } from './parse-scene';
import type { Scene } from './schema';
import {
  placeTrueMoon,
  raiseMoon,
  setSky,
  setSkyPart,
  setSkyPicture,
  setStarFall,
  takeNocturne,
} from './sky-commands';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 300, height: 200 });
const after = (...commands: Command[]) => commands.reduce((now, one) => runCommand(now, one).scene, SCENE);
const PICTURE = {
  ...{ asset: 'a'.repeat(64), name: 'dusk', width: 800, height: 400, at: { u: 0.5, v: 0.2 } },
  ...{ across: 1.2, turn: 0, share: 1, exposure: 0, fit: 0.6 },
};

describe('the sky of a scene', () => {
  it('is the hour’s in a new scene, and the plate’s own in one from before', () => {
    expect(SCENE.sky).toEqual(FIRST_SKY);
    const seeds = ['1f', 'a0', 'ff'].map(
      (byte) => newScene('', { ...SCENE.plate, asset: byte.repeat(32) }).sky.stars.seed,
    );
    expect(new Set(seeds).size, 'another photo, other stars').toBe(3);
    const { sky: _sky, ...rest } = structuredClone(SCENE);
    const { stars: _stars, ...desk } = rest.desk;
    const old = parseScene({ ...rest, version: 11, desk });
    expect(old.sky.from).toBe('plate');
    expect(old.desk.stars).toBe(0);
  });

  it('is set part by part, and each change is undone', () => {
    const commands = [
      setSky('Sun', { sun: 12 }),
      setSkyPart('Clouds', 'clouds', { cover: 0.4 }),
      setStarFall({ turn: 20 }),
      setSky('Picture', { picture: PICTURE }),
      setSkyPicture('Width', { across: 2 }),
    ];
    let now: Scene = SCENE;
    const changes = commands.map((command) => {
      const done = runCommand(now, command);
      now = done.scene;
      return done.change;
    });
    expect(now.sky).toMatchObject({ sun: 12, clouds: { cover: 0.4 }, picture: { across: 2 } });
    expect(parseScene(structuredClone(now))).toEqual(now);
    for (const change of changes.reverse()) now = patchScene(now, change.inverse);
    expect(now).toEqual(SCENE);
    expect(after(setSkyPicture('Width', { across: 2 })).sky.picture).toBeNull();
  });

  it('refuses what is none, with a word', () => {
    const parse = (sky: object) => () => parseScene({ ...SCENE, sky: { ...SCENE.sky, ...sky } });
    for (const sky of [
      { from: 'nowhere' },
      { when: { ...FIRST_SKY.when, moment: 'tomorrow' } },
      { when: { ...FIRST_SKY.when, moment: '2026-13-45T99:00Z' } },
      { when: { ...FIRST_SKY.when, latitude: 91 } },
      { stars: { ...FIRST_SKY.stars, colors: [1, 1] } },
      { stars: { ...FIRST_SKY.stars, colors: [1, 1, 1, 1, 1, NaN] } },
      { clouds: { ...FIRST_SKY.clouds, cover: 2 } },
      { picture: { ...PICTURE, asset: '../../etc' } },
      { picture: { ...PICTURE, width: 0 } },
      { more: 1 },
    ])
      expect(parse(sky)).toThrow(SceneFormatError);
    expect(parse({ when: { ...FIRST_SKY.when, latitude: 90, moment: '0001-01-01T00:00Z' } })).not.toThrow();
  });
});

describe('the moon', () => {
  it('comes up where it is put, behind the skyline too', () => {
    const scene = after(setSky('Sky', { from: 'plate' }), raiseMoon({ azimuth: 5, elevation: 30 }));
    expect(scene.moon).toMatchObject({ azimuth: 5, elevation: 30 });
    expect(scene.desk.moon).toBe(0);
    expect(scene.sky.from).toBe('hour');
  });

  it('stands as it truly does, or is down', () => {
    const at = (moment: string) => setSkyPart('When', 'when', { moment });
    const hours = Array.from({ length: 24 }, (_, h) => `2026-01-03T${String(h).padStart(2, '0')}:00Z`);
    const up = hours.find((moment) => trueMoon({ ...FIRST_SKY.when, moment }).elevation > 5)!;
    const down = hours.find((moment) => trueMoon({ ...FIRST_SKY.when, moment }).elevation < -5)!;
    const risen = after(at(up), placeTrueMoon());
    expect(risen.desk.moon).toBe(0);
    expect(risen.sky.moon.phase).toBeCloseTo(0.5, 1);
    expect(parseScene(structuredClone(risen))).toEqual(risen);
    expect(after(at(up), placeTrueMoon(), at(down), placeTrueMoon()).desk.moon).toBe(RANGES.level.min);
  });
});

describe('takeNocturne', () => {
  const named = (id: string) => NOCTURNES.find((nocturne) => nocturne.id === id)!;

  it('brings its sky along, where the hour’s stands there', () => {
    const rain = after(takeNocturne(named('after-rain')));
    expect(rain.night.hour).toBe(named('after-rain').night.hour);
    expect(rain.sky.clouds.cover).toBeGreaterThan(0.4);
    const moonlit = runCommand(rain, takeNocturne(named('moonlight'))).scene;
    expect(moonlit.desk.moon).toBe(0);
    const deep = runCommand(moonlit, takeNocturne(named('deep-night'))).scene;
    expect(deep.desk.moon).toBe(RANGES.level.min);
    expect(deep.sky.clouds.cover).toBe(0);
  });

  it('leaves a sky that is the plate’s own alone', () => {
    const { sky, desk } = after(setSky('Sky', { from: 'plate' }), takeNocturne(named('moonlight')));
    expect(sky).toEqual({ ...FIRST_SKY, from: 'plate' });
    expect(desk).toEqual(SCENE.desk);
  });
});
