/** How far within an outline a place lies; below 0 outside of it. */
export function withinOutline(
  corners: readonly (readonly [x: number, y: number])[],
  x: number,
  y: number,
): number {
  let nearest = Infinity;
  let inside = false;
  for (let k = 0; k < corners.length; k++) {
    const from = corners[k];
    const to = corners[k + 1 < corners.length ? k + 1 : 0];
    const ax = from[0];
    const ay = from[1];
    const by = to[1];
    const ex = to[0] - ax;
    const ey = by - ay;
    const wx = x - ax;
    const wy = y - ay;
    const along = Math.min(1, Math.max(0, (wx * ex + wy * ey) / Math.max(1e-12, ex * ex + ey * ey)));
    const offX = wx - along * ex;
    const offY = wy - along * ey;
    nearest = Math.min(nearest, offX * offX + offY * offY);
    if (ay <= y !== by <= y && x < ax + ((y - ay) / ey) * ex) inside = !inside;
  }
  return (inside ? 1 : -1) * Math.sqrt(nearest);
}
