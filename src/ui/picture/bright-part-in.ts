import { brightPart } from '@/core/fixture/bright-part';
import { clampTo, RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import { outlineRow } from '@/core/geometry/outline-row';
import type { FixtureValues } from '@/core/scene/schema';
import { canvasPart } from './canvas-part';

/** Shoulder of a key that was found, against the tones above it. */
const SOFT = 0.3;

/** What a glow key begins with: the tone from which the bright part of its outline begins, and that part's own colour. */
export function brightPartIn(day: HTMLCanvasElement | null, path: readonly PlatePoint[]): FixtureValues {
  if (!day || day.width === 0) return {};
  const { left, top, width, height, codes } = canvasPart(day, path, 0);
  const region = { fullWidth: day.width, fullHeight: day.height, left, top, width, height };
  const counts = new Float32Array(width * height);
  for (let y = 0; y < height; y++) outlineRow(counts.subarray(y * width, (y + 1) * width), path, region, y);
  const found = brightPart(codes, counts);
  if (!found) return {};
  const soft = clampTo(SOFT * (1 - found.low), RANGES.shoulder);
  return { low: found.low, soft, gel: { from: 'picture', kelvin: 4000, color: found.color } };
}
