import { bilinearRow } from '../plane/bilinear-row';
import type { Box } from '../plane/box';
import { lineCoverageAt } from '../plane/line-coverage-at';
import type { Plane, RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { Survey } from '../survey/survey';
import { evenness, isBrightLand, landShare, lightAt, NO_SKY, PLACE, SURELY } from './land-share';
import { SKY_TONES, type SkyTones } from './sky-tones';

/** Coverage by land up to which its colour is that of the land around, and from which it is read at the place itself. */
export const READ = { from: 0.15, to: 0.6 } as const;

/** How much darker land must be than the sky for its edge to be held: surely, and not at all; and to how many times the land around. */
export const DARKER = { surely: 0.5, not: 0.85, held: 1.35 } as const;

/** From this coverage on a place is its own colour, where nothing holds it. */
export const ALL_OWN = 0.999;

/** What is left of the plate without the day's sky: coverage by land, and the land's own colour where both are mixed. */
export interface Skyline extends RgbPlanes {
  land: Float32Array;
}

/** What the small copy says of both sides of the skyline, and where the survey found sky, as lines of the plate's lightness. */
export interface ToldSkyline {
  survey: Pick<Survey, 'sky' | 'width' | 'height'>;
  tones: Omit<SkyTones, 'feet'> & Pick<Plane, 'width' | 'height'>;
}

/** Looks at each place of a box of a region, and says how much of it is land, and the land's own colour. */
export type FreeLand = (out: Skyline, plate: RgbPlanes, told: ToldSkyline, region: Region, box: Box) => void;

/** The small pictures that a box is read from: both sides' tones, and the lines by which the survey found sky. */
export const toldPlanes = ({ tones, survey }: ToldSkyline): Plane[] => [
  ...SKY_TONES.map((name) => ({ width: tones.width, height: tones.height, data: tones[name] })),
  ...[survey.sky.slope, survey.sky.offset].map((data) => ({
    width: survey.width,
    height: survey.height,
    data,
  })),
];

/** Where a place holds what the small copy says. */
const PLACE_OF: Record<(typeof SKY_TONES)[number], number> = {
  ...{ skyR: PLACE.sky, skyG: PLACE.sky + 1, skyB: PLACE.sky + 2 },
  ...{ landR: PLACE.land, landG: PLACE.land + 1, landB: PLACE.land + 2 },
  ...{ withinSky: PLACE.withinSky, withinLand: PLACE.withinLand, nearSky: PLACE.nearSky },
  ...{ floor: PLACE.floor, even: PLACE.even, leaves: PLACE.leaves },
};

/** @see FreeLand */
export const freeLand: FreeLand = (out, plate, told, region, { left, top, right, bottom }) => {
  const small = toldPlanes(told);
  const rows = small.map(() => new Float32Array(right - left));
  const [slope, offset] = rows.slice(SKY_TONES.length);
  const place = new Float64Array(PLACE.count);
  const part = { ...region, left: region.left + left, width: right - left };
  for (let y = top; y < bottom; y++) {
    rows.forEach((row, k) => bilinearRow(row, small[k], part, y));
    for (let x = 0, i = y * region.width + left; x < right - left; x++, i++) {
      place[0] = plate.r[i];
      place[1] = plate.g[i];
      place[2] = plate.b[i];
      for (let k = 0; k < SKY_TONES.length; k++) place[PLACE_OF[SKY_TONES[k]]] = rows[k][x];
      setPlace(out, i, place, slope[x], offset[x]);
    }
  }
};

/** Sets what one place is. */
function setPlace(out: Skyline, i: number, place: Float64Array, slope: number, offset: number): void {
  const isSky = place[PLACE.withinSky] > SURELY;
  // Within the sky only what is darker than its clouds is looked at closely.
  const isClear = isSky && lightAt(place, PLACE.own) >= place[PLACE.floor];
  if (isClear || isLand(place)) {
    out.land[i] = isClear ? 0 : 1;
    setColor(out, i, place, isClear ? PLACE.land : PLACE.own);
    return;
  }
  // Only where a place is neither surely sky nor surely land it counts what the survey found.
  const isSure = isSky || place[PLACE.withinLand] > SURELY;
  place[PLACE.found] = isSure ? 0 : 1 - lineCoverageAt(slope, offset, lightAt(place, PLACE.own));
  const share = landShare(place);
  out.land[i] = share;
  setLand(out, i, place, share);
}

/** Whether a place is plainly land, though sky may be near. */
const isLand = (place: Float64Array): boolean =>
  place[PLACE.withinLand] > SURELY &&
  (place[PLACE.nearSky] < NO_SKY || isBrightLand(lightAt(place, PLACE.land), lightAt(place, PLACE.sky)));

/** Gives a pixel one of a place's colours. */
function setColor({ r, g, b }: RgbPlanes, i: number, place: Float64Array, color: number): void {
  r[i] = place[color];
  g[i] = place[color + 1];
  b[i] = place[color + 2];
}

/** Sets the land's own colour: of what is seen without the sky in it, or where little is seen, of the land around. */
function setLand(out: RgbPlanes, i: number, place: Float64Array, share: number): void {
  if (share === 1 && place[PLACE.withinLand] > SURELY) {
    setColor(out, i, place, PLACE.own);
    return;
  }
  const read = smoothStep(READ.from, READ.to, share);
  // Beside a brighter, uneven sky what is far brighter than the land around has the sky in it.
  const unsure = (1 - place[PLACE.withinLand]) * (1 - evenness(place));
  const contrast = lightAt(place, PLACE.land) / Math.max(1e-4, lightAt(place, PLACE.sky));
  const held = unsure * (1 - smoothStep(DARKER.surely, DARKER.not, contrast));
  out.r[i] = ownColor(place, 0, share, read, held);
  out.g[i] = ownColor(place, 1, share, read, held);
  out.b[i] = ownColor(place, 2, share, read, held);
}

/** A channel of the land's own colour. @param held how far it is held near the land around, 0 to 1 */
function ownColor(place: Float64Array, c: number, share: number, read: number, held: number): number {
  const [seen, sky, land] = [place[c], place[PLACE.sky + c], place[PLACE.land + c]];
  if (share > ALL_OWN && held === 0) return seen;
  const freed = Math.max(0, seen - (1 - share) * sky) / Math.max(share, READ.from);
  // A mixture lies between both.
  const bound = land < sky ? Math.min(freed, seen) : freed;
  const own = land + read * (bound - land);
  return own - held * Math.max(0, own - DARKER.held * land);
}
