import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { Camera } from './camera';
import { FARTHEST_GROUND } from './ground';
import { outlineRow } from '../matte/outline-row';
import { rippleNormal } from './ripple';
import { meetLevel, NO_SURFACES, type RippledFinish, type Surfaces } from './surfaces';
import { meetUpright, type WallPiece } from './wall-pieces';
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

/** Steepening of a coverage about its middle: a guided edge is a few pixels wider than the plate's. */
const FIRM = 1.8;
/**
 * A thing that the survey found stands before a wall if its foot lies nearer than this share of the way to it, and this
 * far below its foot, fraction of the height: what a person has drawn is surer than what was found.
 */
const BEFORE_WALL = { share: 0.75, below: 0.08 } as const;

/** A found foot this near to that of a drawn wall, as shares of the wall's distance, is the wall's own. */
const OWN_FOOT = { from: 0.8, to: 1.25 } as const;

/** A coverage with a firmer edge. */
export const firm = (coverage: number) => Math.min(1, Math.max(0, (coverage - 0.5) * FIRM + 0.5));

/**
 * Relief of a region: ground where the survey found ground, the rest upright and facing the eye where its column meets
 * the ground; over them what the ground plan says of walls, decks and standees, the last over the first. Distances are blended through their inverse across soft edges, so that no crack opens.
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
  const row = () => new Float32Array(region.width);
  const decked = surfaces.decks.map(() => row());
  // The nearest is laid on last.
  const standees = [...surfaces.standees]
    .sort((a, b) => b.ahead - a.ahead)
    .map((standee) => ({ ...standee, rightRow: row(), upRow: row() }));
  const [groundSlope, groundOffset, skySlope, skyOffset, feet] = [row(), row(), row(), row(), row()];
  const [foldRight, foldUp] = [row(), row()];
  const { folds, wet } = surfaces;
  const wide = (data: Float32Array) => ({ width: survey.width, height: survey.height, data });
  const { corner, across, down, eyeHeight } = camera;
  const { r, g, b } = plate;
  const { reach: reaches, normalX, normalY, normalZ, unturned, land: lands, distance: distances } = out;
  const { sheen: sheens, alpha: alphas } = out;
  const walls = surfaces.walls.map((piece) => ({
    piece,
    end: piece.until === undefined ? undefined : surfaces.ends[piece.until],
  }));
  for (let y = 0; y < region.height; y++) {
    bilinearRow(groundSlope, wide(survey.ground.slope), region, y);
    bilinearRow(groundOffset, wide(survey.ground.offset), region, y);
    bilinearRow(skySlope, wide(survey.sky.slope), region, y);
    bilinearRow(skyOffset, wide(survey.sky.offset), region, y);
    bilinearRow(feet, wide(survey.feet), region, y);
    surfaces.decks.forEach(({ outline }, k) => outlineRow(decked[k], outline, region, y));
    if (folds) tiltRows(foldRight, foldUp, folds, region, y);
    for (const { round, rightRow, upRow } of standees) if (round) tiltRows(rightRow, upRow, round, region, y);
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (let x = 0; x < region.width; x++) {
      const i = y * region.width + x;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const guide = Math.cbrt(LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]);
      const aside = corner[0] + u * across[0] + v * down[0];
      const ahead = Math.max(corner[1] + u * across[1] + v * down[1], 1e-6);
      const rise = corner[2] + u * across[2] + v * down[2];
      // The ground at the foot of this column: how far ahead it lies.
      const footAhead = Math.max(corner[1] + u * across[1] + feet[x] * down[1], 1e-6);
      const footRise = corner[2] + u * across[2] + feet[x] * down[2];
      const standsAt =
        footRise < 0 ? Math.min((-eyeHeight / footRise) * footAhead, FARTHEST_GROUND) : FARTHEST_GROUND;
      const nearness = rise < 0 ? Math.max(-rise / eyeHeight, ahead / FARTHEST_GROUND) : 0;
      const ground = nearness > 0 ? firm(groundSlope[x] * guide + groundOffset[x]) : 0;
      const norm = Math.sqrt(ground * ground + (1 - ground) * (1 - ground));
      reaches[i] = 1 / (ground * nearness + (1 - ground) * (ahead / standsAt));
      normalX[i] = 0;
      normalY[i] = -(1 - ground) / norm;
      normalZ[i] = ground / norm;
      unturned[i] = 1 - ground;
      const land = 1 - firm(skySlope[x] * guide + skyOffset[x]);
      // On the fringe of the sky a lit rim would show, and a dark one does not.
      lands[i] = Math.max(0, 2 * land - 1);
      let finish: RippledFinish = surfaces.ground;
      let lies = ground;
      let shines = wet ? wet[i] : 1;
      let wall: WallPiece | undefined;
      let met = Infinity;
      let claimed = false;
      for (let k = 0; k < walls.length; k++) {
        const { piece, end } = walls[k];
        const plane = meetUpright(piece, aside, ahead);
        if (plane === Infinity || (end !== undefined && end[i] < 0.5)) continue;
        const at = eyeHeight + plane * rise;
        if (plane < met && at >= 0 && at <= piece.height) {
          met = plane;
          wall = piece;
        }
        const share = standsAt / (plane * ahead);
        claimed ||= share > OWN_FOOT.from && share < OWN_FOOT.to;
      }
      // How far below the wall's foot the thing at this pixel stands, fraction of the height.
      const below = (footRise + eyeHeight / met) / down[2];
      const before = standsAt < BEFORE_WALL.share * met * ahead && below > BEFORE_WALL.below && !claimed;
      if (wall && land > 0.5 && (ground > 0.5 || !before)) {
        reaches[i] = met;
        const { ax, ay, bx, by, endA, endB } = wall;
        const [ex, ey] = [bx - ax, by - ay];
        const along = ((met * aside - ax) * ex + (met * ahead - ay) * ey) / (ex * ex + ey * ey);
        const nx = endA[0] + along * (endB[0] - endA[0]);
        const ny = endA[1] + along * (endB[1] - endA[1]);
        const long = Math.sqrt(nx * nx + ny * ny);
        normalX[i] = nx / long;
        normalY[i] = ny / long;
        normalZ[i] = 0;
        unturned[i] = 0;
        finish = wall.finish;
        lies = shines = 1;
      }
      for (let k = 0; k < decked.length; k++) {
        if (decked[k][x] < 0.5) continue;
        const { height } = surfaces.decks[k];
        const level = meetLevel(height, eyeHeight, rise);
        if (level === Infinity) continue;
        reaches[i] = Math.min(level, FARTHEST_GROUND / ahead);
        normalX[i] = normalY[i] = unturned[i] = 0;
        normalZ[i] = height < eyeHeight ? 1 : -1;
        finish = surfaces.decks[k];
        lies = shines = 1;
      }
      sheens[i] = lies * shines * finish.sheen;
      alphas[i] = finish.roughness * finish.roughness;
      const ripple = lies * finish.crease;
      if (ripple > 0) rippleNormal(out, i, ripple * foldRight[x], ripple * foldUp[x]);
      for (let k = 0; k < standees.length; k++) {
        const standee = standees[k];
        const share = firm(standee.coverage[i]);
        if (share === 0) continue;
        const { roundness, creased, sheen, roughness } = standee;
        // Toward the eye, tilted as far as its form is known; the folds of a flat one are known as little as its turn.
        const right = roundness * standee.rightRow[x] + creased * foldRight[x];
        const up = roundness * standee.upRow[x] + creased * foldUp[x];
        const level = Math.sqrt(Math.max(0.04, 1 - right * right - up * up));
        const own = Math.sqrt(right * right + up * up + level * level);
        const behind = 1 - share;
        reaches[i] = 1 / (behind / reaches[i] + (share * ahead) / standee.ahead);
        const nx = behind * normalX[i] + (share * right) / own;
        const ny = behind * normalY[i] - (share * level) / own;
        const nz = behind * normalZ[i] + (share * up) / own;
        const long = Math.sqrt(Math.max(1e-6, nx * nx + ny * ny + nz * nz));
        normalX[i] = nx / long;
        normalY[i] = ny / long;
        normalZ[i] = nz / long;
        unturned[i] = behind * unturned[i] + share * (1 - roundness);
        sheens[i] = behind * sheens[i] + share * sheen;
        alphas[i] = behind * alphas[i] + share * roughness * roughness;
      }
      const ray = Math.sqrt(aside * aside + ahead * ahead + rise * rise);
      const perSky = Math.max(1 / HAZE.farthest, rise / (HAZE.top * ray));
      distances[i] = 1 / (land / (reaches[i] * ray) + (1 - land) * perSky);
    }
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
