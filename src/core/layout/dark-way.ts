import type { PlatePoint } from '../geometry/camera';
import type { Plane } from '../plane/plane';
import { hypot } from '../plane/hypot';

/** How far aside a line is looked for, pixels, and how much darker than beside it a line has to be, share of that. */
const ASIDE = 5;
const DARKER = 0.12;

/** What a step aside from one place to the next costs against light, share of the mean. */
const STIFF = 0.04;

/** Places along the way that are looked at, pixels apart. */
const STEP = 2;

/** Places evenly along a way, pixels. */
function placesAlong(path: readonly PlatePoint[], { width, height }: Plane): [x: number, y: number][] {
  const points = path.map(({ u, v }): [number, number] => [u * width - 0.5, v * height - 0.5]);
  const places: [number, number][] = [points[0]];
  for (let k = 1; k < points.length; k++) {
    const [[ax, ay], [bx, by]] = [points[k - 1], points[k]];
    const steps = Math.max(1, Math.round(hypot(bx - ax, by - ay) / STEP));
    for (let i = 1; i <= steps; i++)
      places.push([ax + ((bx - ax) * i) / steps, ay + ((by - ay) * i) / steps]);
  }
  return places;
}

function sample({ width, height, data }: Plane, x: number, y: number): number {
  const column = Math.min(width - 1, Math.max(0, Math.round(x)));
  return data[Math.min(height - 1, Math.max(0, Math.round(y))) * width + column];
}

/** Offsets with the least light and the fewest steps aside, by dynamic programming. */
function bestOffsets(light: readonly Float32Array[], stiff: number): number[] {
  const costs = light.map((row) => row.slice());
  const from: Int8Array[] = light.map((row) => new Int8Array(row.length));
  for (let k = 1; k < costs.length; k++) {
    for (let j = 0; j < costs[k].length; j++) {
      let best = Infinity;
      for (const step of [0, -1, 1]) {
        const before = costs[k - 1][j + step];
        if (before === undefined || before + stiff * Math.abs(step) >= best) continue;
        best = before + stiff * Math.abs(step);
        from[k][j] = step;
      }
      costs[k][j] += best;
    }
  }
  const last = costs[costs.length - 1];
  const offsets = [last.indexOf(Math.min(...last))];
  for (let k = costs.length - 1; k > 0; k--) offsets.unshift(offsets[0] + from[k][offsets[0]]);
  return offsets;
}

/**
 * A way that was drawn along a thin dark line of the plate, on the line itself: each place goes aside to where it is darkest, as smoothly
 * as it can. Where there is no darker line the way stays as it was drawn.
 *
 * @param light luminance of the plate, any size
 * @param path as drawn; at least two places
 */
export function darkWay(light: Plane, path: readonly PlatePoint[]): PlatePoint[] {
  const places = placesAlong(path, light);
  const normals = places.map((_, k) => {
    const [a, b] = [places[Math.max(0, k - 1)], places[Math.min(places.length - 1, k + 1)]];
    const length = Math.max(1e-6, hypot(b[0] - a[0], b[1] - a[1]));
    return [-(b[1] - a[1]) / length, (b[0] - a[0]) / length] as const;
  });
  const rows = places.map(([x, y], k) =>
    Float32Array.from({ length: 2 * ASIDE + 1 }, (_, j) => {
      const aside = j - ASIDE;
      return sample(light, x + aside * normals[k][0], y + aside * normals[k][1]);
    }),
  );
  const mean =
    rows.reduce((sum, row) => sum + row.reduce((all, one) => all + one, 0) / row.length, 0) / rows.length;
  const offsets = bestOffsets(rows, STIFF * mean);
  const found = offsets.reduce((sum, offset, k) => sum + rows[k][offset], 0) / rows.length;
  if (found > (1 - DARKER) * mean) return [...path];
  return places.map(([x, y], k) => {
    const aside = offsets[k] - ASIDE;
    return {
      u: (x + aside * normals[k][0] + 0.5) / light.width,
      v: (y + aside * normals[k][1] + 0.5) / light.height,
    };
  });
}
