import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import { lineCoverageAt } from '../plane/line-coverage-at';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { Survey } from '../survey/survey';
import { evenness, landShare, lightAt, NO_SKY, PLACE, SURELY } from './land-share';
import { SKY_TONES, type SkyTones } from './sky-tones';

/** Coverage by land up to which its colour is that of the land around, and from which it is read at the place itself. */
const READ = { from: 0.15, to: 0.6 } as const;

/** How much darker land must be than the sky for its edge to be held: surely, and not at all; and to how many times the land around. */
const DARKER = { surely: 0.5, not: 0.85 } as const;
const HELD = 1.35;

/** What is left of the plate without the day's sky: coverage by land, and the land's own colour where both are mixed. */
export interface Skyline extends RgbPlanes {
  land: Float32Array;
}

/**
 * The skyline of a region. Coverage and colours of mixed pixels follow the plate at its own size; what lies on either side is read off the
 * small copy, so that every size and part of a picture agree.
 *
 * @param plate the region of the plate
 * @param survey what the small copy says is sky, as lines of the plate's lightness
 * @param plain which rows of the small copy are plain, from `plainRows`
 */
export function skyline(
  out: Skyline,
  plate: RgbPlanes,
  survey: Pick<Survey, 'sky' | 'width' | 'height'>,
  tones: Omit<SkyTones, 'feet'> & { width: number; height: number },
  plain: Uint8Array,
  region: Region,
): void {
  const { width, height } = tones;
  const rows = SKY_TONES.map((name) => ({
    source: { width, height, data: tones[name] },
    at: PLACE_OF[name],
    row: new Float32Array(region.width),
  }));
  const place = new Float64Array(PLACE.count);
  const [slope, offset] = [new Float32Array(region.width), new Float32Array(region.width)];
  const line = (data: Float32Array) => ({ width: survey.width, height: survey.height, data });
  const lines = { slope: line(survey.sky.slope), offset: line(survey.sky.offset) };
  const atOnce = rows.filter(({ at }) => at === PLACE.floor || (at >= PLACE.land && at < PLACE.withinSky));
  const [withinLand, nearSky] = (['withinLand', 'nearSky'] as const).map(
    (name) => rows[SKY_TONES.indexOf(name)].row,
  );
  for (let y = 0; y < region.height; y++) {
    const first = y * region.width;
    const kind = kindOfRow(plain, region, y);
    if (kind === ROWS.land) {
      keepRow(out, plate, first, region.width);
      continue;
    }
    if (kind === ROWS.sky) {
      for (const { row, source } of atOnce) bilinearRow(row, source, region, y);
      if (isClear(rows[FLOOR].row, plate, first)) {
        clearRow(out, rows, first);
        continue;
      }
    }
    for (const { row, source } of rows) bilinearRow(row, source, region, y);
    bilinearRow(slope, lines.slope, region, y);
    bilinearRow(offset, lines.offset, region, y);
    for (let x = 0, i = first; x < region.width; x++, i++) {
      if (withinLand[x] > SURELY && nearSky[x] < NO_SKY) {
        out.r[i] = plate.r[i];
        out.g[i] = plate.g[i];
        out.b[i] = plate.b[i];
        out.land[i] = 1;
        continue;
      }
      place[0] = plate.r[i];
      place[1] = plate.g[i];
      place[2] = plate.b[i];
      for (let k = 0; k < rows.length; k++) place[rows[k].at] = rows[k].row[x];
      // Only where a place is neither surely sky nor surely land it counts what the survey found.
      const isSure = place[PLACE.withinSky] > SURELY || place[PLACE.withinLand] > SURELY;
      place[PLACE.found] = isSure ? 0 : foundAt(place, slope[x], offset[x]);
      const share = landShare(place);
      out.land[i] = share;
      setLand(out, i, place, share);
    }
  }
}

/** Coverage by land of a place as the survey found it. */
const foundAt = (place: Float64Array, slope: number, offset: number) =>
  1 - lineCoverageAt(slope, offset, lightAt(place, PLACE.own));

/** What the rows of the small copy are: land alone with no sky near, sky alone, or both. */
const ROWS = { mixed: 0, land: 1, sky: 2 } as const;

type Tones = Pick<SkyTones, 'withinSky' | 'withinLand' | 'nearSky'> & { width: number; height: number };

/** Tells which rows of the small copy are land or sky alone: they need not be looked at closely. Prepared once for all of a picture. */
export function plainRows({ width, height, withinSky, withinLand, nearSky }: Tones): Uint8Array {
  const all = (y: number, is: (i: number) => boolean) => {
    for (let i = y * width; i < (y + 1) * width; i++) if (!is(i)) return false;
    return true;
  };
  return Uint8Array.from({ length: height }, (_, y) => {
    if (all(y, (i) => withinLand[i] > SURELY && nearSky[i] < NO_SKY)) return ROWS.land;
    return all(y, (i) => withinSky[i] > SURELY) ? ROWS.sky : ROWS.mixed;
  });
}

/** What the rows of the small copy are between which a row of a region lies. */
function kindOfRow(plain: Uint8Array, { top, fullHeight }: Region, row: number): number {
  const v = ((top + row + 0.5) / fullHeight) * plain.length - 0.5;
  const upper = Math.min(plain.length - 1, Math.max(0, Math.floor(v)));
  const lower = Math.min(plain.length - 1, upper + 1);
  return plain[upper] === plain[lower] ? plain[upper] : ROWS.mixed;
}

/** A row that is land alone. */
function keepRow(out: Skyline, plate: RgbPlanes, first: number, width: number): void {
  for (const c of ['r', 'g', 'b'] as const) out[c].set(plate[c].subarray(first, first + width), first);
  out.land.fill(1, first, first + width);
}

const FLOOR = SKY_TONES.indexOf('floor');
const LAND = SKY_TONES.indexOf('landR');

/** Whether no place of a row of sky is darker than its clouds. */
function isClear(floor: Float32Array, { r, g, b }: RgbPlanes, first: number): boolean {
  for (let x = 0, i = first; x < floor.length; x++, i++)
    if (LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i] < floor[x]) return false;
  return true;
}

/** A row that is sky alone. */
function clearRow({ r, g, b, land }: Skyline, rows: readonly { row: Float32Array }[], first: number): void {
  r.set(rows[LAND].row, first);
  g.set(rows[LAND + 1].row, first);
  b.set(rows[LAND + 2].row, first);
  land.fill(0, first, first + rows[LAND].row.length);
}

/** Where a place holds what the small copy says. */
const PLACE_OF: Record<(typeof SKY_TONES)[number], number> = {
  ...{ skyR: PLACE.sky, skyG: PLACE.sky + 1, skyB: PLACE.sky + 2 },
  ...{ landR: PLACE.land, landG: PLACE.land + 1, landB: PLACE.land + 2 },
  ...{ withinSky: PLACE.withinSky, withinLand: PLACE.withinLand, nearSky: PLACE.nearSky },
  ...{ floor: PLACE.floor, even: PLACE.even },
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
