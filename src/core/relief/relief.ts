import { outlineRow } from '../geometry/outline-row';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { Camera } from '../geometry/camera';
import { deckPlane } from '../plan/deck-plane';
import { readyBox } from './rasterize-box';
import { rasterizeDeck } from './rasterize-deck';
import { rasterizeGloss } from './rasterize-gloss';
import { footRow, rasterizeGround, type FoundRow } from './rasterize-ground';
import { rasterizeLeaves } from './rasterize-leaves';
import { coveredSpan, rasterizeStandee } from './rasterize-standee';
import { rasterizeWalls, spanWalls } from './rasterize-walls';
import type { Relief } from './relief-planes';
import { createReliefRow, sightRow, type ReliefRow } from './relief-row';
import { NO_SURFACES, type Surfaces } from './relief-surfaces';
import type { Tilts } from './standee-form';
import type { Survey } from '../survey/survey';
import { throughHaze, throughHazeToLand } from './through-haze';

/** What lays whole regions at once; without it they are laid row by row. */
export interface LayRegion {
  /** The ground and what the survey found; of the way through haze the land that was found is left. */
  layGround: (
    out: Relief,
    plate: RgbPlanes,
    survey: Survey,
    camera: Camera,
    region: Region,
    surfaces: Pick<Surfaces, 'ground' | 'wet' | 'folds'>,
  ) => void;
  /** The way through haze, over the land that was found. */
  throughHaze: (out: Relief, camera: Camera, region: Region, skyline?: Float32Array) => void;
}

/**
 * Relief of a region: ground where the survey found ground, the rest upright and facing the eye where its column meets the ground; over
 * them what the ground plan says of walls, decks, standees and glosses, the last over the first. Distances are blended through their inverse
 * across soft edges, so that no crack opens.
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
  lay?: LayRegion,
): void {
  const row = createReliefRow(region.width);
  const found = lay ? undefined : foundRow(row, survey);
  const feet = row.scratch();
  const over = createOver(out, row, survey, camera, region, surfaces);
  lay?.layGround(out, plate, survey, camera, region, surfaces);
  for (let y = 0; y < region.height && (found || over); y++) {
    const isOver = over?.begin(y) === true;
    if (!found && !isOver) continue;
    sightRow(row, camera, region, y);
    // What is laid already knows them; walls ask for them once more.
    if (found || surfaces.walls.length > 0) {
      readRow(feet, survey, survey.feet, region, y);
      footRow(row, feet, camera);
    }
    if (surfaces.folds) tiltRows(row.foldRight, row.foldUp, surfaces.folds, region, y);
    if (found) {
      readFound(found, survey, region, y);
      rasterizeGround(out, row, plate, found, camera, surfaces);
    } else if (surfaces.walls.length > 0) readLaid(row, out);
    if (isOver) over.lay(y);
    if (!found) continue;
    if (surfaces.skyline) throughHazeToLand(out, row, surfaces.skyline);
    else throughHaze(out, row);
  }
  lay?.throughHaze(out, camera, region, surfaces.skyline);
}

/** What lies over the ground, row by row. */
interface Over {
  /** Reads what lies over a row; whether anything does. */
  begin: (y: number) => boolean;
  /** Lays it over the row that was begun. */
  lay: (y: number) => void;
}

/** What the ground plan and leaves lay over the ground; undefined where there is nothing of them. */
function createOver(
  out: Relief,
  row: ReliefRow,
  survey: Survey,
  camera: Camera,
  region: Region,
  surfaces: Surfaces,
): Over | undefined {
  const leaves = survey.leaves.some((share) => share > 0) ? row.scratch() : undefined;
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
  const glosses = surfaces.glosses.map((gloss) => ({
    gloss,
    tilts: { right: row.scratch(), up: row.scratch() },
  }));
  const walls = spanWalls(surfaces);
  const isPlanned = walls.length + decks.length + standees.length + glosses.length > 0;
  if (!leaves && !isPlanned) return undefined;
  const begin = (y: number) => {
    if (leaves) readRow(leaves, survey, survey.leaves, region, y);
    return isPlanned || leaves!.some((share) => share > 0);
  };
  const lay = (y: number) => {
    rasterizeWalls(out, row, walls, camera);
    if (leaves) rasterizeLeaves(out, row, leaves);
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
    for (const { gloss, tilts } of glosses) {
      const span = coveredSpan(row, gloss.coverage);
      if (span.from === span.to) continue;
      if (gloss.round) tiltRows(tilts.right, tilts.up, gloss.round, region, y);
      rasterizeGloss(out, row, span, gloss, tilts);
    }
  };
  return { begin, lay };
}

/** Takes what walls ask of the ground back from what was laid of a row. */
function readLaid({ first, width, ground, land }: ReliefRow, { unknownFacing, distance }: Relief): void {
  for (let x = 0, i = first; x < width; x++, i++) {
    ground[x] = 1 - unknownFacing[i];
    land[x] = distance[i];
  }
}

/** Room for a row of what the survey found. */
const foundRow = ({ scratch }: ReliefRow, { water }: Survey): FoundRow => ({
  ...{ ground: scratch(), groundOffset: scratch() },
  ...{ sky: scratch(), skyOffset: scratch() },
  ...(water && { water: { slope: scratch(), offset: scratch() } }),
});

/** Reads a row of one of the survey's planes. */
const readRow = (
  row: Float32Array,
  { width, height }: Pick<Survey, 'width' | 'height'>,
  data: Float32Array,
  region: Region,
  y: number,
) => bilinearRow(row, { width, height, data }, region, y);

function readFound(found: FoundRow, survey: Survey, region: Region, y: number): void {
  const { ground, sky, water } = survey;
  readRow(found.ground, survey, ground.slope, region, y);
  readRow(found.groundOffset, survey, ground.offset, region, y);
  readRow(found.sky, survey, sky.slope, region, y);
  readRow(found.skyOffset, survey, sky.offset, region, y);
  if (!water || !found.water) return;
  readRow(found.water.slope, survey, water.slope, region, y);
  readRow(found.water.offset, survey, water.offset, region, y);
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
