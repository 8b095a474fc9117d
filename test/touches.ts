import { kelvinGel } from '@/core/fixture/kelvin-gel';
import type { PaintStroke } from '@/core/matte/pass';
import type { Touch } from '@/core/scene/schema';

/** A stroke across the middle of the picture's lower half. */
export const testStroke = (more: Partial<PaintStroke> = {}): PaintStroke => ({
  path: [0.3, 0.8, 1, 0.6, 0.8, 1],
  ...{ size: 0.08, soft: 0.5, flow: 0.2, strength: 1, erase: false, pressure: 'none' },
  ...more,
});

/** A touch on the street's circuit. */
export const testTouch = (id: string, { circuit = 'street', ...more }: Partial<Touch> = {}): Touch => ({
  ...{ id, name: id, does: 'surface', gel: kelvinGel(2700), amount: 2, strokes: [testStroke()] },
  ...(more.does !== 'lift' && { circuit }),
  ...more,
});
