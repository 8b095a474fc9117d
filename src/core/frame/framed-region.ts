import type { Region } from '../plane/region';
import { plateFromFrame, type Frame } from './frame';

/** Pixels around what is shown, so that sampling finds neighbours. */
const MARGIN = 2;

/** A part of a frame: left, top, width and height as fractions of it. */
export interface FramePart {
  left: number;
  top: number;
  width: number;
  height: number;
}

/**
 * The smallest region of a plate of some size that holds a part of a frame, a little margin around it where it is turned.
 * It keeps to multiples of `grid` pixels.
 */
export function framedRegion(
  frame: Frame,
  part: FramePart,
  { width, height }: { width: number; height: number },
  aspect: number,
  grid = 1,
): Region {
  const corners = [0, 1].flatMap((i) =>
    [0, 1].map((j) =>
      plateFromFrame(frame, aspect, { u: part.left + i * part.width, v: part.top + j * part.height }),
    ),
  );
  const margin = frame.angle === 0 ? 0 : MARGIN;
  const span = (places: number[], full: number) => {
    const low = Math.min(...places) * full;
    const high = Math.max(...places) * full;
    // What lies within a thousandth of a pixel is that pixel: fractions carry no more.
    const from = Math.floor((Math.floor(low + 1e-3) - margin) / grid) * grid;
    const to = Math.ceil((Math.ceil(high - 1e-3) + margin) / grid) * grid;
    const start = Math.min(full - 1, Math.max(0, from));
    return { start, size: Math.max(1, Math.min(full, to) - start) };
  };
  const across = span(
    corners.map(({ u }) => u),
    width,
  );
  const down = span(
    corners.map(({ v }) => v),
    height,
  );
  return {
    fullWidth: width,
    fullHeight: height,
    left: across.start,
    top: down.start,
    width: across.size,
    height: down.size,
  };
}
