/**
 * Lists what can be reached from a seed through allowed pixels, by steps up, down, left and right.
 *
 * @param out room for width * height pixel indices; holds the reached ones on return, in no order
 * @param allowed width * height, 1 for a pixel that may be entered; restored on return
 * @param seed pixel index
 * @returns how many pixels were reached
 */
export function flood(
  out: Int32Array,
  allowed: Uint8Array,
  width: number,
  height: number,
  seed: number,
): number {
  const visited = 2;
  let found = 0;
  const visit = (i: number) => {
    if (allowed[i] !== 1) return;
    allowed[i] = visited;
    out[found++] = i;
  };
  visit(seed);
  for (let next = 0; next < found; next++) {
    const i = out[next];
    const x = i % width;
    if (x > 0) visit(i - 1);
    if (x < width - 1) visit(i + 1);
    if (i >= width) visit(i - width);
    if (i < width * (height - 1)) visit(i + width);
  }
  for (let k = 0; k < found; k++) allowed[out[k]] = 1;
  return found;
}
