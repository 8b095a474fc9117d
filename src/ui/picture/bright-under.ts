import { brightSpots } from '@/core/lens/bright-spots';
import type { PlatePoint } from '@/core/geometry/camera';
import { canvasPart } from './canvas-part';
import { shownOn } from './picture-painter';

/** What is bright in a canvas under a stroke. @param reach half the breadth of the stroke, fraction of the width */
export function brightUnder(
  canvas: HTMLCanvasElement | null,
  drawn: readonly PlatePoint[],
  reach: number,
): PlatePoint[] {
  if (!canvas || canvas.width === 0 || drawn.length === 0) return [];
  // Looked at closely, a canvas holds a part of the plate.
  const shown = shownOn(canvas);
  const own = drawn.map(({ u, v }) => ({ u: (u - shown.u) / shown.width, v: (v - shown.v) / shown.height }));
  const broad = reach / shown.width;
  const { left, top, width, height, codes } = canvasPart(canvas, own, broad);
  const radius = broad * canvas.width;
  const places = own.map(({ u, v }) => [u * canvas.width - left - 0.5, v * canvas.height - top - 0.5]);
  const under = Float32Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    return places.some(([px, py]) => Math.hypot(px - x, py - y) <= radius) ? 1 : 0;
  });
  const data = under.map(
    (_, i) => (0.21 * codes[4 * i] + 0.72 * codes[4 * i + 1] + 0.07 * codes[4 * i + 2]) / 255,
  );
  return brightSpots({ width, height, data }, under, radius).map(({ x, y }) => ({
    u: shown.u + (shown.width * (left + x + 0.5)) / canvas.width,
    v: shown.v + (shown.height * (top + y + 0.5)) / canvas.height,
  }));
}
