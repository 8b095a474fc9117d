import { regionKey, type Region } from '@/core/plane/region';

/** The canvases of the picture, laid over one another in a box that is the whole plate. */
export interface PictureCanvases {
  night: HTMLCanvasElement;
  /** Shows over the night while only a coarse frame of it is there. */
  coarse: HTMLCanvasElement;
  /** The whole day. */
  day: HTMLCanvasElement;
  /** The part of the day that is in view, over the whole one. */
  dayPart: HTMLCanvasElement;
}

/** Days kept for the regions that were shown last. */
const MOST_DAYS = 6;

/** Whether a region is the whole plate. */
const isWhole = ({ width, height, fullWidth, fullHeight }: Region) =>
  width === fullWidth && height === fullHeight;

/** Lays a canvas where its region lies on the plate. */
export function layOver(canvas: HTMLCanvasElement, region: Region): void {
  const percent = (part: number, full: number) => `${(100 * part) / full}%`;
  Object.assign(canvas.style, {
    left: percent(region.left, region.fullWidth),
    top: percent(region.top, region.fullHeight),
    width: percent(region.width, region.fullWidth),
    height: percent(region.height, region.fullHeight),
    display: 'block',
  });
}

/** The part of the plate that a canvas lies over, as `layOver` says. */
export function shownOn({ style }: HTMLCanvasElement): {
  u: number;
  v: number;
  width: number;
  height: number;
} {
  const share = (percent: string) => (percent ? parseFloat(percent) / 100 : 0);
  return {
    ...{ u: share(style.left), v: share(style.top) },
    ...{ width: share(style.width) || 1, height: share(style.height) || 1 },
  };
}

/** Draws frames and the day into their canvases, and puts those where their region lies on the plate. */
export function createPainter({ night, coarse, day, dayPart }: PictureCanvases) {
  const days = new Map<string, ImageData>();
  let frames = 0;
  let dayWidth = 0;

  function put(canvas: HTMLCanvasElement, image: ImageData, region: Region): void {
    if (canvas.width !== image.width) canvas.width = image.width;
    if (canvas.height !== image.height) canvas.height = image.height;
    canvas.getContext('2d', { alpha: false })!.putImageData(image, 0, 0);
    layOver(canvas, region);
  }

  return {
    paint: (pixels: Uint8ClampedArray, region: Region, isCoarse: boolean): void => {
      // An ImageData may not stand on shared memory.
      const image = new ImageData(region.width, region.height);
      image.data.set(pixels);
      put(isCoarse ? coarse : night, image, region);
      if (!isCoarse) coarse.style.display = 'none';
      night.dataset.frames = String(++frames);
      const part = days.get(regionKey(region));
      if (isCoarse || isWhole(region) || !part) return;
      put(dayPart, part, region);
    },
    /** Takes a region's 16-bit codes for the day; gives its pixels. */
    paintDay: (codes: Uint16Array, region: Region): Uint8ClampedArray => {
      const image = new ImageData(region.width, region.height);
      for (let from = 0, to = 0; from < codes.length; from += 3, to += 4) {
        image.data[to] = codes[from] >> 8;
        image.data[to + 1] = codes[from + 1] >> 8;
        image.data[to + 2] = codes[from + 2] >> 8;
        image.data[to + 3] = 255;
      }
      if (isWhole(region)) {
        // Of a fine day and a coarse one, either may come first.
        if (region.width < dayWidth) return image.data;
        dayWidth = region.width;
        put(day, image, region);
        return image.data;
      }
      days.set(regionKey(region), image);
      if (days.size > MOST_DAYS) days.delete(days.keys().next().value!);
      return image.data;
    },
  };
}
