import { framedSize, isWholeFrame, type Frame } from '@/core/frame/frame';
import { framedRegion } from '@/core/frame/framed-region';
import { wholeRegion, type Region } from '@/core/plane/region';
import { partSize, previewSize, surveySize, type Size } from '@/engine/sizes';
import type { Look } from '../view/look';
import { plateBox, visiblePart } from './view-geometry';

const WHOLE_PART = { left: 0, top: 0, width: 1, height: 1 };

/** Regions begin and end on multiples of this many pixels, so that small steps of a pan need nothing new. */
const GRID = 64;

/** Widest coarse frame of a part of the plate, pixels. */
const COARSE = 450;

/** The plate's size halved so often that it still has `scale` of its pixels across: few sizes, so that copies are shared. */
function halved({ width, height }: Size, scale: number): Size {
  const factor = 2 ** -Math.max(0, Math.floor(-Math.log2(Math.min(1, scale))));
  return { width: Math.max(1, Math.round(width * factor)), height: Math.max(1, Math.round(height * factor)) };
}

/**
 * What to compute for a look: the whole frame at the size of the view when it is fitted, else the part in view at the
 * plate's own scale or the next one above the zoom; and the same part coarsely.
 */
export function previewRegions(
  view: Size,
  plate: Size,
  frame: Frame,
  look: Look,
  density: number,
): { region: Region; coarse: Region } {
  const aspect = plate.width / plate.height;
  const framed = framedSize(plate, frame);
  const box = plateBox(view, framed, look, density);
  const fitted = look.zoom === 'fit';
  if (fitted && isWholeFrame(frame)) {
    const fine = previewSize(plate, box.width * density);
    const small = surveySize(plate);
    return { region: wholeRegion(fine.width, fine.height), coarse: wholeRegion(small.width, small.height) };
  }
  const part = fitted ? WHOLE_PART : visiblePart(view, box);
  const at = (size: Size, grid?: number) => framedRegion(frame, part, size, aspect, grid);
  const scale = (box.width * density) / framed.width;
  const { width, height } = at(plate);
  const size =
    look.zoom === 'fit'
      ? partSize(plate, scale, (width * height) / (plate.width * plate.height))
      : halved(plate, look.zoom);
  const region = at(size, GRID);
  const coarse = halved(plate, (COARSE / region.width) * (size.width / plate.width) * 0.5001);
  return { region, coarse: at(coarse) };
}
