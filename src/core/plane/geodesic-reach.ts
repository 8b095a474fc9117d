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
  // A place may lie in the heap more than once: what is dearer than its cost by now is passed over.
  const heap = createHeap(2 * width * height);
  const relax = (from: number, to: number, dx: number, dy: number) => {
    if (barred[to]) return;
    const reached = Math.fround(out[from] + cost(from, to, dx, dy));
    if (reached >= out[to]) return;
    out[to] = reached;
    if (labels) labels[to] = labels[from];
    heap.put(to, reached);
  };

  for (let i = 0; i < out.length; i++) if (out[i] < Infinity) heap.put(i, out[i]);
  for (let from = heap.take(); from >= 0; from = heap.take()) {
    if (heap.taken() > out[from]) continue;
    const x = from % width;
    if (x > 0) relax(from, from - 1, -1, 0);
    if (x < width - 1) relax(from, from + 1, 1, 0);
    if (from >= width) relax(from, from - width, 0, -1);
    if (from < width * (height - 1)) relax(from, from + width, 0, 1);
  }
}

/** A binary heap of whole numbers by their costs, in flat arrays; it grows as it must. */
function createHeap(room: number) {
  let costs = new Float32Array(room + 1);
  let items = new Int32Array(room + 1);
  let count = 0;
  let last = 0;

  function put(item: number, cost: number): void {
    if (++count === costs.length) {
      const [before, all] = [costs, items];
      costs = new Float32Array(2 * count);
      items = new Int32Array(2 * count);
      costs.set(before);
      items.set(all);
    }
    let hole = count;
    for (let above = hole >> 1; above > 0 && costs[above] > cost; above = hole >> 1) {
      costs[hole] = costs[above];
      items[hole] = items[above];
      hole = above;
    }
    costs[hole] = cost;
    items[hole] = item;
  }

  /** The cheapest item; -1 where there is none. */
  function take(): number {
    if (count === 0) return -1;
    const item = items[1];
    last = costs[1];
    const cost = costs[count];
    const moved = items[count--];
    let hole = 1;
    for (let child = 2; child <= count; child = 2 * hole) {
      if (child < count && costs[child + 1] < costs[child]) child++;
      if (costs[child] >= cost) break;
      costs[hole] = costs[child];
      items[hole] = items[child];
      hole = child;
    }
    costs[hole] = cost;
    items[hole] = moved;
    return item;
  }

  /** What the item that was taken last had cost when it was put. */
  return { put, take, taken: () => last };
}
