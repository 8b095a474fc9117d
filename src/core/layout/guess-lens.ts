import { FRAME_WIDTH_MM } from '../geometry/camera';
import type { Uprights } from './upright-edges';

/** Lenses that are believed, millimetres. */
const BELIEVED = { least: 17, most: 90 } as const;

/** How exactly angles along the horizon are found, radians, where uprights meet, and the horizon, widths. */
const EXACT = { angle: 0.003, along: 0.012, height: 0.004 } as const;

/** Directions nearer to each other may be mixed up, sine. */
const NEAR = 0.25;

/** What uprights count for, as a share of the level edges. */
const UPRIGHT_SHARE = 0.15;

/** Share by which a lens may be wrong and is still told. */
const DOUBT = 0.16;

/** Least share of the level edges on which a direction is believed. */
const LEAST_SHARE = 0.05;

/** Where level edges meet on the horizon: the tangent of their place from the middle, widths, and the share that does. */
interface Meeting {
  x: number;
  share: number;
}

/**
 * The lens of a plate, 35 mm equivalent: by two level directions at right angles, whose places on the horizon lie so far apart, and by where
 * uprights meet under a horizon that is not in the middle (Caprile and Torre 1990). Undefined where neither tells it well.
 *
 * @param height how far the horizon lies over the plate's middle, widths of the plate
 * @param focal focal length by which angles along the horizon are told, widths
 */
export function guessLens(
  height: number,
  meetings: readonly Meeting[],
  uprights: Uprights | undefined,
  focal: number,
): number | undefined {
  const known = meetings.filter(({ share }) => share >= LEAST_SHARE);
  const told: { square: number; doubt: number; share: number }[] = [];
  known.forEach((one, i) => {
    for (const other of known.slice(i + 1)) {
      const square = -one.x * other.x - height ** 2;
      const doubt = (doubtOf(one, known, focal) + doubtOf(other, known, focal)) / 2;
      told.push({ square, doubt, share: Math.min(one.share, other.share) });
    }
  });
  if (uprights && height * uprights.along > 0) {
    const doubt = (EXACT.along / Math.abs(uprights.along) + EXACT.height / Math.abs(height)) / 2;
    told.push({ square: height / uprights.along, doubt, share: UPRIGHT_SHARE });
  }
  const lenses = told
    .filter(({ square, doubt }) => square > 0 && doubt < DOUBT)
    .map(({ square, doubt, share }) => ({ lens: Math.sqrt(square) * FRAME_WIDTH_MM, trust: share / doubt }))
    .filter(({ lens }) => lens > BELIEVED.least && lens < BELIEVED.most)
    .sort((a, b) => b.trust - a.trust);
  return lenses[0]?.lens;
}

/** How far a meeting's tangent may be wrong, as a share of it: more where others with as many edges lie near, as one of them may be meant. */
function doubtOf(one: Meeting, all: readonly Meeting[], focal: number): number {
  const angle = Math.atan(one.x / focal);
  let error: number = EXACT.angle;
  for (const other of all) {
    const apart = Math.abs(Math.sin(Math.atan(other.x / focal) - angle));
    if (other !== one && apart < NEAR) error += (apart / 2) * Math.min(1, other.share / one.share);
  }
  return (error * focal * (1 + (one.x / focal) ** 2)) / Math.max(1e-9, Math.abs(one.x));
}
