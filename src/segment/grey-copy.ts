import type * as OpenCvModule from '@techstark/opencv-js';
import { flags, type Keep, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** Width of the copy in which edges are looked for, pixels: finer ones are texture. */
const WIDTH = 960;

/** A grey copy of a picture at most WIDTH pixels wide, 8-bit codes. */
export function greyCopy(cv: OpenCv, keep: Keep, { width, height, rgb }: Picture): OpenCvModule.Mat {
  const color = keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb));
  const [grey, small] = [keep(new cv.Mat()), keep(new cv.Mat())];
  cv.cvtColor(color, grey, flags(cv).COLOR_RGB2GRAY);
  const scale = Math.min(1, WIDTH / width);
  const size = new cv.Size(Math.round(scale * width), Math.round(scale * height));
  cv.resize(grey, small, size, 0, 0, flags(cv).INTER_AREA);
  return small;
}
