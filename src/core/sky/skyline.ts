import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import { lineCoverageAt } from '../plane/line-coverage-at';
import type { Plane, RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { Survey } from '../survey/survey';
import { evenness, isBrightLand, landShare, lightAt, NO_SKY, PLACE, SURELY } from './land-share';
import { SKY_TONES, type SkyTones } from './sky-tones';
import { CELLS, spanAt } from './skyline-cells';

/** Coverage by land up to which its colour is that of the land around, and from which it is read at the place itself. */
const READ = { from: 0.15, to: 0.6 } as const;

/** How much darker land must be than the sky for its edge to be held: surely, and not at all; and to how many times the land around. */
const DARKER = { surely: 0.5, not: 0.85 } as const;
const HELD = 1.35;

/** Pixels of sky that are looked at closely together. */
const PART = 64;

/** What is left of the plate without the day's sky: coverage by land, and the land's own colour where both are mixed. */
export interface Skyline extends RgbPlanes {
  land: Float32Array;
}

/** A row of what the small copy says, read over a region. */
interface ToldRow {
  source: Plane;
  /** Where a place holds it. */
  at: number;
  row: Float32Array;
}

/**
 * The skyline of a region. Coverage and colours of mixed pixels follow the plate at its own size; what lies on either side is read off the
 * small copy, so that every size and part of a picture agree.
 *
 * @param plate the region of the plate
 * @param survey what the small copy says is sky, as lines of the plate's lightness
 * @param plain which cells of the small copy are plain, from `plainCells`
 */
export function skyline(
  out: Skyline,
  plate: RgbPlanes,
  survey: Pick<Survey, 'sky' | 'width' | 'height'>,
  tones: Omit<SkyTones, 'feet'> & { width: number; height: number },
  plain: Uint8Array,
  region: Region,
): void {
  const told = (
    data: Float32Array,
    { width, height }: Pick<Plane, 'width' | 'height'>,
    at: number = PLACE.count,
  ): ToldRow => ({
    ...{ source: { width, height, data }, at },
    row: new Float32Array(region.width),
  });
  const rows = SKY_TONES.map((name) => told(tones[name], tones, PLACE_OF[name]));
  const found = [survey.sky.slope, survey.sky.offset].map((data) => told(data, survey));
  const ofSky = rows.filter(({ at }) => at === PLACE.floor || (at >= PLACE.land && at < PLACE.withinSky));
  const lookAt = createMixed(out, plate, rows, found);
  for (let y = 0; y < region.height; y++) {
    const first = y * region.width;
    for (let from = 0, to = 0; from < region.width; from = to) {
      const span = spanAt(plain, tones, region, y, from);
      to = span.to;
      if (span.kind === CELLS.land) {
        keepSpan(out, plate, first + from, first + to);
        continue;
      }
      const isSky = span.kind === CELLS.sky;
      if (isSky) readSpan(ofSky, region, y, from, to);
      // What is darker than the sky's clouds is looked at closely, and a little around it.
      const step = isSky ? PART : to - from;
      for (let part = from; part < to; part += step) {
        const end = Math.min(to, part + step);
        if (isSky && isClear(rows[FLOOR].row, plate, first, part, end)) {
          clearSpan(out, rows, first, part, end);
          continue;
        }
        readSpan([...rows, ...found], region, y, part, end);
        lookAt(first, part, end);
      }
    }
  }
}

/** Reads some columns of a row. */
function readSpan(rows: readonly ToldRow[], region: Region, y: number, from: number, to: number): void {
  const part = { ...region, left: region.left + from, width: to - from };
  for (const { row, source } of rows) bilinearRow(row.subarray(from, to), source, part, y);
}

/** Prepares what looks at each place of some columns of a row that was read. */
function createMixed(
  out: Skyline,
  plate: RgbPlanes,
  rows: readonly ToldRow[],
  [slope, offset]: readonly ToldRow[],
) {
  const place = new Float64Array(PLACE.count);
  const row = (name: (typeof SKY_TONES)[number]) => rows[SKY_TONES.indexOf(name)].row;
  const [skyR, skyG, skyB, landR, landG, landB] = SKY_TONES.slice(0, 6).map(row);
  const [withinSky, withinLand, nearSky, floor] = [
    row('withinSky'),
    row('withinLand'),
    row('nearSky'),
    row('floor'),
  ];
  const [wr, wg, wb] = LUMINANCE;
  /** Whether a place is plainly land, though sky may be near. */
  const isLand = (x: number) =>
    withinLand[x] > SURELY &&
    (nearSky[x] < NO_SKY ||
      isBrightLand(
        wr * landR[x] + wg * landG[x] + wb * landB[x],
        wr * skyR[x] + wg * skyG[x] + wb * skyB[x],
      ));
  return (first: number, from: number, to: number): void => {
    for (let x = from, i = first + from; x < to; x++, i++) {
      const [r, g, b] = [plate.r[i], plate.g[i], plate.b[i]];
      if (withinSky[x] > SURELY && wr * r + wg * g + wb * b >= floor[x]) {
        out.r[i] = landR[x];
        out.g[i] = landG[x];
        out.b[i] = landB[x];
        out.land[i] = 0;
        continue;
      }
      if (isLand(x)) {
        out.r[i] = r;
        out.g[i] = g;
        out.b[i] = b;
        out.land[i] = 1;
        continue;
      }
      place[0] = r;
      place[1] = g;
      place[2] = b;
      for (let k = 0; k < rows.length; k++) place[rows[k].at] = rows[k].row[x];
      // Only where a place is neither surely sky nor surely land it counts what the survey found.
      const isSure = place[PLACE.withinSky] > SURELY || place[PLACE.withinLand] > SURELY;
      place[PLACE.found] = isSure ? 0 : foundAt(place, slope.row[x], offset.row[x]);
      const share = landShare(place);
      out.land[i] = share;
      setLand(out, i, place, share);
    }
  };
}

/** Coverage by land of a place as the survey found it. */
const foundAt = (place: Float64Array, slope: number, offset: number) =>
  1 - lineCoverageAt(slope, offset, lightAt(place, PLACE.own));

/** Places that are land alone. */
function keepSpan(out: Skyline, plate: RgbPlanes, from: number, to: number): void {
  for (const c of ['r', 'g', 'b'] as const) out[c].set(plate[c].subarray(from, to), from);
  out.land.fill(1, from, to);
}

const FLOOR = SKY_TONES.indexOf('floor');
const LAND = SKY_TONES.indexOf('landR');

/** Whether no place of some columns of sky is darker than its clouds. */
function isClear(
  floor: Float32Array,
  { r, g, b }: RgbPlanes,
  first: number,
  from: number,
  to: number,
): boolean {
  for (let x = from, i = first + from; x < to; x++, i++)
    if (LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i] < floor[x]) return false;
  return true;
}

