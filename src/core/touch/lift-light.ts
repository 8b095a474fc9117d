import type { RgbPlanes } from '../plane/plane';

/**
 * Lifts or holds light by hand: `2^(sum of stops * coverage)` times as much. `out` may be `light` itself.
 *
 * @param touches coverage of each pixel, 0 to 1, and the stops of a touch that is laid on fully
 */
export function liftLight(
  out: RgbPlanes,
  light: RgbPlanes,
  touches: readonly { coverage: Float32Array; stops: number }[],
): void {
  for (let i = 0; i < light.r.length; i++) {
    let stops = 0;
    for (const touch of touches) stops += touch.stops * touch.coverage[i];
    const gain = stops === 0 ? 1 : 2 ** stops;
    out.r[i] = gain * light.r[i];
    out.g[i] = gain * light.g[i];
    out.b[i] = gain * light.b[i];
  }
}
