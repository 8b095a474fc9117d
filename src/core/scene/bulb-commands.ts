import type { Command } from './command';
import type { Fixture } from './schema';

/** Lights copies of a fixture; they and it are of one bulb. */
export const addCopies = (label: string, id: string, bulb: string, copies: Fixture[]): Command => ({
  label,
  apply: (scene) => {
    const original = scene.fixtures.find((f) => f.id === id);
    if (!original) return;
    original.bulb ??= bulb;
    for (const copy of copies) scene.fixtures.push({ ...copy, bulb: original.bulb });
  },
});

/** Makes a fixture one of its own again. */
export const unlinkFixture = (id: string, name: string): Command => ({
  label: `${name}: on its own`,
  apply: (scene) => {
    const fixture = scene.fixtures.find((f) => f.id === id);
    const bulb = fixture?.bulb;
    if (!fixture || bulb === undefined) return;
    delete fixture.bulb;
    const left = scene.fixtures.filter((f) => f.bulb === bulb);
    if (left.length === 1) delete left[0].bulb;
  },
});
