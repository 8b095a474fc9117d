import type { Size } from '@/engine/sizes';

/** Draws frames and the day into canvases. A coarse frame is stretched over the fine one's place. */
export function createPainter(night: HTMLCanvasElement, day: HTMLCanvasElement) {
  const small = document.createElement('canvas');
  const context = (canvas: HTMLCanvasElement) => canvas.getContext('2d', { alpha: false })!;
  const fitTo = (canvas: HTMLCanvasElement, { width, height }: Size) => {
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
  };
  let frames = 0;

  return {
    paint(pixels: Uint8ClampedArray, size: Size, coarse: boolean): void {
      // An ImageData may not stand on shared memory.
      const image = new ImageData(size.width, size.height);
      image.data.set(pixels);
      if (coarse && night.width > size.width) {
        fitTo(small, size);
        context(small).putImageData(image, 0, 0);
        const target = context(night);
        target.imageSmoothingQuality = 'high';
        target.drawImage(small, 0, 0, night.width, night.height);
      } else {
        fitTo(night, size);
        context(night).putImageData(image, 0, 0);
      }
      night.dataset.frames = String(++frames);
    },
    /** Shows a plate's 16-bit codes as the day; the largest seen so far stays. */
    paintDay(codes: Uint16Array, size: Size): void {
      if (day.width >= size.width && frames > 0) return;
      fitTo(day, size);
      const image = new ImageData(size.width, size.height);
      for (let from = 0, to = 0; from < codes.length; from += 3, to += 4) {
        image.data[to] = codes[from] >> 8;
        image.data[to + 1] = codes[from + 1] >> 8;
        image.data[to + 2] = codes[from + 2] >> 8;
        image.data[to + 3] = 255;
      }
      context(day).putImageData(image, 0, 0);
    },
  };
}
