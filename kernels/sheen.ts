/*
 * What surfaces give back as microfacets, four places at a time. The same as src/core/light/own-sheen.ts: same formulas, 32-bit.
 */

import { OWN_SHEEN_A2, PER_MIDDLE_GREY } from './generated';

const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);
const OWN_A2 = f32x4.splat(OWN_SHEEN_A2);
const PER_GREY = f32x4.splat(PER_MIDDLE_GREY);
const TWO = f32x4.splat(2);
const HALF = f32x4.splat(0.5);
const LEAST = f32x4.splat(1e-6);

/** As halfLength of the core. */
@inline
export function halfLength(lv: v128): v128 {
  return f32x4.sqrt(f32x4.pmax(LEAST, f32x4.add(TWO, f32x4.mul(TWO, lv))));
}

/** What Smith's shadowing divides by, for the square of alpha. */
@inline
function hiding(nl: v128, nv: v128, a2: v128): v128 {
  const rest = f32x4.sub(ONE, a2);
  return f32x4.mul(
    f32x4.add(nl, f32x4.sqrt(f32x4.add(a2, f32x4.mul(rest, f32x4.mul(nl, nl))))),
    f32x4.add(nv, f32x4.sqrt(f32x4.add(a2, f32x4.mul(rest, f32x4.mul(nv, nv))))),
  );
}

/** What facets half way between light and eye give back (Schlick 1994). */
@inline
function fresnelAt(half: v128): v128 {
  const away = f32x4.sub(ONE, f32x4.mul(half, HALF));
  const square = f32x4.mul(away, away);
  return f32x4.add(f32x4.splat(0.04), f32x4.mul(f32x4.splat(0.96), f32x4.mul(f32x4.mul(square, square), away)));
}

/** As ownSheen of the core, with one division instead of three. */
@inline
export function ownSheen(nl: v128, nv: v128, half: v128): v128 {
  const both = f32x4.add(nl, nv);
  const both2 = f32x4.mul(both, both);
  const half2 = f32x4.mul(half, half);
  const spread = f32x4.add(f32x4.mul(f32x4.pmin(both2, half2), f32x4.sub(OWN_A2, ONE)), half2);
  const facets = f32x4.mul(f32x4.mul(PER_GREY, OWN_A2), f32x4.mul(half2, f32x4.mul(half2, half2)));
  return f32x4.div(
    f32x4.mul(f32x4.mul(nl, facets), fresnelAt(half)),
    f32x4.mul(f32x4.mul(f32x4.mul(spread, spread), f32x4.pmax(both2, half2)), hiding(nl, nv, OWN_A2)),
  );
}

/** As mirrorShine of the core. */
@inline
export function mirrorShine(nl: v128, nv: v128, half: v128, alpha: v128, seen: v128): v128 {
  const nh = f32x4.div(f32x4.add(nl, nv), half);
  const flat = f32x4.sqrt(f32x4.pmax(LEAST, f32x4.sub(ONE, f32x4.mul(nv, nv))));
  const along = f32x4.div(f32x4.sub(f32x4.mul(half, HALF), f32x4.mul(nv, nh)), flat);
  const nh2 = f32x4.mul(nh, nh);
  const along2 = f32x4.mul(along, along);
  const across2 = f32x4.pmax(ZERO, f32x4.sub(f32x4.sub(ONE, nh2), along2));
  const wide = f32x4.pmin(ONE, f32x4.add(alpha, f32x4.div(seen, half)));
  const long = f32x4.pmin(ONE, f32x4.add(alpha, f32x4.mul(seen, HALF)));
  const spread = f32x4.add(
    f32x4.add(f32x4.div(across2, f32x4.mul(wide, wide)), f32x4.div(along2, f32x4.mul(long, long))),
    nh2,
  );
  const facets = f32x4.div(ONE, f32x4.mul(f32x4.mul(wide, long), f32x4.mul(spread, spread)));
  return f32x4.div(
    f32x4.mul(f32x4.mul(nl, facets), fresnelAt(half)),
    hiding(nl, nv, f32x4.mul(alpha, alpha)),
  );
}
