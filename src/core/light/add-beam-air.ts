import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import type { Region } from '../plane/region';
import { belowCutoff, NO_CUTOFF, type PointLight } from './point-light';

/** Error function (Abramowitz and Stegun 1964, 7.1.28; error under 4e-7). */
function erf(x: number): number {
  const t = Math.abs(x);
  let p = 0.0000430638;
  p = p * t + 0.0002765672;
  p = p * t + 0.0001520143;
  p = p * t + 0.0092705272;
  p = p * t + 0.0422820123;
  p = p * t + 0.0705230784;
  p = p * t + 1;
  const p2 = p * p;
  const p4 = p2 * p2;
  const p8 = p4 * p4;
  return Math.sign(x) * (1 - 1 / (p8 * p8));
}

/** An angle by its sine and cosine; from a right angle on some angle of that side, since no beam is so broad. */
function angleOf(sine: number, cosine: number): number {
  if (cosine <= 0) return Math.sign(sine) * FAR;
  const s2 = sine * sine;
  return sine * (1 + s2 * (1 / 6 + s2 * (3 / 40 + s2 * (15 / 336))));
}

/** Radians at which every beam has ended. */
const FAR = 1.6;

/** Beams dimmer than this share of their middle along all of a view ray are left out. */
const LEAST = 1e-4;

/** What of a beam is the same along every view ray: root of half its power, its weight, and the cosine under which it is too dim. */
export function beamShape(airCandela: number, focus: number) {
  const power = 2 ** focus;
  return {
    narrow: Math.sqrt(power / 2),
    weight: (airCandela / (4 * Math.PI)) * Math.sqrt(Math.PI / (2 * power)),
    least: LEAST ** (1 / power),
  };
}

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
  const { narrow, weight, least } = beamShape(airCandela, focus);
  const [px, py, pz] = [place[0], place[1], place[2] - eyeHeight];
  const [fx, fy, fz] = facing;
  const soft = radius * radius;
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
      const end = reach[i] * rayLength - t0;
      const [toFirst, toLast] = [Math.sqrt(h * h + t0 * t0), Math.sqrt(h * h + end * end)];
      // Sines and cosines of the angles at which the source sees the ray's begin, its end, and the beam's middle.
      const [sf, cf, sl, cl] = [-t0 / toFirst, h / toFirst, end / toLast, h / toLast];
      const [sm, cm] = [along / nearest, ahead / nearest];
      const [fromMiddle, pastFirst] = [sl * cm - cl * sm, sf * cm - cf * sm];
      const seen =
        erf(narrow * angleOf(fromMiddle, cl * cm + sl * sm)) -
        erf(narrow * angleOf(pastFirst, cf * cm + sf * sm));
      if (seen <= 0) continue;
      // Where along the ray the beam is brightest: its middle, or the end that is nearer to it.
      const [sa, ca] = fromMiddle < 0 ? [sl, cl] : pastFirst > 0 ? [sf, cf] : [sm, cm];
      const sine = (sa * rz) / rayLength - (ca * cz) / away;
      let brightest = nearest;
      for (let turn = 0; turn < focus; turn++) brightest *= brightest;
      out[i] += (weight * brightest * seen * belowCutoff(cutoff, sine)) / h;
    }
  }
}
