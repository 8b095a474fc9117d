import type { RgbPlanes } from '../plane/plane';
import type { LayerPlanes } from './mix-picture';
import type { LayerWeights } from './weights';

/** What of a circuit's light is wanted: what lands on surfaces, what the air scatters, the lamps themselves. */
export interface LightParts {
  spill: boolean;
  air: boolean;
  source: boolean;
}

/**
 * Adds one layer's light to linear planes of a region, as the sum before the film has it, but for the haze that lies before
 * surfaces.
 *
 * @param plate the same region of what lamps light
 */
export function addCircuitLight(
  out: RgbPlanes,
  plate: RgbPlanes,
  { spill, shine, air, source, sourceRows }: LayerPlanes,
  weights: LayerWeights,
  parts: LightParts,
): void {
  const { width, height } = out;
  const first = sourceRows.from * width;
  (['r', 'g', 'b'] as const).forEach((name, c) => {
    const target = out[name];
    const surface = plate[name];
    const [onPlate, inAir] = [parts.spill ? weights.spill[c] : 0, parts.air ? weights.air[c] : 0];
    for (let i = 0; i < width * height; i++) target[i] += onPlate * spill[i] * surface[i];
    if (air) for (let i = 0; i < width * height; i++) target[i] += inAir * air[i];
    if (shine && parts.spill)
      for (let i = 0; i < width * height; i++) target[i] += weights.shine[c] * shine[i];
    if (!parts.source) return;
    for (let i = 0; i < source.length; i++) target[first + i] += weights.source[c] * source[i];
  });
}
