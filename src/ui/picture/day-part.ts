import type { PlatePoint } from '@/core/geometry/camera';

/** The part of the day's canvas around some places: its codes, and where it lies, pixels. */
export interface DayPart {
  left: number;
  top: number;
  width: number;
  height: number;
  codes: Uint8ClampedArray;
}

/** @param margin around the places, fraction of the canvas */
export function dayAround(day: HTMLCanvasElement, path: readonly PlatePoint[], margin: number): DayPart {
  const span = (values: number[], side: number) => {
    const from = Math.min(side - 1, Math.max(0, Math.floor((Math.min(...values) - margin) * side)));
    return [
      from,
      Math.max(1, Math.min(side, Math.ceil((Math.max(...values) + margin) * side)) - from),
    ] as const;
  };
  const [left, width] = span(
    path.map(({ u }) => u),
    day.width,
  );
  const [top, height] = span(
    path.map(({ v }) => v),
    day.height,
  );
  const { data } = day.getContext('2d')!.getImageData(left, top, width, height);
  return { left, top, width, height, codes: data };
}