/** Columns that are sky alone. */
function clearSpan(
  { r, g, b, land }: Skyline,
  rows: readonly ToldRow[],
  first: number,
  from: number,
  to: number,
): void {
  r.set(rows[LAND].row.subarray(from, to), first + from);
  g.set(rows[LAND + 1].row.subarray(from, to), first + from);
  b.set(rows[LAND + 2].row.subarray(from, to), first + from);
  land.fill(0, first + from, first + to);
}

/** Where a place holds what the small copy says. */
const PLACE_OF: Record<(typeof SKY_TONES)[number], number> = {
  ...{ skyR: PLACE.sky, skyG: PLACE.sky + 1, skyB: PLACE.sky + 2 },
  ...{ landR: PLACE.land, landG: PLACE.land + 1, landB: PLACE.land + 2 },
  ...{ withinSky: PLACE.withinSky, withinLand: PLACE.withinLand, nearSky: PLACE.nearSky },
  ...{ floor: PLACE.floor, even: PLACE.even, leaves: PLACE.leaves },
};

/** Sets the land's own colour: of what is seen without the sky in it, or where little is seen, of the land around. */
function setLand({ r, g, b }: RgbPlanes, i: number, place: Float64Array, share: number): void {
  if (share === 1 && place[PLACE.withinLand] > SURELY) {
    r[i] = place[0];
    g[i] = place[1];
    b[i] = place[2];
    return;
  }
  const read = smoothStep(READ.from, READ.to, share);
  // Beside a brighter, uneven sky what is far brighter than the land around has the sky in it.
  const unsure = (1 - place[PLACE.withinLand]) * (1 - evenness(place));
  const contrast = lightAt(place, PLACE.land) / Math.max(1e-4, lightAt(place, PLACE.sky));
  const held = unsure * (1 - smoothStep(DARKER.surely, DARKER.not, contrast));
  r[i] = ownColor(place, 0, share, read, held);
  g[i] = ownColor(place, 1, share, read, held);
  b[i] = ownColor(place, 2, share, read, held);
}

/** A channel of the land's own colour. @param held how far it is held near the land around, 0 to 1 */
function ownColor(place: Float64Array, c: number, share: number, read: number, held: number): number {
  const [seen, sky, land] = [place[c], place[PLACE.sky + c], place[PLACE.land + c]];
  if (share > 0.999 && held === 0) return seen;
  const freed = Math.max(0, seen - (1 - share) * sky) / Math.max(share, READ.from);
  // A mixture lies between both.
  const bound = land < sky ? Math.min(freed, seen) : freed;
  const own = land + read * (bound - land);
  return own - held * Math.max(0, own - HELD * land);
}
