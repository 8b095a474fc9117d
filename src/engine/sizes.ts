import { SURVEY_WIDTH } from '@/core/survey/survey';

export interface Size {
  width: number;
  height: number;
}

/** The survey's copy is never taller than this, pixels. */
const SURVEY_HEIGHT = 800;

/** Most pixels of a preview. */
const PREVIEW_PIXELS = 1.75e6;

/** Width of the copy of a plate on which folds are looked for, pixels. */
const CREASE_WIDTH = 1200;

/** Previews come in widths of whole steps, so that a window that is resized keeps its buffers. */
const PREVIEW_STEP = 200;

/** No copy of a plate is narrower, pixels: kernels work on four at a time. */
export const LEAST_SIDE = 4;

function scaled(plate: Size, factor: number): Size {
  const part = (n: number) => Math.max(LEAST_SIDE, Math.round(n * Math.min(1, factor)));
  return { width: part(plate.width), height: part(plate.height) };
}

/** Size of the small copy that is surveyed; also the coarse frame's. */
export function surveySize(plate: Size): Size {
  return scaled(plate, Math.min(SURVEY_WIDTH / plate.width, SURVEY_HEIGHT / plate.height));
}

/** Size of the preview for a view of some device pixels: never larger than the plate. */
export function previewSize(plate: Size, viewWidth: number): Size {
  const wanted = Math.ceil(viewWidth / PREVIEW_STEP) * PREVIEW_STEP;
  return scaled(plate, Math.min(wanted, widestPreview(plate)) / plate.width);
}

const widestPreview = ({ width, height }: Size) => Math.sqrt((PREVIEW_PIXELS * width) / height);

/** Size of the copy of a plate on which folds are looked for. */
export const creaseSize = (plate: Size): Size => scaled(plate, CREASE_WIDTH / plate.width);

/**
 * The sizes at which a plate is served and kept, the smallest first: few, so that copies are shared. They are those of the survey,
 * of creases, of previews, and the plate's own size, by quarters of an octave down to a 64th.
 */
export function servedSizes(plate: Size): Size[] {
  const steps = Array.from({ length: 10 }, (_, k) => previewSize(plate, PREVIEW_STEP * (k + 1)));
  const octaves = Array.from({ length: 25 }, (_, k) => scaled(plate, 2 ** (-k / 4)));
  const all = [surveySize(plate), creaseSize(plate), previewSize(plate, Infinity), ...steps, ...octaves];
  const bySize = new Map(all.map((size) => [`${size.width} ${size.height}`, size]));
  return [...bySize.values()].sort((a, b) => a.width * a.height - b.width * b.height);
}

/**
 * Size of the plate when a part of it is previewed that holds `share` of its pixels and should be `scale` of its size: one of
 * those that are served.
 */
export function partSize(plate: Size, scale: number, share: number): Size {
  const affordable = servedSizes(plate).filter(
    ({ width, height }) => width * height * share <= PREVIEW_PIXELS,
  );
  const wanted = affordable.find(({ width }) => width >= Math.min(1, scale) * plate.width);
  return wanted ?? affordable.at(-1) ?? surveySize(plate);
}
