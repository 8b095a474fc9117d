import { wholeRegion, type Region } from '@/core/plane/region';
import { previewSize, surveySize, type Size } from '@/engine/sizes';
import type { Look } from '@/state/view-store';
import { plateBox, regionOf, visiblePart } from './view-geometry';

/** Widest coarse frame of a part of the plate, pixels. */
const COARSE = 450;

/** The plate's size halved so often that it still has `scale` of its pixels across: few sizes, so that copies are shared. */
function halved({ width, height }: Size, scale: number): Size {
  const factor = 2 ** -Math.max(0, Math.floor(-Math.log2(Math.min(1, scale))));
  return { width: Math.max(1, Math.round(width * factor)), height: Math.max(1, Math.round(height * factor)) };
}

/**
 * What to compute for a look: the whole plate at the size of the view when it is fitted, else the part in view at the
 * plate's own scale or the next one above the zoom; and the same part coarsely.
 */
export function previewRegions(
  view: Size,
  plate: Size,
  look: Look,
  density: number,
): { region: Region; coarse: Region } {
  const box = plateBox(view, plate, look, density);
  if (look.zoom === 'fit') {
    const fine = previewSize(plate, box.width * density);
    const small = surveySize(plate);
    return { region: wholeRegion(fine.width, fine.height), coarse: wholeRegion(small.width, small.height) };
  }
  const part = visiblePart(view, box);
  const size = halved(plate, look.zoom);
  const region = regionOf(part, size);
  const coarse = halved(plate, (COARSE / region.width) * (size.width / plate.width) * 0.5001);
  return { region, coarse: regionOf(part, coarse, 1) };
}
