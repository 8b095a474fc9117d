/** What a step from one pixel to a neighbour costs. `dx` and `dy` are -1, 0 or 1, and one of them is 0. */
export type StepCost = (from: number, to: number, dx: number, dy: number) => number;

/**
 * Cheapest cost from any seed to every pixel by steps up, down, left and right (Dijkstra 1959). `out` holds the
 * seeds' own costs on entry (Infinity elsewhere) and the reached costs on return. Costs must not be negative.
 *
 * @param barred width * height, not 0 where no path may enter
 * @param labels if given, a value per pixel that travels along each cheapest path from its seed
 */
export function geodesicReach(
  out: Float32Array,
  barred: Uint8Array,
  width: number,
  height: number,
  cost: StepCost,
  labels?: Float32Array,
): void {
  const heap = new Int32Array(width * height + 1);
  const slot = new Int32Array(width * height);
  let count = 0;

  const lift = (index: number, at: number) => {
    let hole = at;
    while (hole > 1 && out[heap[hole >> 1]] > out[index]) {
      heap[hole] = heap[hole >> 1];
      slot[heap[hole]] = hole;
      hole >>= 1;
    }
    heap[hole] = index;
    slot[index] = hole;
  };
  const takeNearest = (): number => {
    const nearest = heap[1];
    slot[nearest] = 0;
    const last = heap[count--];
    let hole = 1;
    for (let child = 2; child <= count; child = hole * 2) {
      if (child < count && out[heap[child + 1]] < out[heap[child]]) child++;
      if (out[heap[child]] >= out[last]) break;
      heap[hole] = heap[child];
      slot[heap[hole]] = hole;
      hole = child;
    }
    if (count > 0) {
      heap[hole] = last;
      slot[last] = hole;
    }
    return nearest;
  };

  const relax = (from: number, to: number, dx: number, dy: number) => {
    if (barred[to]) return;
    const reached = out[from] + cost(from, to, dx, dy);
    if (reached >= out[to]) return;
    out[to] = reached;
    if (labels) labels[to] = labels[from];
    lift(to, slot[to] || ++count);
  };

  for (let i = 0; i < out.length; i++) if (out[i] < Infinity) lift(i, ++count);
  while (count > 0) {
    const from = takeNearest();
    const x = from % width;
    if (x > 0) relax(from, from - 1, -1, 0);
    if (x < width - 1) relax(from, from + 1, 1, 0);
    if (from >= width) relax(from, from - width, 0, -1);
    if (from < width * (height - 1)) relax(from, from + width, 0, 1);
  }
}
