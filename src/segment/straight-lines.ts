import type { PlateLine } from '@/core/geometry/vanishing-point';
import { flags, withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** Gradients that begin and that go on an edge; shortest line, and the gap that one may leap, fractions of the width. */
const EDGES = { weak: 60, strong: 160 } as const;
const LINE = { shortest: 0.04, gap: 0.006, votes: 40 } as const;

/** Most lines that are told. */
const MOST = 600;

/** The straight edges of a picture (probabilistic Hough transform, Matas, Galambos and Kittler 2000). */
export function straightLines(cv: OpenCv, { width, height, rgb }: Picture): PlateLine[] {
  return withMats((keep) => {
    const color = keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb));
    const [grey, edges, lines] = [keep(new cv.Mat()), keep(new cv.Mat()), keep(new cv.Mat())];
    cv.cvtColor(color, grey, flags(cv).COLOR_RGB2GRAY);
    cv.Canny(grey, edges, EDGES.weak, EDGES.strong);
    const { shortest, gap, votes } = LINE;
    cv.HoughLinesP(edges, lines, 1, Math.PI / 360, votes, shortest * width, gap * width);
    const found: PlateLine[] = [];
    for (let i = 0; i < Math.min(MOST, lines.rows); i++) {
      const [x0, y0, x1, y1] = lines.data32S.subarray(4 * i, 4 * i + 4);
      const place = (x: number, y: number) => ({ u: (x + 0.5) / width, v: (y + 0.5) / height });
      found.push([place(x0, y0), place(x1, y1)]);
    }
    return found;
  });
}
