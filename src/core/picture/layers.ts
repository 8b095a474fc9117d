import { variedPane } from '../fixture/varied-panes';
import { phaseLight } from '../sky/moon-disc';
import { PLAIN_GRIP } from '../scene/new-scene';
import { RANGES } from '../fields/ranges';
import type { Circuit, Fixture, Gel, Moon, Scene, Touch } from '../scene/schema';

/** The fixtures of one circuit that share a gel: their light is one set of planes, coloured when it is mixed. */
export interface Layer {
  circuit: Circuit;
  gel: Gel;
  fixtures: Fixture[];
  /** Set for the moon's own layer, which has no fixtures. */
  moon?: Moon;
  /** Set for a layer of light that was laid on by hand, which has no fixtures. */
  touches?: Touch[];
}

/** The circuit that stands for the moon: the desk's own fader dims it, and nobody mutes it. */
const MOON_CIRCUIT = {
  ...{ id: 'moon', name: 'Moon', lampLevel: 0, spillLevel: 0, warmth: 0, muted: false, solo: true },
  grip: PLAIN_GRIP,
} as const;

/** The moon's layer; none while its fader is all the way down. One that is seen gives light by its phase. */
function moonLayer({ moon, desk, sky }: Scene): Layer[] {
  if (desk.moon <= RANGES.level.min) return [];
  const waned = sky.from === 'hour' ? Math.log2(phaseLight(sky.moon.phase)) : 0;
  const level = Math.max(RANGES.level.min, desk.moon + waned);
  const gel: Gel = { from: 'kelvin', kelvin: moon.kelvin, color: [1, 1, 1] };
  return [{ circuit: { ...MOON_CIRCUIT, level }, gel, fixtures: [], moon }];
}

const gelKey = (gel: Gel) => (gel.from === 'kelvin' ? `${gel.kelvin}` : gel.color.join());

/**
 * The layers of a scene: the moon's, then those of lamps in the order of its circuits and fixtures, then those of touches.
 *
 * @param varied a pane as it differs from its likes; a caller that asks again and again hands one that remembers
 */
export function layersOf(scene: Scene, varied = variedPane): Layer[] {
  const layers = new Map<string, Layer>();
  const shown = scene.fixtures.flatMap((own) => {
    const fixture = varied(own);
    return fixture ? [{ id: own.circuit, fixture }] : [];
  });
  for (const circuit of scene.circuits) {
    for (const { id, fixture } of shown) {
      if (id !== circuit.id) continue;
      const key = `${circuit.id} ${gelKey(fixture.gel)}`;
      const layer = layers.get(key);
      if (layer) layer.fixtures.push(fixture);
      else layers.set(key, { circuit, gel: fixture.gel, fixtures: [fixture] });
    }
  }
  return [...moonLayer(scene), ...layers.values(), ...touchLayers(scene)];
}

/** Touches that light something, by circuit and gel. */
function touchLayers({ circuits, touches }: Scene): Layer[] {
  const layers = new Map<string, Layer & { touches: Touch[] }>();
  for (const touch of touches) {
    const circuit = circuits.find(({ id }) => id === touch.circuit);
    if (!circuit || touch.does === 'lift' || touch.strokes.length === 0) continue;
    const key = `${circuit.id} ${gelKey(touch.gel)}`;
    const layer = layers.get(key);
    if (layer) layer.touches.push(touch);
    else layers.set(key, { circuit, gel: touch.gel, fixtures: [], touches: [touch] });
  }
  return [...layers.values()];
}

/** Whether a circuit burns: not muted, and soloed if any is. */
export function burns(circuit: Circuit, scene: Pick<Scene, 'circuits'>): boolean {
  return !circuit.muted && (circuit.solo || !scene.circuits.some(({ solo }) => solo));
}

/** A scene in which only some circuits burn, whatever is muted or soloed. */
export function withBurning(scene: Scene, burnsNow: (circuit: Circuit, place: number) => boolean): Scene {
  const circuits = scene.circuits.map((circuit, place) => ({
    ...circuit,
    ...{ solo: false, muted: !burnsNow(circuit, place) },
  }));
  return { ...scene, circuits };
}
