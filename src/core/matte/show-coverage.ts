import type { Rgb } from '../color/rgb';

/** How a matte is looked at: tinted over the picture, in black and white, or with the picture cut out by it. */
export const COVERAGE_VIEWS = ['tint', 'grey', 'cut'] as const;
export type CoverageView = (typeof COVERAGE_VIEWS)[number];

const TINT: Rgb = [224, 82, 111];
const TINT_STRENGTH = 0.55;
const EMPTY = 18;

/** Shows a coverage on the codes of a finished picture, in place: RGBA, 8 bits. */
export function showCoverage(rgba: Uint8ClampedArray, coverage: Float32Array, view: CoverageView): void {
  for (let i = 0, at = 0; i < coverage.length; i++, at += 4) {
    const share = coverage[i];
    for (let c = 0; c < 3; c++) {
      const code = rgba[at + c];
      if (view === 'tint') rgba[at + c] = code + TINT_STRENGTH * share * (TINT[c] - code);
      else rgba[at + c] = view === 'grey' ? 255 * share : EMPTY + share * (code - EMPTY);
    }
  }
}
