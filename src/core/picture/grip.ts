import { LUMINANCE } from '../color/luminance';
import { srgb } from '../color/srgb';
import { smoothStep } from '../plane/smooth-step';
import type { RgbPlanes } from '../plane/plane';
import type { Grip } from '../scene/schema';

/** Steps of the table from the square root of light to a share. */
const STEPS = 1024;

/** Share of a light that a part with a display tone takes, 0 to 2: level at both ends, with a soft way between them. */
export function gripShare({ dark, bright, darkShare, brightShare }: Grip, tone: number): number {
  return darkShare + (brightShare - darkShare) * smoothStep(dark, Math.max(dark + 1e-3, bright), tone);
}

/** Whether all parts take all of the light. */
export const isPlainGrip = ({ darkShare, brightShare }: Grip): boolean =>
  darkShare === 1 && brightShare === 1;

/** Spill as what lies beneath takes it, by the tones of the day. `out` may be the spill. */
export function applyGrip(out: Float32Array, spill: Float32Array, { r, g, b }: RgbPlanes, grip: Grip): void {
  const shares = Float32Array.from({ length: STEPS + 1 }, (_, i) =>
    gripShare(grip, srgb.encode((i / STEPS) ** 2)),
  );
  for (let i = 0; i < out.length; i++) {
    const light = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
    out[i] = spill[i] * shares[Math.round(Math.sqrt(Math.min(1, Math.max(0, light))) * STEPS)];
  }
}
