import type { PlacedBody } from '@/core/placed/placed-schema';
import { bodyOf } from '@/core/placed/clear-picture';

/** A small copy of a picture file, for while the server takes it in. */
export interface SmallCopy {
  /** What stands in it, as an address. */
  url: string;
  /** The size of the whole copy, and where in it something stands. */
  width: number;
  height: number;
  body: PlacedBody;
}

/** Height of a small copy, pixels. */
const HEIGHT = 480;

/** A small copy of a picture file, decoded here; undefined where this browser cannot, or nothing stands in it. */
export async function smallCopyOf(file: Blob): Promise<SmallCopy | undefined> {
  const bitmap = await createImageBitmap(file, { resizeHeight: HEIGHT, resizeQuality: 'low' }).catch(
    () => undefined,
  );
  if (!bitmap) return undefined;
  const { width, height } = bitmap;
  const paper = drawingOf(bitmap, width, height);
  const { data } = paper.getImageData(0, 0, width, height);
  const body = bodyOf({ data, width, height, full: 255 });
  if (!body) return undefined;
  const [wide, high] = [(body.right - body.left) * width, (body.bottom - body.top) * height];
  const cut = drawingOf(bitmap, wide, high, body.left * width, body.top * height);
  bitmap.close();
  return { url: cut.canvas.toDataURL(), width, height, body };
}

/** A drawing of a picture's part. */
function drawingOf(
  bitmap: ImageBitmap,
  width: number,
  height: number,
  left = 0,
  top = 0,
): CanvasRenderingContext2D {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const paper = canvas.getContext('2d', { willReadFrequently: true })!;
  paper.drawImage(bitmap, -left, -top);
  return paper;
}
