import type { Camera } from '../plan/camera';
import type { Relief } from '../plan/relief';
import type { Region } from '../plane/region';
import { belowCutoff, NO_CUTOFF, type PointLight } from '../spill/point-light';

/** Error function (Abramowitz and Stegun 1964, 7.1.26; error under 2e-7). */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const series =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  return Math.sign(x) * (1 - series * Math.exp(-x * x));
}

/** Beams dimmer than this share of their middle along all of a view ray are left out. */
const LEAST = 1e-5;

/**
 * Adds what thin even haze scatters toward the eye from a beam: single scattering as in `addPointAir`, in the angle under
 * which the source sees the view ray. Along the ray a beam of cos^n is R^n cos^n(angle - middle), R the cosine at which the ray
 * comes nearest to its middle; for the narrow beams of headlamps cos^n(x) is near exp(-n x^2 / 2), whose integral is an error
 * function. The cut-off is taken where the ray comes nearest to the middle. Nothing is added by a light without a focus.
 *
 * `out` and `reach` have one float per pixel of `region`. Times the scattering coefficient per metre it is cd/m2.
 */
export function addBeamAir(
  out: Float32Array,
  reach: Relief['reach'],
  camera: Camera,
  region: Region,
  { place, airCandela, radius, facing, focus, cutoff = NO_CUTOFF }: PointLight,
): void {
  if (airCandela === 0 || focus === undefined || !facing) return;
  const { corner, across, down, eyeHeight } = camera;
  const power = 2 ** focus;
  const narrow = Math.sqrt(power / 2);
  const weight = (airCandela / (4 * Math.PI)) * Math.sqrt(Math.PI / (2 * power));
  const [px, py, pz] = [place[0], place[1], place[2] - eyeHeight];
  const [fx, fy, fz] = facing;
  const soft = radius * radius;
  // What is outside of this cosine is too dim.
  const least = LEAST ** (1 / power);
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const row = [0, 1, 2].map((c) => corner[c] + v * down[c]);
    for (let x = 0; x < region.width; x++, i++) {
      const u = (region.left + x + 0.5) / region.fullWidth;
      const rx = row[0] + u * across[0];
      const ry = row[1] + u * across[1];
      const rz = row[2] + u * across[2];
      const rayLength = Math.sqrt(rx * rx + ry * ry + rz * rz);
      const t0 = (px * rx + py * ry + pz * rz) / rayLength;
      // From the source's nearest place on the ray to the source.
      const k = t0 / rayLength;
      const cx = px - k * rx;
      const cy = py - k * ry;
      const cz = pz - k * rz;
      const away = Math.sqrt(cx * cx + cy * cy + cz * cz) + 1e-9;
      // The beam's direction in the plane of source and ray: toward that place, and along the ray.
      const ahead = -(fx * cx + fy * cy + fz * cz) / away;
      const along = (fx * rx + fy * ry + fz * rz) / rayLength;
      const nearest = Math.sqrt(ahead * ahead + along * along);
      if (nearest < least) continue;
      const h = Math.sqrt(away * away + soft);
      const first = Math.atan(-t0 / h);
      const last = Math.atan((reach[i] * rayLength - t0) / h);
      const middle = Math.atan2(along, ahead);
      const seen = erf(narrow * (last - middle)) - erf(narrow * (first - middle));
      if (seen <= 0) continue;
      const at = Math.min(last, Math.max(first, middle));
      const sine = (Math.sin(at) * rz) / rayLength - (Math.cos(at) * cz) / away;
      out[i] += (weight * nearest ** power * seen * belowCutoff(cutoff, sine)) / h;
    }
  }
}
