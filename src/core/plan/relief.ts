import { outlineRow } from '../matte/outline-row';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { Camera } from './camera';
import { layDeck } from './lay-deck';
import { layGround } from './lay-ground';
import { layStandee } from './lay-standee';
import { layWalls, spanWalls } from './lay-walls';
import { createReliefRow, sightRow, type ReliefRow } from './relief-row';
import { NO_SURFACES, type Surfaces } from './surfaces';
import type { Tilts } from './standee-form';
import type { Survey } from './survey';

/**
 * The lie of the land per pixel of a region. The place seen at a pixel is eye + ray * reach, with the camera's
 * unnormalised ray.
 */
export interface Relief {
  reach: Float32Array;
  /** Unit normal of the surface, world axes. */
  normalX: Float32Array;
  normalY: Float32Array;
  normalZ: Float32Array;
  /** 0: the normal is known. 1: the surface stands upright and faces some way that is not known. */
  unturned: Float32Array;
  /** Coverage by land; the rest is sky, which takes no spill. */
  land: Float32Array;
  /** Length of the way through haze from the eye, metres: to the land, or out of the haze's top in the sky. */
  distance: Float32Array;
  /** How much of the light the surface gives back as a mirror, 0 to 1. */
  sheen: Float32Array;
  /** Width of the mirror's microfacets (alpha of GGX): the square of its roughness. */
  alpha: Float32Array;
}

/** Names of a relief's planes, in the order in which engines lay them out. */
export const RELIEF_PLANES = [
  'reach',
  'normalX',
  'normalY',
  'normalZ',
  'unturned',
  'land',
  'distance',
  'sheen',
  'alpha',
] as const;

/** Height of the top of the haze over the eye, and the farthest way through it, metres. */
const HAZE = { top: 120, farthest: 4000 } as const;

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
  const found = {
    ground: row.scratch(),
    groundOffset: row.scratch(),
    sky: row.scratch(),
    skyOffset: row.scratch(),
  };
  const feet = row.scratch();
  const decks = surfaces.decks.map((deck) => ({ deck, coverage: row.scratch() }));
  // The nearest is laid on last.
  const standees = [...surfaces.standees]
    .sort((a, b) => b.ahead - a.ahead)
    .map((standee) => ({ standee, right: row.scratch(), up: row.scratch() }));
  const walls = spanWalls(surfaces);
  const wide = (data: Float32Array) => ({ width: survey.width, height: survey.height, data });
  for (let y = 0; y < region.height; y++) {
    sightRow(row, camera, region, y);
    bilinearRow(found.ground, wide(survey.ground.slope), region, y);
    bilinearRow(found.groundOffset, wide(survey.ground.offset), region, y);
    bilinearRow(found.sky, wide(survey.sky.slope), region, y);
    bilinearRow(found.skyOffset, wide(survey.sky.offset), region, y);
    bilinearRow(feet, wide(survey.feet), region, y);
    if (surfaces.folds) tiltRows(row.foldRight, row.foldUp, surfaces.folds, region, y);
    layGround(out, row, plate, found, feet, camera, surfaces);
    layWalls(out, row, walls, camera);
    for (const { deck, coverage } of decks) {
      outlineRow(coverage, deck.outline, region, y);
      layDeck(out, row, deck, coverage, camera.eyeHeight);
    }
    for (const { standee, right, up } of standees) {
      if (standee.round) tiltRows(right, up, standee.round, region, y);
      layStandee(out, row, standee, right, up);
    }
    throughHaze(out, row);
  }
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

/** How long the way through haze is at the pixels of a row. */
function throughHaze(
  { distance, reach }: Relief,
  { first, width, aside, ahead, rise, land }: ReliefRow,
): void {
  for (let x = 0; x < width; x++) {
    const i = first + x;
    const ray = Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x] + rise[x] * rise[x]);
    const perSky = Math.max(1 / HAZE.farthest, rise[x] / (HAZE.top * ray));
    distance[i] = 1 / (land[x] / (reach[i] * ray) + (1 - land[x]) * perSky);
  }
}
