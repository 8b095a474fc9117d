/** Draws the way of a stroke while it grows. `path`: u, v, pressure, one after the other; `wide` in pixels of the picture. */
export function drawWay(
  trail: SVGPathElement | null,
  path: readonly number[],
  closed: boolean,
  wide: (width: number) => number,
): void {
  const svg = trail?.ownerSVGElement;
  if (!trail || !svg) return;
  const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
  let d = '';
  for (let i = 0; i + 2 < path.length; i += 3)
    d += `${i === 0 ? 'M' : 'L'}${path[i] * width} ${path[i + 1] * height}`;
  trail.setAttribute('d', closed ? `${d}Z` : d);
  trail.setAttribute('stroke-width', String(wide(width)));
}
