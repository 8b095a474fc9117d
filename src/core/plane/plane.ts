/** One number per pixel, row-major from the top left. `data` has width * height floats. */
export interface Plane {
  width: number;
  height: number;
  data: Float32Array;
}

/** Three planes of one picture in scene-linear light. */
export interface RgbPlanes {
  width: number;
  height: number;
  r: Float32Array;
  g: Float32Array;
  b: Float32Array;
}

/** A plane of zeros. */
export function createPlane(width: number, height: number): Plane {
  return { width, height, data: new Float32Array(width * height) };
}
