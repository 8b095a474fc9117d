import type { KeyboardEvent } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';

/** How far an arrow key moves something in the picture: `step` of the plate, with Shift `coarse` times as far. */
export function nudgeOf(
  { key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>,
  step: number,
  coarse = 10,
): PlatePoint | undefined {
  const by = step * (shiftKey ? coarse : 1);
  switch (key) {
    case 'ArrowLeft':
      return { u: -by, v: 0 };
    case 'ArrowRight':
      return { u: by, v: 0 };
    case 'ArrowUp':
      return { u: 0, v: -by };
    case 'ArrowDown':
      return { u: 0, v: by };
    default:
      return undefined;
  }
}
