/** How far within an outline a place lies; below 0 outside of it. */
export function withinOutline(
  corners: readonly (readonly [x: number, y: number])[],
  x: number,
  y: number,
): number {
  let nearest = Infinity;
  let inside = false;
  for (let k = 0; k < corners.length; k++) {
    const [ax, ay] = corners[k];
    const [bx, by] = corners[(k + 1) % corners.length];
    const [ex, ey] = [bx - ax, by - ay];
    const [wx, wy] = [x - ax, y - ay];
    const along = Math.min(1, Math.max(0, (wx * ex + wy * ey) / Math.max(1e-12, ex * ex + ey * ey)));
    nearest = Math.min(nearest, (wx - along * ex) ** 2 + (wy - along * ey) ** 2);
    if (ay <= y !== by <= y && x < ax + ((y - ay) / ey) * ex) inside = !inside;
  }
  return (inside ? 1 : -1) * Math.sqrt(nearest);
}
