import type { Camera } from '@/core/geometry/camera';
import { seeing, wallLine, type Occluders, type SeenCoverage } from '@/core/light/occlusion';
import { MOST_CORNERS, MOST_SURFACES } from '@/core/plan/plan-schema';
import type { PlaneRef } from '../graph/task';
import { OCCLUDER } from './layout';

/* Floats of the parts of a block. */
const HEAD = OCCLUDER.HEAD_BYTES / 4;
const WALL = OCCLUDER.WALL_BYTES / 4;
const WALL_END = OCCLUDER.WALL_END / 4;
const DECK = OCCLUDER.DECK_BYTES / 4;
const CORNER = OCCLUDER.CORNER_BYTES / 4;
const STANDEE = OCCLUDER.STANDEE_BYTES / 4;

/** Floats of a standee at most: a card, or a box of four sides and a lid. */
const STANDING = Math.max(STANDEE, 4 * WALL + DECK + 4 * CORNER);

/**
 * Bytes of the block: room for all surfaces that a ground plan may have, with all their corners, and the mattes at which walls and boxes
 * end.
 */
export const OCCLUDER_BYTES =
  4 *
  (HEAD +
    MOST_SURFACES * ((MOST_CORNERS - 1) * WALL + DECK + MOST_CORNERS * CORNER + STANDING + 2 * STANDEE));

/** Lays out what casts shadows. Returns the block's place, or 0 where nothing does. */
export function writeOccluders(
  memory: WebAssembly.Memory,
  block: PlaneRef,
  shades: Occluders | undefined,
  camera: Camera,
): PlaneRef {
  if (!shades) return 0;
  const { walls, decks, standees, ends } = shades;
  const floats = new Float32Array(memory.buffer, block, OCCLUDER_BYTES / 4);
  const words = new Uint32Array(memory.buffer, block, OCCLUDER_BYTES / 4);
  const { eyeHeight } = camera;
  const { depth, u, v, u0, v0 } = seeing(camera);
  words.set([walls.length, decks.length, standees.length, 0]);
  floats.set([...depth, ...u, ...v, u0, v0, camera.aspect], OCCLUDER.SIGHT / 4);
  let at = HEAD;
  const endings: { ending: string; slot: number }[] = [];
  for (const wall of walls) {
    const { ax, ay, ex, ey, length, height } = wallLine(wall);
    floats.set([ax, ay, ex, ey, length, height - eyeHeight], at);
    words[at + WALL_END] = 0;
    if (wall.until !== undefined) endings.push({ ending: wall.until, slot: at + WALL_END });
    at += WALL;
  }
  for (const { height, riseX, riseY, corners } of decks) {
    floats.set([height - eyeHeight, 0, riseX, riseY], at);
    words[at + 1] = corners.length;
    at += DECK;
    corners.forEach(([ax, ay], k) => {
      const [bx, by] = corners[(k + 1) % corners.length];
      const [ex, ey] = [bx - ax, by - ay];
      const slope = ey === 0 ? 0 : ex / ey;
      floats.set([ax, ay, ex, ey, 1 / Math.max(1e-12, ex * ex + ey * ey), slope, by, 0], at);
      at += CORNER;
    });
  }
  const writeCoverage = ({ width, height, levels, bounds }: SeenCoverage, ahead: number) => {
    floats.set([ahead, bounds.left, bounds.right, bounds.top, bounds.bottom], at);
    words.set([width, height, levels.byteOffset], at + 5);
    at += STANDEE;
  };
  for (const standee of standees) writeCoverage(standee, standee.ahead);
  for (const [ending, coverage] of Object.entries(ends)) {
    for (const { slot } of endings.filter((one) => one.ending === ending)) words[slot] = 4 * at;
    writeCoverage(coverage, 0);
  }
  return block;
}
