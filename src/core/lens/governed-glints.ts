import { LUMINANCE } from '../color/luminance';
import { faderGain, isUp } from '../fields/fader-gain';
import { gelColor } from '../fixture/gel-color';
import type { Glint } from './glint';
import type { LensPoint, LensSettings } from './lens-schema';
import { hypot } from '../plane/hypot';

/** A place says something of the sources within this distance, fraction of the width. */
export const GOVERNS = 0.012;

/** How far a place of the plate lies from another, fractions of the width. @param aspect width over height */
export const apart = (a: { u: number; v: number }, b: { u: number; v: number }, aspect: number): number =>
  hypot(a.u - b.u, (a.v - b.v) / aspect);

const scaled = (glint: Glint, by: number): Glint => ({
  ...glint,
  r: by * glint.r,
  g: by * glint.g,
  b: by * glint.b,
});

/** The nearest source that a place says something of. */
function nearest(glints: readonly Glint[], { at }: LensPoint, aspect: number): Glint | undefined {
  let [best, least] = [undefined as Glint | undefined, GOVERNS];
  for (const glint of glints) {
    const far = apart(glint, at, aspect);
    if (far < least) [best, least] = [glint, far];
  }
  return best;
}

/**
 * Sources as places say of them: one place makes a source stronger or weaker, or takes it away; several part its light between them. A
 * place where no source is known is one of its own.
 *
 * @param lightAt light of a place where no source is known
 */
export function governedGlints(
  known: readonly Glint[],
  points: readonly LensPoint[],
  aspect: number,
  lightAt: (point: LensPoint) => Glint,
): Glint[] {
  const told = new Map<Glint, LensPoint[]>();
  const fresh: Glint[] = [];
  for (const point of points) {
    const glint = nearest(known, point, aspect);
    if (glint) told.set(glint, [...(told.get(glint) ?? []), point]);
    else if (isUp(point.stops)) fresh.push(scaled(lightAt(point), faderGain(point.stops)));
  }
  const kept = known.flatMap((glint) => {
    const said = told.get(glint);
    if (!said) return [glint];
    const on = said.filter(({ stops }) => isUp(stops));
    if (on.length === 1) return [scaled(glint, faderGain(on[0].stops))];
    return on.map(({ at, stops }) => ({ ...scaled(glint, faderGain(stops) / on.length), u: at.u, v: at.v }));
  });
  return [...kept, ...fresh];
}

/** A source's light in the colour that a lens gives to it; its luminance stays. */
export function tinted(glint: Glint, { tint, gel }: Pick<LensSettings, 'tint' | 'gel'>): Glint {
  if (tint === 0) return glint;
  const color = gelColor(gel, 0);
  const grey = LUMINANCE[0] * glint.r + LUMINANCE[1] * glint.g + LUMINANCE[2] * glint.b;
  const toward = (own: number, c: 0 | 1 | 2) => own + tint * (grey * color[c] - own);
  return { ...glint, r: toward(glint.r, 0), g: toward(glint.g, 1), b: toward(glint.b, 2) };
}
