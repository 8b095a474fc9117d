import { addFixture } from '@/core/scene/commands';
import type { PlatePoint } from '@/core/geometry/camera';
import { withValues } from '@/core/fixture/make-fixture';
import type { FixtureValues } from '@/core/scene/schema';
import { newCircuit, newFixture } from '@/state/fixture-actions';
import { useSession } from './editor-context';

/** Lights a fixture of the kind that is at hand, on the circuit that was worked on last, and chooses it. */
export function useLightFixture(): (at: PlatePoint, path?: PlatePoint[], more?: FixtureValues) => void {
  const session = useSession();
  return (at, path = [], more = {}) => {
    const { scene, run } = session.scene.getState();
    const view = session.view.getState();
    const circuit =
      scene.circuits.find(({ id }) => id === view.circuit) ?? scene.circuits.at(-1) ?? newCircuit(scene);
    const fixture = withValues(newFixture(scene, view.kind, at, path, circuit), more);
    run(addFixture(fixture, circuit));
    view.set({ chosen: fixture.id, circuit: circuit.id });
  };
}
