import { linearToOklab } from '../color/linear-to-oklab';
import { LUMINANCE } from '../color/luminance';
import type { GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';
import { followEdges } from './follow-edges';
import { nearCoverage } from './key-coverage';
import type { ColorPass } from './pass';
import { hypot } from '../plane/hypot';

/** Luminance at which colours are compared. */
const COMPARED = 0.3;

/** A colour at one luminance, so that sun and shade on it are alike. Black has no colour. */
function unitLight([r, g, b]: readonly [number, number, number]): [number, number, number] {
  const y = LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b;
  const gain = COMPARED / Math.max(1e-3, y);
  return [Math.max(0, r) * gain, Math.max(0, g) * gain, Math.max(0, b) * gain];
}

/**
 * Where a small copy of the plate has a colour, as local lines. The noise of single pixels does not count there, so that
 * every size of a picture finds the same.
 */
export function findColor(plate: RgbPlanes, { color, reach, soft }: ColorPass): GuidedLine {
  const [, a0, b0] = linearToOklab(unitLight(color));
  const coverage = Float32Array.from(plate.r, (red, i) => {
    const [, a, b] = linearToOklab(unitLight([red, plate.g[i], plate.b[i]]));
    return nearCoverage(hypot(a - a0, b - b0), reach, soft);
  });
  return followEdges(plate, coverage);
}
