import type { PlatePoint } from '../geometry/camera';

/**
 * The part of the plate that the picture shows: a rectangle around a centre, turned by `angle` degrees so that what leans
 * by as much on the plate stands level in it. Width and height are fractions of the plate's.
 */
export interface Frame extends PlatePoint {
  width: number;
  height: number;
  angle: number;
}

/** The whole plate, as it is. */
export const WHOLE_FRAME: Frame = { u: 0.5, v: 0.5, width: 1, height: 1, angle: 0 };

/** Shortest side of a frame, as a fraction of the plate's. */
export const SMALLEST_FRAME = 0.05;

interface Size {
  width: number;
  height: number;
}

/** Whether a frame leaves the plate as it is. */
export const isWholeFrame = ({ width, height, angle }: Frame): boolean =>
  width === 1 && height === 1 && angle === 0;

/** Size of a frame in pixels of a plate, at least one each way. */
export function framedSize({ width, height }: Size, frame: Pick<Frame, 'width' | 'height'>): Size {
  const pixels = (side: number, part: number) => Math.max(1, Math.round(side * part));
  return { width: pixels(width, frame.width), height: pixels(height, frame.height) };
}

/** A place of the frame (fractions of its width and height) on the plate. `aspect`: the plate's width over its height. */
export function plateFromFrame(frame: Frame, aspect: number, { u: p, v: q }: PlatePoint): PlatePoint {
  const [cos, sin] = turn(frame.angle);
  const x = (p - 0.5) * frame.width;
  const y = ((q - 0.5) * frame.height) / aspect;
  return { u: frame.u + cos * x - sin * y, v: frame.v + aspect * (sin * x + cos * y) };
}

/** A place of the plate in the frame: the inverse of `plateFromFrame`. */
export function frameFromPlate(frame: Frame, aspect: number, { u, v }: PlatePoint): PlatePoint {
  const [cos, sin] = turn(frame.angle);
  const x = u - frame.u;
  const y = (v - frame.v) / aspect;
  return {
    u: 0.5 + (cos * x + sin * y) / frame.width,
    v: 0.5 + ((cos * y - sin * x) * aspect) / frame.height,
  };
}

/** A frame that reaches nowhere out of the plate: made smaller where it must be, then moved inside. */
export function fitFrame(frame: Frame, aspect: number): Frame {
  const [cos, sin] = turn(frame.angle).map(Math.abs);
  const [w, h] = [frame.width, frame.height / aspect];
  const reach = { x: (cos * w + sin * h) / 2, y: ((sin * w + cos * h) / 2) * aspect };
  const shrink = Math.min(1, 0.5 / reach.x, 0.5 / reach.y);
  const inside = (at: number, by: number) => Math.min(1 - by * shrink, Math.max(by * shrink, at));
  return {
    u: inside(frame.u, reach.x),
    v: inside(frame.v, reach.y),
    width: frame.width * shrink,
    height: frame.height * shrink,
    angle: frame.angle,
  };
}

/** The largest frame of a ratio (width over height) that lies within what a frame has now. */
export function withRatio(frame: Frame, ratio: number, aspect: number): Frame {
  const now = (frame.width / frame.height) * aspect;
  return ratio < now
    ? { ...frame, width: (frame.height * ratio) / aspect }
    : { ...frame, height: (frame.width * aspect) / ratio };
}

/** The angle at which a line on the plate is level, or plumb if it is nearer to that; degrees, -45 to 45. */
export function levelAngle(from: PlatePoint, to: PlatePoint, aspect: number): number {
  const degrees = (Math.atan2((to.v - from.v) / aspect, to.u - from.u) * 180) / Math.PI;
  return degrees - 90 * Math.round(degrees / 90);
}

function turn(angle: number): [cos: number, sin: number] {
  const radians = (angle * Math.PI) / 180;
  return [Math.cos(radians), Math.sin(radians)];
}
