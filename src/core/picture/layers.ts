import type { Circuit, Fixture, Gel, Scene } from '../scene/schema';

/** The fixtures of one circuit that share a gel: their light is one set of planes, coloured when it is mixed. */
export interface Layer {
  circuit: Circuit;
  gel: Gel;
  fixtures: Fixture[];
}

const gelKey = (gel: Gel) => (gel.from === 'kelvin' ? `${gel.kelvin}` : gel.color.join());

/** The layers of a scene, in the order of its circuits and fixtures. */
export function layersOf(scene: Scene): Layer[] {
  const layers = new Map<string, Layer>();
  for (const circuit of scene.circuits) {
    for (const fixture of scene.fixtures) {
      if (fixture.circuit !== circuit.id) continue;
      const key = `${circuit.id} ${gelKey(fixture.gel)}`;
      const layer = layers.get(key);
      if (layer) layer.fixtures.push(fixture);
      else layers.set(key, { circuit, gel: fixture.gel, fixtures: [fixture] });
    }
  }
  return [...layers.values()];
}

/** Whether a circuit burns: not muted, and soloed if any is. */
export function burns(circuit: Circuit, scene: Scene): boolean {
  return !circuit.muted && (circuit.solo || !scene.circuits.some(({ solo }) => solo));
}
