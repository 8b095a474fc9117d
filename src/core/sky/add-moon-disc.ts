import type { Camera } from '../geometry/camera';
import type { Rgb } from '../color/rgb';
import { add, normalize, scale, type Vec3 } from '../geometry/vec3';
import type { Box } from '../plane/box';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { besideDirection, projectDirection } from './direction';
import { createDirectionRow, directionRow } from './direction-row';
import { createMoonDisc, MOON_RADIUS, type MoonGround, type MoonLook } from './moon-disc';

/** What the moon in a picture's sky is weighed with. */
export interface MoonWeights {
  toward: Vec3;
  look: MoonLook;
  /** Its bright land, as the film holds it. */
  disc: Rgb;
  /** Light that it sends to the scene: illuminance as light of the picture, which haze and cloud give on per steradian. */
  light: Rgb;
  /** Share of it that haze gives on. */
  haze: number;
}

/** Places on the rim of the disc that say where it is seen, and how much beyond them is looked at. */
const RIM = 24;
const BEYOND = 1.05;

/**
 * Adds the moon's disc where it is seen.
 *
 * @param out light of the picture, of the region
 * @param left what a pixel gets of its light, 0 to 1
 */
export function addMoonDisc(
  out: RgbPlanes,
  { toward, look, disc }: MoonWeights,
  ground: MoonGround,
  camera: Camera,
  region: Region,
  left: (pixel: number) => number,
): void {
  const pixel = 0.5 / (camera.focal * region.fullWidth);
  const box = boxOf(toward, BEYOND * MOON_RADIUS * look.size + 2 * pixel, camera, region);
  if (box.top >= box.bottom || box.left >= box.right) return;
  const brightness = createMoonDisc(toward, look, pixel, ground);
  const row = createDirectionRow(region.width);
  for (let y = box.top; y < box.bottom; y++) {
    directionRow(row, camera, region, y);
    for (let x = box.left; x < box.right; x++) {
      const own = brightness([row.x[x], row.y[x], row.z[x]]);
      if (own === 0) continue;
      const i = y * region.width + x;
      const seen = own * left(i);
      out.r[i] += disc[0] * seen;
      out.g[i] += disc[1] * seen;
      out.b[i] += disc[2] * seen;
    }
  }
}

/** The part of a region in which anything within an angle of a direction may be seen. */
function boxOf(
  toward: Vec3,
  angle: number,
  camera: Camera,
  { left, top, width, height, fullWidth, fullHeight }: Region,
): Box {
  const { side, up } = besideDirection(toward);
  const rim = Array.from({ length: RIM }, (_, k) => {
    const [aside, above] = [Math.cos((2 * Math.PI * k) / RIM), Math.sin((2 * Math.PI * k) / RIM)];
    const beside = add(scale(side, aside), scale(up, above));
    return projectDirection(camera, normalize(add(toward, scale(beside, Math.tan(angle)))));
  });
  const seen = rim.filter((place) => place !== undefined);
  // Partly beside or behind the eye: anywhere, or nowhere.
  if (seen.length < RIM) {
    const none = seen.length === 0;
    return { left: 0, top: 0, right: none ? 0 : width, bottom: none ? 0 : height };
  }
  const xs = seen.map(({ u }) => u * fullWidth - left);
  const ys = seen.map(({ v }) => v * fullHeight - top);
  return {
    left: Math.max(0, Math.floor(Math.min(...xs)) - 1),
    right: Math.min(width, Math.ceil(Math.max(...xs)) + 1),
    top: Math.max(0, Math.floor(Math.min(...ys)) - 1),
    bottom: Math.min(height, Math.ceil(Math.max(...ys)) + 1),
  };
}
