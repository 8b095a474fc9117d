import { sineToward, type PlateEdge } from './plate-edges';

/** Where upright edges meet: `(lean, 1, along)`, homogeneous. `along` is 0 where they stay parallel. */
export interface Uprights {
  lean: number;
  along: number;
  /** Length of the edges that run toward it, widths of the plate. */
  support: number;
}

/** Edges this near to the picture's own upright may be upright things; sine. Most lean and most convergence that is taken. */
const NEAR = { edge: 0.34, lean: 0.2, along: 1.2 } as const;

/** Sine up to which an edge runs toward the meeting place. */
export const TOWARD_UPRIGHT = 0.025;

/** Edges that are tried in pairs, and the least length that must agree, widths of the plate. */
const TRIED = 50;
const LEAST = 0.25;

/** The meeting place of upright edges, by the pair with which most others agree, then by least squares. Undefined where few do. */
export function meetingUprights(edges: readonly PlateEdge[]): Uprights | undefined {
  const some = edges.filter(({ dx }) => Math.abs(dx) < NEAR.edge);
  const tried = some.toSorted((a, b) => b.length - a.length).slice(0, TRIED);
  const supportOf = (lean: number, along: number) =>
    some.reduce(
      (sum, edge) => sum + (sineToward(edge, lean, 1, along) < TOWARD_UPRIGHT ? edge.length : 0),
      0,
    );
  let best: Uprights = { lean: 0, along: 0, support: supportOf(0, 0) };
  tried.forEach((one, i) => {
    for (const other of tried.slice(i + 1)) {
      const pair = solve([one, other]);
      if (!pair || Math.abs(pair.lean) > NEAR.lean || Math.abs(pair.along) > NEAR.along) continue;
      const support = supportOf(pair.lean, pair.along);
      if (support > best.support) best = { ...pair, support };
    }
  });
  for (let round = 0; round < 3; round++) {
    const agreed = some.filter((edge) => sineToward(edge, best.lean, 1, best.along) < TOWARD_UPRIGHT);
    const fitted = solve(agreed);
    if (!fitted) break;
    const support = supportOf(fitted.lean, fitted.along);
    if (support < best.support) break;
    best = { ...fitted, support };
  }
  return best.support < LEAST ? undefined : best;
}

/** The meeting place of edges by least squares; undefined where they do not say it. */
function solve(edges: readonly PlateEdge[]): { lean: number; along: number } | undefined {
  let [aa, ab, bb, ac, bc] = [0, 0, 0, 0, 0];
  for (const { x, y, dx, dy, length } of edges) {
    // (lean - along x) dy - (1 - along y) dx = 0
    const [a, b, c] = [dy, dx * y - dy * x, dx];
    aa += length * a * a;
    ab += length * a * b;
    bb += length * b * b;
    ac += length * a * c;
    bc += length * b * c;
  }
  const determinant = aa * bb - ab * ab;
  if (!(determinant > 1e-7 * aa * aa)) return undefined;
  return { lean: (ac * bb - bc * ab) / determinant, along: (aa * bc - ab * ac) / determinant };
}
