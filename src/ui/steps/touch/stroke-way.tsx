import type { PaintStroke } from '@/core/matte/pass';
import own from './touch.module.css';

interface StrokeWayProps {
  stroke: Pick<PaintStroke, 'path' | 'size' | 'erase'>;
  /** Size of the plate as it is drawn, pixels. */
  width: number;
  height: number;
}

/** Most places of a way that are drawn: it is a sign, not the stroke. */
const MOST = 400;

/** Where a stroke runs, drawn as wide as it is. */
export function StrokeWay({ stroke: { path, size, erase }, width, height }: StrokeWayProps) {
  const places: string[] = [];
  const step = 3 * Math.max(1, Math.ceil(path.length / 3 / MOST));
  for (let i = 0; i + 2 < path.length; i += step) places.push(`${path[i] * width} ${path[i + 1] * height}`);
  return (
    <path
      className={own.way}
      data-erase={erase || undefined}
      strokeWidth={Math.max(1.5, 2 * size * width)}
      d={`M${places[0]}L${places.join('L')}`}
    />
  );
}
