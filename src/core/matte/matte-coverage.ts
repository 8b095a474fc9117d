import { LUMINANCE } from '../color/luminance';
import { srgb } from '../color/srgb';
import { lineCoverageAt } from '../plane/line-coverage-at';
import { bilinearOver } from '../plane/bilinear-over';
import { bilinearRow } from '../plane/bilinear-row';
import type { GuidedLine } from '../plane/guided-filter';
import type { Plane, RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { flattenOutline } from '../geometry/flatten-outline';
import { toneCoverage } from './key-coverage';
import { outlineRow } from '../geometry/outline-row';
import { paintCoverage } from './paint-coverage';
import { joinCoverage, type Pass } from './pass';
import { rampCoverage } from './ramp-coverage';

/** What passes need that is made before them. */
export interface PassInputs {
  /** Coverages found on a small copy of the plate, by the pass that they belong to. */
  found: { width: number; height: number; lines: ReadonlyMap<string, GuidedLine> };
  /** Pictures of what the edge brush found, of the whole plate, by pass. */
  brushed: ReadonlyMap<string, Plane>;
  /** Coverages of the same region by other mattes, by matte. */
  mattes: ReadonlyMap<string, Float32Array>;
}

/** Steps of the table from the square root of light to tone. */
const TONE_STEPS = 1024;

/**
 * Coverage of a region by passes, one after the other, 0 to 1. The first pass begins from nothing, but a first cut or meet
 * begins from all. A pass whose input is not there covers nothing.
 *
 * @param plate the same region of the plate
 */
export function matteCoverage(
  out: Float32Array,
  passes: readonly Pass[],
  plate: RgbPlanes,
  inputs: PassInputs,
  region: Region,
): void {
  const [cover, scratch] = [0, 1].map(() => new Float32Array(out.length));
  out.fill(passes.length > 0 && passes[0].join !== 'add' ? 1 : 0);
  for (const pass of passes) {
    passCoverage(cover, scratch, pass, plate, inputs, region);
    joinCoverage(out, cover, pass.join);
  }
}

function passCoverage(
  cover: Float32Array,
  scratch: Float32Array,
  pass: Pass,
  plate: RgbPlanes,
  { found, brushed, mattes }: PassInputs,
  region: Region,
): void {
  const { width, height } = region;
  const rowOf = (y: number) => cover.subarray(y * width, (y + 1) * width);
  const luminanceAt = (i: number) =>
    Math.max(0, LUMINANCE[0] * plate.r[i] + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i]);
  switch (pass.kind) {
    case 'sky':
    case 'shadow':
    case 'area':
    case 'colour': {
      const line = found.lines.get(pass.id);
      if (!line) return void cover.fill(0);
      const [slope, offset] = [0, 1].map(() => new Float32Array(width));
      for (let y = 0; y < height; y++) {
        bilinearRow(slope, { ...found, data: line.slope }, region, y);
        bilinearRow(offset, { ...found, data: line.offset }, region, y);
        for (let x = 0, i = y * width; x < width; x++, i++) {
          cover[i] = lineCoverageAt(slope[x], offset[x], luminanceAt(i));
        }
      }
      return;
    }
    case 'edge': {
      const picture = brushed.get(pass.id);
      return picture ? bilinearOver(cover, picture, region) : void cover.fill(0);
    }
    case 'outline': {
      const lines = flattenOutline(pass.points);
      for (let y = 0; y < height; y++) outlineRow(rowOf(y), lines, region, y);
      return;
    }
    case 'paint':
      return paintCoverage(cover, scratch, pass.strokes, region);
    case 'matte': {
      const other = mattes.get(pass.matte);
      return void (other ? cover.set(other) : cover.fill(0));
    }
    case 'tone':
      return toneKey(cover, pass, luminanceAt);
    case 'ramp':
      return ramped(cover, pass, region);
  }
}

/** Coverage by tone. */
function toneKey(
  cover: Float32Array,
  { low, high, soft }: Extract<Pass, { kind: 'tone' }>,
  luminanceAt: (i: number) => number,
): void {
  const tones = Float32Array.from({ length: TONE_STEPS + 1 }, (_, i) => srgb.encode((i / TONE_STEPS) ** 2));
  for (let i = 0; i < cover.length; i++) {
    const tone = tones[Math.round(Math.sqrt(Math.min(1, luminanceAt(i))) * TONE_STEPS)];
    cover[i] = toneCoverage(tone, low, high, soft);
  }
}

/** Coverage by a ramp over a region. */
function ramped(cover: Float32Array, pass: Extract<Pass, { kind: 'ramp' }>, region: Region): void {
  const { left, top, width, fullWidth, fullHeight } = region;
  const aspect = fullWidth / fullHeight;
  for (let i = 0; i < cover.length; i++) {
    const [x, y] = [i % width, Math.floor(i / width)];
    cover[i] = rampCoverage(pass, (left + x + 0.5) / fullWidth, (top + y + 0.5) / fullHeight, aspect);
  }
}
