import type { PlatePoint } from '../geometry/camera';
import { dropEmptyCircuits, freeTouches, setFixture } from './fixture-commands';
import type { Command } from './command';
import type { Circuit, Fixture, FixtureValues } from './schema';

/* Commands on several fixtures, and on the order of circuits. */

/** Moves fixtures on the picture; their feet go along sideways, or not at all. */
export const moveFixtures = (ids: readonly string[], by: PlatePoint, feetStay = false): Command => ({
  label: ids.length === 1 ? 'Move a fixture' : `Move ${ids.length} fixtures`,
  apply: (scene) => {
    const moved = ({ u, v }: PlatePoint) => ({ u: u + by.u, v: v + by.v });
    const aside = ({ u, v }: PlatePoint) => ({ u: feetStay ? u : u + by.u, v });
    for (const fixture of scene.fixtures) {
      if (!ids.includes(fixture.id)) continue;
      const { at, path, foot, aim } = fixture;
      Object.assign(fixture, { at: moved(at), path: path.map(moved), foot: aside(foot), aim: aside(aim) });
    }
  },
});

/** Sets the same values of several fixtures. */
export const setFixtures = (
  label: string,
  ids: readonly string[],
  values: Omit<FixtureValues, 'id'>,
): Command => ({
  label,
  apply: (scene) => ids.forEach((id) => setFixture(label, id, values).apply(scene)),
});

/** Takes fixtures away, and circuits with the last one on them. */
export const removeFixtures = (ids: readonly string[]): Command => ({
  label: ids.length === 1 ? 'Remove a fixture' : `Remove ${ids.length} fixtures`,
  apply: (scene) => {
    scene.fixtures = scene.fixtures.filter(({ id }) => !ids.includes(id));
    freeTouches(scene);
    dropEmptyCircuits(scene);
  },
});

/** Lights fixtures that came from elsewhere, with the circuits that the scene does not have yet. */
export const pasteFixtures = (fixtures: Fixture[], circuits: Circuit[]): Command => ({
  label: fixtures.length === 1 ? `Paste ${fixtures[0].name}` : `Paste ${fixtures.length} fixtures`,
  apply: (scene) => {
    scene.circuits.push(...circuits);
    scene.fixtures.push(...fixtures);
  },
});

/** Replaces a fixture by others of one bulb. */
export const splitFixture = (label: string, id: string, bulb: string, parts: Fixture[]): Command => ({
  label,
  apply: (scene) => {
    const at = scene.fixtures.findIndex((f) => f.id === id);
    if (at < 0) return;
    scene.fixtures.splice(at, 1, ...parts.map((part) => ({ ...part, bulb })));
    freeTouches(scene);
  },
});

/** Moves a circuit to another place on the desk. */
export const moveCircuit = (id: string, to: number): Command => ({
  label: 'Order of circuits',
  apply: (scene) => {
    const from = scene.circuits.findIndex((circuit) => circuit.id === id);
    if (from < 0) return;
    const [circuit] = scene.circuits.splice(from, 1);
    scene.circuits.splice(Math.min(scene.circuits.length, Math.max(0, to)), 0, circuit);
  },
});
