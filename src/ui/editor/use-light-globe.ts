import { addFixture } from '@/core/scene/commands';
import type { PlatePoint } from '@/core/plan/camera';
import { newCircuit, newGlobe } from '@/state/fixture-actions';
import { useSession } from './editor-context';

/** Lights a globe at a place, on the circuit that was worked on last, and chooses it. */
export function useLightGlobe(): (at: PlatePoint) => void {
  const session = useSession();
  return (at) => {
    const { scene, run } = session.scene.getState();
    const view = session.view.getState();
    const circuit =
      scene.circuits.find(({ id }) => id === view.circuit) ?? scene.circuits.at(-1) ?? newCircuit(scene);
    const globe = newGlobe(scene, at, circuit);
    run(addFixture(globe, circuit));
    view.set({ chosen: globe.id, circuit: circuit.id });
  };
}
