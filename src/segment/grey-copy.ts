import type * as OpenCvModule from '@techstark/opencv-js';
import { flags, withMats, type Keep, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** Width of the copy in which edges and twins are looked for, pixels: finer ones are texture. */
const WIDTH = 960;

/** A copy of a matrix at most WIDTH pixels wide. */
function shrunk(cv: OpenCv, keep: Keep, whole: OpenCvModule.Mat): OpenCvModule.Mat {
  const small = keep(new cv.Mat());
  const scale = Math.min(1, WIDTH / whole.cols);
  const size = new cv.Size(Math.round(scale * whole.cols), Math.round(scale * whole.rows));
  cv.resize(whole, small, size, 0, 0, flags(cv).INTER_AREA);
  return small;
}

/** A grey copy of a picture at most WIDTH pixels wide, 8-bit codes. */
export function greyCopy(cv: OpenCv, keep: Keep, { width, height, rgb }: Picture): OpenCvModule.Mat {
  const grey = keep(new cv.Mat());
  cv.cvtColor(keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb)), grey, flags(cv).COLOR_RGB2GRAY);
  return shrunk(cv, keep, grey);
}

/** A copy of a picture at most WIDTH pixels wide; the picture itself if it is no wider. */
export function smallCopy(cv: OpenCv, picture: Picture): Picture {
  const { width, height, rgb } = picture;
  if (width <= WIDTH) return picture;
  return withMats((keep) => {
    const { cols, rows, data } = shrunk(
      cv,
      keep,
      keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb)),
    );
    return { width: cols, height: rows, rgb: Uint8Array.from(data) };
  });
}
