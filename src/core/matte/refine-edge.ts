import { boxAround, cutBox, grown, pasteBox } from '../plane/box';
import { colorGuidedFilter, type ColorLine } from '../plane/color-guided-filter';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';

/** Variance of the guide's square-root light under which a place counts as flat. */
const EPSILON = 1e-4;

/** The window is at least so many pixels wide to each side on the copy that lines are found on, where one is wide enough. */
const COPY_RADIUS = 4;
const COPY_WIDTHS = [400, 600, 800, 1200, 1600];

/** Ends of what counts as nothing and as all: the filter leaves a faint veil on both sides of an edge. */
export const VEIL = { from: 0.03, to: 0.97 };

/** Width of the copy of a plate on which an edge is refined within a window of some fraction of its width. */
export function refineWidth(window: number, plateWidth: number): number {
  const wanted = COPY_RADIUS / window;
  return Math.min(plateWidth, COPY_WIDTHS.find((width) => width >= wanted) ?? COPY_WIDTHS.at(-1)!);
}

/**
 * The plate as the filter sees it. The square root lets differences in shade count nearly as much as in light, and mixed
 * colours of a soft edge still lie near a line between the two.
 */
function guideOf({ width, height, r, g, b }: RgbPlanes): RgbPlanes {
  const root = (plane: Float32Array) => {
    const out = new Float32Array(plane.length);
    for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(Math.max(0, plane[i]));
    return out;
  };
  return { width, height, r: root(r), g: root(g), b: root(b) };
}

/** Within how many windows of an edge the filter's lines depend on it: one to find them and one to average them, each to both sides. */
const REACH = 3;

/**
 * Rows of the lines by which a coverage's edge follows the plate's: soft through hair and leaves, firm along a wall. Only
 * what lies near an edge is filtered: elsewhere the coverage itself is the line.
 *
 * @param plate a whole copy of the plate, `refineWidth` pixels wide
 * @param window fraction of the width
 */
export function findEdge(
  out: ColorLine,
  plate: RgbPlanes,
  coverage: Float32Array,
  window: number,
  rows = { from: 0, to: plate.height },
): void {
  const { width, height } = plate;
  const own = { from: rows.from * width, to: rows.to * width };
  for (const slope of [out.r, out.g, out.b]) slope.fill(0, own.from, own.to);
  out.offset.set(coverage.subarray(own.from, own.to), own.from);
  const radius = Math.max(1, Math.round(window * width));
  const reach = REACH * radius;
  const near = grown({ left: 0, right: width, top: rows.from, bottom: rows.to }, reach, width, height);
  const first = near.top * width;
  const edge = boxAround(width, near.bottom - near.top, (k) => {
    const i = first + k;
    const value = coverage[i];
    return (i % width > 0 && coverage[i - 1] !== value) || (k >= width && coverage[i - width] !== value);
  });
  if (!edge) return;
  const { left, right } = grown(edge, reach + 1, width, height);
  const box = { ...near, left, right };
  const cut = (data: Float32Array) => cutBox(data, width, box);
  const [r, g, b] = [plate.r, plate.g, plate.b].map(cut);
  const guide = guideOf({ width: right - left, height: near.bottom - near.top, r, g, b });
  const lines = { r, g, b, offset: new Float32Array(r.length) };
  colorGuidedFilter(lines, guide, cut(coverage), radius, EPSILON);
  const inner = { left, right, top: rows.from, bottom: rows.to };
  const skipped = (rows.from - near.top) * guide.width;
  for (const name of ['r', 'g', 'b', 'offset'] as const) {
    pasteBox(out[name], width, inner, lines[name].subarray(skipped));
  }
}

/** A refined coverage of a region, 0 to 1. `lines` are of the whole plate; `plate` is the region of it. */
export function followEdge(
  out: Float32Array,
  lines: ColorLine,
  linesSize: { width: number; height: number },
  plate: RgbPlanes,
  region: Region,
): void {
  const rows = [lines.r, lines.g, lines.b, lines.offset].map((data) => ({
    plane: { ...linesSize, data },
    row: new Float32Array(region.width),
  }));
  const [{ row: r }, { row: g }, { row: b }, { row: offset }] = rows;
  for (let y = 0; y < region.height; y++) {
    rows.forEach(({ plane, row }) => bilinearRow(row, plane, region, y));
    for (let x = 0, i = y * region.width; x < region.width; x++, i++) {
      const value =
        r[x] * Math.sqrt(Math.max(0, plate.r[i])) +
        g[x] * Math.sqrt(Math.max(0, plate.g[i])) +
        b[x] * Math.sqrt(Math.max(0, plate.b[i])) +
        offset[x];
      out[i] = Math.min(1, Math.max(0, (value - VEIL.from) / (VEIL.to - VEIL.from)));
    }
  }
}
