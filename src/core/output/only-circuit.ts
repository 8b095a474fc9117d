import type { Scene } from '../scene/schema';

/** A scene in which one circuit burns alone, whatever is muted or soloed; none where no id is given. */
export function onlyCircuit(scene: Scene, id: string | undefined): Scene {
  const circuits = scene.circuits.map((circuit) => ({ ...circuit, solo: false, muted: circuit.id !== id }));
  return { ...scene, circuits };
}
