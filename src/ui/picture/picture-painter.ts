import type { Size } from '@/engine/sizes';

/** The canvases of the picture, one over the other; the screen stretches each over the same place. */
export interface PictureCanvases {
  night: HTMLCanvasElement;
  /** Shows over the night while only a coarse frame of it is there. */
  coarse: HTMLCanvasElement;
  day: HTMLCanvasElement;
}

/** Draws frames and the day into their canvases. */
export function createPainter({ night, coarse, day }: PictureCanvases) {
  const fitTo = (canvas: HTMLCanvasElement, { width, height }: Size) => {
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
  };
  const put = (canvas: HTMLCanvasElement, image: ImageData) => {
    fitTo(canvas, image);
    canvas.getContext('2d', { alpha: false })!.putImageData(image, 0, 0);
  };
  let frames = 0;

  return {
    paint: (pixels: Uint8ClampedArray, size: Size, isCoarse: boolean): void => {
      // An ImageData may not stand on shared memory.
      const image = new ImageData(size.width, size.height);
      image.data.set(pixels);
      put(isCoarse ? coarse : night, image);
      coarse.style.display = isCoarse ? 'block' : 'none';
      night.dataset.frames = String(++frames);
    },
    /** Shows a plate's 16-bit codes as the day; the largest seen so far stays. */
    paintDay: (codes: Uint16Array, size: Size): void => {
      if (day.width >= size.width && frames > 0) return;
      const image = new ImageData(size.width, size.height);
      for (let from = 0, to = 0; from < codes.length; from += 3, to += 4) {
        image.data[to] = codes[from] >> 8;
        image.data[to + 1] = codes[from + 1] >> 8;
        image.data[to + 2] = codes[from + 2] >> 8;
        image.data[to + 3] = 255;
      }
      put(day, image);
    },
  };
}
