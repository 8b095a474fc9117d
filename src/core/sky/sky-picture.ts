import { luminance } from '../color/luminance';
import type { PlatePoint } from '../geometry/camera';
import { betweenPixels } from '../plane/between-pixels';
import type { RgbPlanes } from '../plane/plane';
import { smoothStep } from '../plane/smooth-step';

/** Where a picture of a sky lies on the plate: its middle, its width as a fraction of the plate's, its turn in degrees. */
export interface SkyPicturePlace {
  at: PlatePoint;
  across: number;
  turn: number;
}

/** A picture of a sky, as it is laid behind the skyline. */
export interface LaidPicture {
  picture: RgbPlanes;
  /** Its mean luminance. */
  mean: number;
  place: SkyPicturePlace;
  /** How much of it shows, 0 to 1. */
  share: number;
  /** Stops over the hour's own light, and how far it takes the hour's colour, 0 to 1. */
  exposure: number;
  fit: number;
}

/** How far from its edges a picture fades into the hour's sky, as a fraction of its sides. */
const EDGE = 0.04;

/** Mean luminance of a picture. */
export function meanLuminance({ r, g, b }: RgbPlanes): number {
  let sum = 0;
  for (let i = 0; i < r.length; i++) sum += luminance([r[i], g[i], b[i]]);
  return sum / Math.max(1, r.length);
}

/**
 * Prepares what lays a picture over the sky of one place: its own drawing and colours at the hour's brightness, in the hour's colour as far
 * as it is fitted.
 *
 * @param aspect width of the plate over its height
 * @param hour mean luminance of the hour's sky, cd/m2
 */
export function createPictureLayer(laid: LaidPicture, aspect: number, hour: number) {
  const { picture, mean, place, share, exposure, fit } = laid;
  const { width, height } = picture;
  const planes = [picture.r, picture.g, picture.b].map((data) => ({ width, height, data }));
  const turn = (-place.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const tall = (place.across * height) / width;
  const gain = (hour * 2 ** exposure) / Math.max(1e-4, mean);

  /** Adds the picture to a clear sky at a place of the plate: `sky` becomes what is seen there. */
  return (sky: Float64Array, u: number, v: number): void => {
    const [dx, dy] = [u - place.at.u, (v - place.at.v) / aspect];
    const x = (cos * dx - sin * dy) / place.across + 0.5;
    const y = (sin * dx + cos * dy) / tall + 0.5;
    const inside = Math.min(x, 1 - x, y, 1 - y);
    if (inside <= 0) return;
    const weight = share * smoothStep(0, EDGE, inside);
    const [px, py] = [x * width - 0.5, y * height - 0.5];
    const light = Math.max(1e-9, luminance([sky[0], sky[1], sky[2]]));
    for (let c = 0; c < 3; c++) {
      const tint = 1 + fit * (sky[c] / light - 1);
      sky[c] += weight * (gain * betweenPixels(planes[c], px, py) * tint - sky[c]);
    }
  };
}
