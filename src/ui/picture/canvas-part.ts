import type { PlatePoint } from '@/core/geometry/camera';

/** The part of a canvas around some places: its codes, and where it lies, pixels. */
export interface CanvasPart {
  left: number;
  top: number;
  width: number;
  height: number;
  codes: Uint8ClampedArray;
}

/** @param margin around the places, fraction of the canvas */
export function canvasPart(
  canvas: HTMLCanvasElement,
  path: readonly PlatePoint[],
  margin: number,
): CanvasPart {
  const span = (values: number[], side: number) => {
    const from = Math.min(side - 1, Math.max(0, Math.floor((Math.min(...values) - margin) * side)));
    return [
      from,
      Math.max(1, Math.min(side, Math.ceil((Math.max(...values) + margin) * side)) - from),
    ] as const;
  };
  const [left, width] = span(
    path.map(({ u }) => u),
    canvas.width,
  );
  const [top, height] = span(
    path.map(({ v }) => v),
    canvas.height,
  );
  const { data } = canvas.getContext('2d')!.getImageData(left, top, width, height);
  return { left, top, width, height, codes: data };
}
