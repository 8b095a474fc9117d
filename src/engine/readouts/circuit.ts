import { addCircuitLight, type LightParts } from '@/core/picture/circuit-light';
import { pictureWeights } from '@/core/picture/weights';
import type { RgbPlanes } from '@/core/plane/plane';
import { RANGES } from '@/core/fields/ranges';
import type { Scene } from '@/core/scene/schema';
import type { FrameRequest } from '../frame-request';
import { evened } from '../stages/even';
import { layerWants, litLayers } from '../stages/grip';
import { landing } from '../stages/sum';
import { survey } from '../stages/survey';
import type { Readout } from './readout';

/** A scene in which one circuit burns, and nothing else. */
function alone(scene: Scene, id: string): Scene {
  const circuits = scene.circuits.map((circuit) => ({
    ...circuit,
    ...{ solo: circuit.id === id, muted: circuit.id !== id },
  }));
  return { ...scene, circuits, desk: { ...scene.desk, moon: RANGES.level.min } };
}

/** The linear light of one circuit alone, whether it burns or not; the caller's own. */
export const circuitLight =
  (request: FrameRequest, id: string, parts: LightParts): Readout<RgbPlanes> =>
  async ({ spot, see }) => {
    const scene = alone(request.scene, id);
    const at = spot({ ...request, scene });
    const lit = litLayers(at);
    const { medianLuminance } = await see(survey(at));
    const { layers } = pictureWeights(scene, lit, medianLuminance[0]);
    const plate = await see(evened(at));
    const { width, height } = request.region;
    const plane = () => new Float32Array(width * height);
    const out = { width, height, r: plane(), g: plane(), b: plane() };
    for (const [k, layer] of lit.entries()) {
      const { light, gripped } = layerWants(at, layer);
      const views = { light: await see(light), gripped: gripped && (await see(gripped)) };
      addCircuitLight(out, plate, landing(views), layers[k], parts);
    }
    return out;
  };
