import { fittingValues } from '../fixture/make-fixture';
import { KINDS } from '../fixture/kinds';
import { ownNumbers } from '../fixture/own-settings';
import type { Circuit, Fixture, FixtureValues, Scene } from './schema';
import type { Command } from './command';

/** Lights a fixture; its circuit is added when the scene does not have it yet. */
export const addFixture = (fixture: Fixture, circuit: Circuit): Command => ({
  label: `Light ${fixture.name}`,
  apply: (scene) => {
    if (!scene.circuits.some(({ id }) => id === circuit.id)) scene.circuits.push(circuit);
    scene.fixtures.push(fixture);
  },
});

/** Sets values of one fixture. */
export const setFixture = (label: string, id: string, values: Omit<FixtureValues, 'id'>): Command => ({
  label,
  apply: (scene) => {
    const fixture = scene.fixtures.find((f) => f.id === id);
    if (!fixture) return;
    Object.assign(fixture, fittingValues(fixture.kind, values));
    if (fixture.bulb === undefined || 'bulb' in values) return;
    const shared = Object.fromEntries(Object.entries(values).filter(([key]) => isOfBulb(fixture, key)));
    for (const other of scene.fixtures)
      if (other.bulb === fixture.bulb) Object.assign(other, fittingValues(other.kind, shared));
  },
});

/** What of all kinds fixtures of one bulb share. */
const BULB_KEYS: readonly string[] = ['gel', 'lumens', 'heart', 'halo', 'shown', 'spill'];

/** Whether fixtures of one bulb share a value: what their kind alone has, they do. */
export const isOfBulb = ({ kind }: Pick<Fixture, 'kind'>, key: string): boolean =>
  BULB_KEYS.includes(key) || ownNumbers(KINDS[kind].own).some(([name, { apart }]) => name === key && !apart);

/** Sets values of one circuit. */
export const setCircuit = (label: string, id: string, values: Partial<Omit<Circuit, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const circuit = scene.circuits.find((c) => c.id === id);
    if (circuit) Object.assign(circuit, values);
  },
});

/** Puts a fixture on another circuit, which is added when it is new. */
export const moveToCircuit = (fixtureId: string, circuit: Circuit): Command => ({
  label: `Move to ${circuit.name}`,
  apply: (scene) => {
    const fixture = scene.fixtures.find((f) => f.id === fixtureId);
    if (!fixture) return;
    if (!scene.circuits.some(({ id }) => id === circuit.id)) scene.circuits.push(circuit);
    fixture.circuit = circuit.id;
    dropEmptyCircuits(scene);
  },
});

/** Lets touches go free that faced a fixture which is gone. */
export function freeTouches(scene: Scene): void {
  const there = new Set(scene.fixtures.map(({ id }) => id));
  for (const touch of scene.touches) if (touch.toward && !there.has(touch.toward)) delete touch.toward;
}

/** Takes away circuits that nothing is on. */
export function dropEmptyCircuits(scene: Scene): void {
  const used = new Set([...scene.fixtures, ...scene.touches].map(({ circuit }) => circuit));
  scene.circuits = scene.circuits.filter(({ id }) => used.has(id));
}
