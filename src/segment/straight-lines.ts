import type { PlateLine } from '@/core/geometry/vanishing-point';
import { flags, withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';
import { greyCopy } from './grey-copy';
import { lineSupport, type Gradients } from './line-support';

/** Blur before gradients are taken, pixels. */
const SOFT = 0.9;

/** Longest lines that are told. */
const MOST = 1200;

/** The straight edges of a picture, the longest first. */
export function straightLines(cv: OpenCv, picture: Picture): PlateLine[] {
  return withMats((keep) => {
    const small = greyCopy(cv, keep, picture);
    const [x, y] = [keep(new cv.Mat()), keep(new cv.Mat())];
    cv.GaussianBlur(small, small, new cv.Size(0, 0), SOFT);
    cv.Sobel(small, x, flags(cv).CV_32F, 1, 0);
    cv.Sobel(small, y, flags(cv).CV_32F, 0, 1);
    const gradients: Gradients = { width: small.cols, height: small.rows, x: x.data32F, y: y.data32F };
    const place = (px: number, py: number) => ({ u: (px + 0.5) / small.cols, v: (py + 0.5) / small.rows });
    return lineSupport(gradients)
      .sort((a, b) => b.length - a.length)
      .slice(0, MOST)
      .map(({ ax, ay, bx, by }): PlateLine => [place(ax, ay), place(bx, by)]);
  });
}
