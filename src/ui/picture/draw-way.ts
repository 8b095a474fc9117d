import type { PlatePoint } from '@/core/geometry/camera';

type Trail = SVGPathElement | null;

/** Shows a way on its trail. `drawn` gets what writes a place, and the picture's width in pixels, and gives path data and breadth. */
function show(
  trail: Trail,
  drawn: (at: (u: number, v: number) => string, width: number) => { d: string; wide: number },
): void {
  const svg = trail?.ownerSVGElement;
  if (!svg) return;
  const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
  const { d, wide } = drawn((u, v) => `${u * width} ${v * height}`, width);
  trail.setAttribute('d', d);
  trail.setAttribute('stroke-width', String(wide));
}

/** Breadth of a line that is drawn along places, pixels. */
const LINE = 1.5;

/** Draws the way of a stroke while it grows. `path`: u, v, pressure, one after the other; `wide` in pixels of the picture. */
export function drawWay(
  trail: Trail,
  path: readonly number[],
  closed: boolean,
  wide: (width: number) => number,
): void {
  show(trail, (at, width) => {
    let d = '';
    for (let i = 0; i + 2 < path.length; i += 3) d += `${i === 0 ? 'M' : 'L'}${at(path[i], path[i + 1])}`;
    return { d: closed ? `${d}Z` : d, wide: wide(width) };
  });
}

/** Draws a line through places; it is lifted before the points of `breaks`. */
export function drawLine(
  trail: Trail,
  path: readonly PlatePoint[],
  closed = false,
  breaks: readonly number[] = [],
): void {
  show(trail, (at) => {
    const points = path.map(({ u, v }, i) => `${i === 0 || breaks.includes(i) ? 'M' : 'L'}${at(u, v)}`);
    return { d: path.length > 1 ? `${points.join('')}${closed ? 'Z' : ''}` : '', wide: LINE };
  });
}
