import type { Camera } from '../geometry/camera';
import type { Region } from '../plane/region';
import { rayThrough } from '../geometry/camera';
import type { Card } from './placed-card';
import { hypot } from '../plane/hypot';

/** Height over the foot's level up to which a place counts as what it stands on, metres. */
const LEVEL = 0.06;

/** Nearest distance at which the formula is read, metres: what stands has some depth of its own. */
const NEAREST = 0.02;

/**
 * Share of a level place's sky that an upright rectangle hides, its lower corner `aside` along it: the view factor from a small level
 * patch to a rectangle at right angles to it (Hamilton and Morgan 1952).
 *
 * @param aside from the patch to the rectangle's far end, along it, metres
 * @param off from the patch to the rectangle's plane, metres
 * @param height metres
 */
export function hiddenByUpright(aside: number, off: number, height: number): number {
  const slant = hypot(off, height);
  return (Math.atan(aside / off) - (off / slant) * Math.atan(aside / slant)) / (2 * Math.PI);
}

/** What stands at a place, as it keeps light off the ground around. */
export interface Contact {
  card: Pick<Card, 'foot' | 'turn'>;
  /** Width of what stands at its foot, and its height, metres. */
  width: number;
  height: number;
  /** How far it does, 0 to 1. */
  strength: number;
}

/**
 * Darkens what falls from the whole sky on the ground around a foot.
 *
 * @param factors of ambient light, of the region; changed in place
 * @param reach of the region's relief
 */
export function addContact(
  factors: Float32Array,
  reach: Float32Array,
  camera: Camera,
  region: Region,
  { card, width, height, strength }: Contact,
): void {
  const [fx, fy, fz] = card.foot;
  const [cos, sin] = [Math.cos(card.turn), Math.sin(card.turn)];
  const farthest = 3 * Math.max(width, Math.min(height, 4 * width));
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const [rx, ry, rz] = rayThrough(camera, { u: 0, v });
    for (let x = 0; x < region.width; x++, i++) {
      const u = (region.left + x + 0.5) / region.fullWidth;
      const k = reach[i];
      if (Math.abs(camera.eyeHeight + (rz + u * camera.across[2]) * k - fz) > LEVEL) continue;
      const [dx, dy] = [(rx + u * camera.across[0]) * k - fx, (ry + u * camera.across[1]) * k - fy];
      if (Math.abs(dx) > farthest || Math.abs(dy) > farthest) continue;
      const along = cos * dx + sin * dy;
      const off = Math.max(NEAREST, Math.abs(cos * dy - sin * dx));
      const hidden =
        hiddenByUpright(width / 2 - along, off, height) + hiddenByUpright(width / 2 + along, off, height);
      factors[i] *= 1 - strength * Math.max(0, hidden);
    }
  }
}

/** Share of what stands, from below, in which its width at the foot is read. */
const FOOT = 0.06;

/**
 * Width of what stands at its foot, as a fraction of its whole width.
 *
 * @param coverage of the whole picture
 */
export function footWidth(
  coverage: Float32Array,
  width: number,
  height: number,
  { left, top, right, bottom }: Card['body'],
): number {
  const lowest = Math.min(height - 1, Math.floor(bottom * height - 1e-6));
  const from = Math.max(0, Math.floor((bottom - FOOT * (bottom - top)) * height));
  let [first, last] = [width, -1];
  for (let y = from; y <= lowest; y++) {
    for (let x = Math.floor(left * width); x < Math.min(width, Math.ceil(right * width)); x++) {
      if (coverage[y * width + x] < 0.5) continue;
      first = Math.min(first, x);
      last = Math.max(last, x);
    }
  }
  return last < first ? 0 : Math.min(1, (last - first + 1) / ((right - left) * width));
}
