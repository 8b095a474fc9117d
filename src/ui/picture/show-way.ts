import type { PlatePoint } from '@/core/geometry/camera';

/** Shows a way of the plate on its trail; it is lifted before the points of `breaks`. */
export function showWay(
  trail: SVGPathElement | null,
  path: readonly PlatePoint[],
  closed = false,
  breaks: readonly number[] = [],
): void {
  const svg = trail?.ownerSVGElement;
  if (!svg) return;
  const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
  const points = path.map(
    ({ u, v }, i) => `${i === 0 || breaks.includes(i) ? 'M' : 'L'}${u * width} ${v * height}`,
  );
  trail.setAttribute('d', path.length > 1 ? `${points.join('')}${closed ? 'Z' : ''}` : '');
  trail.setAttribute('stroke-width', '1.5');
}
