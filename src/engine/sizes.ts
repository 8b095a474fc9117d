import { SURVEY_WIDTH } from '@/core/plan/survey';

export interface Size {
  width: number;
  height: number;
}

/** The survey's copy is never taller than this, pixels. */
const SURVEY_HEIGHT = 800;

/** Most pixels of a preview. */
const PREVIEW_PIXELS = 1.75e6;

/** Previews come in widths of whole steps, so that a window that is resized keeps its buffers. */
const PREVIEW_STEP = 200;

function scaled(plate: Size, factor: number): Size {
  const part = (n: number) => Math.max(1, Math.round(n * Math.min(1, factor)));
  return { width: part(plate.width), height: part(plate.height) };
}

/** Size of the small copy that is surveyed; also the coarse frame's. */
export function surveySize(plate: Size): Size {
  return scaled(plate, Math.min(SURVEY_WIDTH / plate.width, SURVEY_HEIGHT / plate.height));
}

/**
 * Size of the plate when a part of it is previewed that holds `share` of its pixels and should be `scale` of its size: never
 * larger than the plate.
 */
export function partSize(plate: Size, scale: number, share: number): Size {
  const wanted = Math.ceil((scale * plate.width) / PREVIEW_STEP) * PREVIEW_STEP;
  const most = Math.sqrt((PREVIEW_PIXELS * plate.width) / (plate.height * Math.max(share, 1e-6)));
  return scaled(plate, Math.min(wanted, most) / plate.width);
}

/** Size of the preview for a view of some device pixels: never larger than the plate. */
export function previewSize(plate: Size, viewWidth: number): Size {
  const wanted = Math.ceil(viewWidth / PREVIEW_STEP) * PREVIEW_STEP;
  const most = Math.sqrt((PREVIEW_PIXELS * plate.width) / plate.height);
  return scaled(plate, Math.min(wanted, most) / plate.width);
}
