import type { PlatePoint } from '../geometry/camera';
import { betweenPixels } from '../plane/between-pixels';
import type { Plane } from '../plane/plane';
import { hypot } from '../plane/hypot';

/** A lamp's glass as it is seen: its middle, and its radius as a fraction of the plate's width. */
export interface LampGlass {
  at: PlatePoint;
  radius: number;
  /** Whether its rim is seen so plainly that it is a disc, and no lantern or hood that is about as broad. */
  isDisc: boolean;
}

/** Radii that are tried, pixels and share of the plate's width, each so much larger than the one before. */
const RADII = { least: 2, most: 0.036, step: 1.1 } as const;

/** How far its middle may lie from the place that was clicked, and how finely it is sought: shares of the radius. */
const MIDDLE = { reach: 0.75, step: 0.25, outer: 0.4 } as const;

/** Radii of a rim around the surest one, in its radii, and how much its width speaks for it: the power of that. */
const RADII_AROUND = [1, 1.1, 1.2, 1.3, 1.4];
const OUTER = 0.35;

/** Places around the rim that are looked at, and the step across it that counts half, codes. */
const RIM = { places: 24, half: 10 } as const;

/** Least share of the rim that must be seen, each place by its step: of anything, and of a disc. */
const LEAST = { any: 0.45, disc: 0.7 } as const;

const AROUND = Array.from({ length: RIM.places }, (_, k) => {
  const angle = (2 * Math.PI * (k + 0.5)) / RIM.places;
  return [Math.cos(angle), Math.sin(angle)] as const;
});

/** The share of a circle's rim across which the plate steps, all of it up or all of it down, 0 to 1. */
export function rimOf(plate: Plane, x: number, y: number, radius: number): number {
  let [up, down] = [0, 0];
  const off = Math.max(0.75, 0.15 * radius);
  for (const [cos, sin] of AROUND) {
    const outside = betweenPixels(plate, x + (radius + off) * cos, y + (radius + off) * sin);
    const inside = betweenPixels(plate, x + (radius - off) * cos, y + (radius - off) * sin);
    const step = outside - inside;
    if (step > 0) up += step / (step + RIM.half);
    else down += step / (step - RIM.half);
  }
  return (Math.max(up, down) - Math.min(up, down)) / RIM.places;
}

const radiiUpTo = (most: number): number[] => {
  const count = Math.floor(Math.log(most / RADII.least) / Math.log(RADII.step));
  return Array.from({ length: count + 1 }, (_, k) => RADII.least * RADII.step ** k);
};

/**
 * The round glass in which a place of the plate lies: the circle around it across whose rim the plate steps all around (after the
 * integro-differential operator of Daugman 1993). Undefined where no rim is sure.
 *
 * @param plate one channel, in codes
 */
export function lampGlass(plate: Plane, at: PlatePoint): LampGlass | undefined {
  const { width, height } = plate;
  /** The circle of the surest rim, `weight` told by its radius, with its middle near a place. */
  function surest(
    cx: number,
    cy: number,
    radii: readonly number[],
    reach: number,
    weight: (r: number) => number,
  ) {
    let best = { seen: 0, x: cx, y: cy, radius: 0 };
    for (const r of radii) {
      const step = Math.max(0.5, MIDDLE.step * r);
      const steps = Math.floor((reach * r) / step);
      for (let j = -steps; j <= steps; j++) {
        for (let k = -steps; k <= steps; k++) {
          const [x, y] = [cx + k * step, cy + j * step];
          const seen = rimOf(plate, x, y, r) * weight(r);
          if (seen > best.seen) best = { seen, x, y, radius: r };
        }
      }
    }
    return best;
  }
  const inner = surest(
    at.u * width - 0.5,
    at.v * height - 0.5,
    radiiUpTo(RADII.most * width),
    MIDDLE.reach,
    () => 1,
  );
  if (inner.seen < LEAST.any) return undefined;
  // A gloss or a shaded half has a rim of its own: one around it that is nearly as sure is the glass.
  const outer = RADII_AROUND.map((times) => times * inner.radius);
  const { x, y, radius } = surest(inner.x, inner.y, outer, MIDDLE.outer, (r) => (r / inner.radius) ** OUTER);
  const isDisc = inner.seen >= LEAST.disc;
  return { at: { u: (x + 0.5) / width, v: (y + 0.5) / height }, radius: radius / width, isDisc };
}

/** How exactly a twin's glass is as large as it should be, factor; and how far off its middle may lie, in radii. */
const TWIN = { size: 1.25, middle: 0.7 } as const;

/** A rim that is up to so many times as large as a lamp's glass is its hood's: its twins have that too. */
const HOOD = 2;

/**
 * Whether a place shows a rim as that around `own` is, so many times as large. All places do where `own` shows none that is about as
 * large as its lamp's glass.
 *
 * @param plate one channel, in codes
 * @param radius of the lamp's glass, fraction of the plate's width
 */
export function showsSuchGlass(
  plate: Plane,
  own: PlatePoint,
  radius: number,
): (at: PlatePoint, times: number) => boolean {
  const mine = lampGlass(plate, own);
  if (!mine || mine.radius > HOOD * radius || mine.radius * TWIN.size < radius) return () => true;
  const aspect = plate.width / plate.height;
  return (at, times) => {
    const glass = lampGlass(plate, at);
    if (!glass) return false;
    const size = glass.radius / (mine.radius * times);
    const du = (glass.at.u - at.u) / times - (mine.at.u - own.u);
    const dv = ((glass.at.v - at.v) / times - (mine.at.v - own.v)) / aspect;
    const isAsLarge = size < TWIN.size && size > 1 / TWIN.size;
    return isAsLarge && hypot(du, dv) < TWIN.middle * mine.radius;
  };
}
