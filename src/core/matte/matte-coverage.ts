import { LUMINANCE } from '../color/luminance';
import { srgb } from '../color/srgb';
import { firm } from '../plan/relief';
import { bilinearRow } from '../plane/bilinear-row';
import type { GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { toneCoverage } from './key-coverage';
import { outlineRow } from './outline-row';
import { joinCoverage, type Pass } from './pass';
import { rampCoverage } from './ramp-coverage';

/** Coverages that were found on a small copy of the plate, by the pass that they belong to. */
export interface FoundLines {
  width: number;
  height: number;
  lines: ReadonlyMap<string, GuidedLine>;
}

/** Steps of the table from the square root of light to tone. */
const TONE_STEPS = 1024;

/**
 * Coverage of a region by passes, one after the other, 0 to 1. The first pass begins from nothing, but a first cut or meet
 * begins from all.
 *
 * @param found lines of every pass of kind sky, area and colour
 */
export function matteCoverage(
  out: Float32Array,
  passes: readonly Pass[],
  plate: RgbPlanes,
  found: FoundLines,
  region: Region,
): void {
  const { width, height, fullWidth, fullHeight } = region;
  const aspect = fullWidth / fullHeight;
  const [row, slope, offset] = [0, 1, 2].map(() => new Float32Array(width));
  const tones = Float32Array.from({ length: TONE_STEPS + 1 }, (_, i) => srgb.encode((i / TONE_STEPS) ** 2));
  const luminanceAt = (i: number) =>
    Math.max(0, LUMINANCE[0] * plate.r[i] + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i]);
  out.fill(passes.length > 0 && passes[0].join !== 'add' ? 1 : 0);

  function passRow(pass: Pass, y: number): void {
    const first = y * width;
    const v = (region.top + y + 0.5) / fullHeight;
    switch (pass.kind) {
      case 'sky':
      case 'area':
      case 'colour': {
        const line = found.lines.get(pass.id);
        if (!line) return void row.fill(0);
        bilinearRow(slope, { ...found, data: line.slope }, region, y);
        bilinearRow(offset, { ...found, data: line.offset }, region, y);
        for (let x = 0; x < width; x++)
          row[x] = firm(slope[x] * Math.cbrt(luminanceAt(first + x)) + offset[x]);
        return;
      }
      case 'outline':
        return outlineRow(row, pass.points, region, y);
      case 'tone':
        for (let x = 0; x < width; x++) {
          const tone = tones[Math.round(Math.sqrt(Math.min(1, luminanceAt(first + x))) * TONE_STEPS)];
          row[x] = toneCoverage(tone, pass.low, pass.high, pass.soft);
        }
        return;
      case 'ramp':
        for (let x = 0; x < width; x++) {
          row[x] = rampCoverage(pass, (region.left + x + 0.5) / fullWidth, v, aspect);
        }
    }
  }

  for (const pass of passes) {
    for (let y = 0; y < height; y++) {
      passRow(pass, y);
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        out[i] = joinCoverage(out[i], row[x], pass.join);
      }
    }
  }
}
