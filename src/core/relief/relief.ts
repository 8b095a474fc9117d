import { HAZE, perHazeLength } from './haze-length';
import type { Relief } from './relief-planes';
import { outlineRow } from '../geometry/outline-row';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { Camera } from '../geometry/camera';
import { deckPlane } from '../plan/deck-plane';
import { readyBox } from './rasterize-box';
import { rasterizeDeck } from './rasterize-deck';
import { rasterizeGround, type FoundRow } from './rasterize-ground';
import { rasterizeLeaves } from './rasterize-leaves';
import { coveredSpan, rasterizeStandee } from './rasterize-standee';
import { rasterizeWalls, spanWalls } from './rasterize-walls';
import { createReliefRow, sightRow, type ReliefRow } from './relief-row';
import { NO_SURFACES, type Surfaces } from './relief-surfaces';
import type { Tilts } from './standee-form';
import type { Survey } from '../survey/survey';

/**
 * Relief of a region, row by row: ground where the survey found ground, the rest upright and facing the eye where its column
 * meets the ground; over them what the ground plan says of walls, decks and standees, the last over the first. Distances are
 * blended through their inverse across soft edges, so that no crack opens.
 *
 * @param plate the same region of the plate; its lightness guides the edges
 */
export function reliefOf(
  out: Relief,
  plate: RgbPlanes,
  survey: Survey,
  camera: Camera,
  region: Region,
  surfaces: Surfaces = NO_SURFACES,
): void {
  const row = createReliefRow(region.width);
  const found = foundRow(row, survey);
  const [feet, leaves] = [row.scratch(), row.scratch()];
  const decks = surfaces.decks.map((deck) => ({
    outline: deck.outline,
    deck: { plane: deckPlane(camera, deck), finish: deck },
    coverage: row.scratch(),
  }));
  // The nearest is rasterized last.
  const standees = [...surfaces.standees]
    .sort((a, b) => b.ahead - a.ahead)
    .map((standee) => ({
      standee,
      tilts: { right: row.scratch(), up: row.scratch() },
      box: standee.piece && readyBox(standee.piece, camera.eyeHeight),
    }));
  const walls = spanWalls(surfaces);
  const plane = (data: Float32Array) => ({ width: survey.width, height: survey.height, data });
  for (let y = 0; y < region.height; y++) {
    sightRow(row, camera, region, y);
    readFound(found, survey, region, y);
    bilinearRow(feet, plane(survey.feet), region, y);
    if (surfaces.folds) tiltRows(row.foldRight, row.foldUp, surfaces.folds, region, y);
    rasterizeGround(out, row, plate, found, feet, camera, surfaces);
    rasterizeWalls(out, row, walls, camera);
    bilinearRow(leaves, plane(survey.leaves), region, y);
    rasterizeLeaves(out, row, leaves);
    for (const { outline, deck, coverage } of decks) {
      outlineRow(coverage, outline, region, y);
      rasterizeDeck(out, row, deck, coverage, camera.eyeHeight);
    }
    for (const { standee, tilts, box } of standees) {
      const span = coveredSpan(row, standee.coverage);
      if (span.from === span.to) continue;
      if (standee.round) tiltRows(tilts.right, tilts.up, standee.round, region, y);
      rasterizeStandee(out, row, span, standee, tilts, box);
    }
    if (surfaces.skyline) throughHazeToLand(out, row, surfaces.skyline);
    else throughHaze(out, row);
  }
}

/** Room for a row of what the survey found. */
const foundRow = ({ scratch }: ReliefRow, { water }: Survey): FoundRow => ({
  ...{ ground: scratch(), groundOffset: scratch() },
  ...{ sky: scratch(), skyOffset: scratch() },
  ...(water && { water: { slope: scratch(), offset: scratch() } }),
});

function readFound(
  found: FoundRow,
  { width, height, ground, sky, water }: Survey,
  region: Region,
  y: number,
): void {
  const read = (row: Float32Array, data: Float32Array) =>
    bilinearRow(row, { width, height, data }, region, y);
  read(found.ground, ground.slope);
  read(found.groundOffset, ground.offset);
  read(found.sky, sky.slope);
  read(found.skyOffset, sky.offset);
  if (!water || !found.water) return;
  read(found.water.slope, water.slope);
  read(found.water.offset, water.offset);
}

function tiltRows(
  right: Float32Array,
  up: Float32Array,
  { width, height, right: across, up: rising }: Tilts,
  region: Region,
  y: number,
): void {
  bilinearRow(right, { width, height, data: across }, region, y);
  bilinearRow(up, { width, height, data: rising }, region, y);
}

/** The same where a skyline says what is land: haze before the sky behind it is told apart. */
function throughHazeToLand(
  out: Relief,
  { first, width, aside, ahead, rise }: ReliefRow,
  skyline: Float32Array,
): void {
  for (let x = 0, i = first; x < width; x++, i++) {
    const land = skyline[i];
    out.land[i] = land;
    out.distance[i] = 0;
    if (land === 0) continue;
    const ray = Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x] + rise[x] * rise[x]);
    out.distance[i] = land * Math.min(HAZE.farthest, out.reach[i] * ray);
  }
}

/** How long the way through haze is at the pixels of a row. */
function throughHaze(
  { distance, reach }: Relief,
  { first, width, aside, ahead, rise, land }: ReliefRow,
): void {
  for (let x = 0; x < width; x++) {
    const i = first + x;
    const ray = Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x] + rise[x] * rise[x]);
    const perSky = perHazeLength(rise[x] / ray);
    distance[i] = 1 / (land[x] / (reach[i] * ray) + (1 - land[x]) * perSky);
  }
}
