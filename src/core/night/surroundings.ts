import type { PlatePoint } from '../geometry/camera';
import type { Region } from '../plane/region';

/** An ellipse that stays open: centre, and half axes as fractions of the plate's width and height. */
export interface Pool extends PlatePoint {
  across: number;
  down: number;
}

/** How far the land around pools is darkened. */
export interface Surround {
  /** Stops by which everything outside the pools sinks. */
  stops: number;
  /** Share of a pool over which it closes toward its rim, 0 hard to 1 from the middle on. */
  soft: number;
  pools: readonly Pool[];
}

/**
 * The factor of ambient light around pools: 1 inside, `2^-stops` outside, with a smooth edge. `out` has a float a pixel
 * of the region.
 */
export function surroundings(out: Float32Array, region: Region, { stops, soft, pools }: Surround): void {
  const { fullWidth, fullHeight, left, top, width, height } = region;
  out.fill(0);
  for (const { u, v, across, down } of pools) {
    const clamp = (value: number, most: number) => Math.min(most, Math.max(0, value));
    const x0 = clamp(Math.floor((u - across) * fullWidth) - left, width);
    const x1 = clamp(Math.ceil((u + across) * fullWidth) - left, width);
    const y0 = clamp(Math.floor((v - down) * fullHeight) - top, height);
    const y1 = clamp(Math.ceil((v + down) * fullHeight) - top, height);
    for (let y = y0; y < y1; y++) {
      const dy = ((top + y + 0.5) / fullHeight - v) / down;
      for (let x = x0; x < x1; x++) {
        const dx = ((left + x + 0.5) / fullWidth - u) / across;
        const t = clamp((1 - Math.sqrt(dx * dx + dy * dy)) / Math.max(1e-3, soft), 1);
        const i = y * width + x;
        out[i] = Math.max(out[i], t * t * (3 - 2 * t));
      }
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = 2 ** (stops * (out[i] - 1));
}
