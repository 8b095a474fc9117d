import type { Camera, PlatePoint } from '../geometry/camera';
import { onPlane, planeToPlate, type UprightPlane } from '../geometry/upright-plane';
import { betweenPixels } from '../plane/between-pixels';
import type { Plane } from '../plane/plane';
import { hypot } from '../plane/hypot';

/** Metres that a pixel of a view spans along its plane and up. */
export interface ViewScale {
  along: number;
  up: number;
}

/** Part of a plate as it would be seen square onto an upright plane: what is level on it is level, what is upright upright. */
export interface SquareView extends Plane {
  /** The place of the plate that is seen at a place of the view, pixels; whole numbers are middles of pixels. */
  toPlate: (x: number, y: number) => PlatePoint;
  /** The pixel at which it was asked for. */
  middle: { x: number; y: number };
  metres: ViewScale;
}

/** Coarsest step along a plane that is seen nearly from its edge, against the one up. */
const SLANTED = 12;

/** Metres within which a plane is measured. */
const NEAR = 1e-3;

/** The scale at which pixels of a view are as large as the plate's at a place. Undefined where the plane is not seen. */
export function scaleOnPlane(
  { width, height }: Pick<Plane, 'width' | 'height'>,
  camera: Camera,
  plane: UprightPlane,
  at: PlatePoint,
): ViewScale | undefined {
  const place = onPlane(camera, plane, at);
  const seen = planeToPlate(camera, { ...plane, point: [place[0], place[1], 0] });
  const pixels = (along: number, up: number): number => {
    const there = seen(along, place[2] + up);
    return there ? hypot((there.u - at.u) * width, (there.v - at.v) * height) : 0;
  };
  const up = NEAR / pixels(0, NEAR);
  const along = Math.min(NEAR / pixels(NEAR, 0), SLANTED * up);
  return Number.isFinite(along + up) ? { along, up } : undefined;
}

/**
 * The view onto a plane around a place of the plate.
 *
 * @param plate one channel of the plate, in codes, at least 2 pixels wide and high
 * @param reach how far it goes around the place, pixels
 */
export function squareView(
  plate: Plane,
  camera: Camera,
  plane: UprightPlane,
  at: PlatePoint,
  metres: ViewScale,
  reach: { left: number; right: number; above: number; below: number },
): SquareView {
  const place = onPlane(camera, plane, at);
  const seen = planeToPlate(camera, { ...plane, point: [place[0], place[1], 0] });
  const middle = { x: reach.left, y: reach.above };
  const toPlate = (x: number, y: number): PlatePoint =>
    seen((x - middle.x) * metres.along, place[2] - (y - middle.y) * metres.up) ?? at;
  const [width, height] = [reach.left + reach.right + 1, reach.above + reach.below + 1];
  const data = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const { u, v } = toPlate(x, y);
      data[y * width + x] = betweenPixels(plate, u * plate.width - 0.5, v * plate.height - 0.5);
    }
  }
  return { width, height, data, toPlate, middle, metres };
}
