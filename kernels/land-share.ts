/* Coverage by land of four places at a time. The same as src/core/sky/land-share.ts, 32-bit. */
import { clamped, luminance, ONE, ZERO } from './film';
import {
  LAND_APART_FROM, LAND_APART_TO, LAND_ASTRAY_FROM, LAND_ASTRAY_TO, LAND_AROUND, LAND_BLUER_FROM, LAND_BLUER_TO, LAND_DARKEST,
  LAND_DARK_FROM, LAND_DARK_TO, LAND_DEEPEST, LAND_FOREIGN_FROM, LAND_FOREIGN_TO, LAND_LIGHTER_FROM, LAND_LIGHTER_TO, LAND_LIGHTEST,
  LAND_OWN_DARK_FROM, LAND_OWN_DARK_TO, LAND_SAME_FROM, LAND_SAME_TO, LAND_THING_FROM, LAND_THING_TO, LAND_UNEVEN_FROM,
  LAND_UNEVEN_TO, SMALL_BYTES, TOLD_EVEN, TOLD_FLOOR, TOLD_LAND, TOLD_LEAVES, TOLD_NEAR_SKY, TOLD_SKY, TOLD_WITHIN_LAND, TOLD_WITHIN_SKY,
} from './generated';
import { smoothStep } from './smooth-step';
import { seenAt } from './small';

const LEAST = f32x4.splat(1e-4);
const HALF = f32x4.splat(0.5);
const LIGHTEST = f32x4.splat(LAND_LIGHTEST);
const DARKEST = f32x4.splat(LAND_DARKEST);
const DEEPEST = f32x4.splat(LAND_DEEPEST);

/** A small picture that a skyline is read from. */
@inline
export function toldAt(smalls: usize, which: usize, along: usize): v128 {
  return seenAt(smalls + which * SMALL_BYTES, along);
}

@inline
function sum(a: v128, b: v128, c: v128): v128 {
  return f32x4.add(f32x4.add(a, b), c);
}

@inline
function dot(ar: v128, ag: v128, ab: v128, br: v128, bg: v128, bb: v128): v128 {
  return sum(f32x4.mul(ar, br), f32x4.mul(ag, bg), f32x4.mul(ab, bb));
}

/** How far a sky tells by its evenness. */
@inline
export function evennessAt(smalls: usize, along: usize): v128 {
  return smoothStep(LAND_UNEVEN_FROM, LAND_UNEVEN_TO, toldAt(smalls, TOLD_EVEN, along));
}

/** A colour's hue beside its light. */
@inline
function hue(channel: v128, light: v128): v128 {
  return f32x4.sub(f32x4.div(channel, light), ONE);
}

/** How far a colour's hue lies beside all between the sky's and white: no cloud has it. */
function foreign(r: v128, g: v128, b: v128, skyR: v128, skyG: v128, skyB: v128, light: v128, skyLight: v128): v128 {
  const isLight = f32x4.ge(light, f32x4.mul(DARKEST, skyLight));
  if (!v128.any_true(isLight)) return ZERO;
  const hueR = hue(skyR, skyLight);
  const hueG = hue(skyG, skyLight);
  const hueB = hue(skyB, skyLight);
  const ownR = hue(r, light);
  const ownG = hue(g, light);
  const ownB = hue(b, light);
  const length = f32x4.add(f32x4.splat(1e-6), dot(hueR, hueG, hueB, hueR, hueG, hueB));
  const along = f32x4.div(dot(ownR, ownG, ownB, hueR, hueG, hueB), length);
  const tint = f32x4.pmin(DEEPEST, f32x4.pmax(ZERO, along));
  const offR = f32x4.sub(ownR, f32x4.mul(tint, hueR));
  const offG = f32x4.sub(ownG, f32x4.mul(tint, hueG));
  const offB = f32x4.sub(ownB, f32x4.mul(tint, hueB));
  const off = f32x4.sqrt(dot(offR, offG, offB, offR, offG, offB));
  return v128.and(isLight, smoothStep(LAND_FOREIGN_FROM, LAND_FOREIGN_TO, off));
}

/** How surely places between leaves are sky. */
@inline
function betweenLeaves(r: v128, g: v128, b: v128, light: v128, landLight: v128, leaves: v128): v128 {
  const blue = f32x4.div(f32x4.sub(b, f32x4.mul(HALF, f32x4.add(r, g))), f32x4.pmax(LEAST, light));
  const lighter = f32x4.div(light, f32x4.pmax(LEAST, landLight));
  return f32x4.mul(
    f32x4.mul(leaves, smoothStep(LAND_LIGHTER_FROM, LAND_LIGHTER_TO, lighter)),
    smoothStep(LAND_BLUER_FROM, LAND_BLUER_TO, blue),
  );
}

/**
 * Coverage by land of four places of a row, `along` bytes from its first, of so much light; `found`: as the survey found it. Of places that
 * are plainly land or sky it is not asked.
 */
export function landShare(smalls: usize, along: usize, r: v128, g: v128, b: v128, light: v128, found: v128): v128 {
  const skyR = toldAt(smalls, TOLD_SKY, along);
  const skyG = toldAt(smalls, TOLD_SKY + 1, along);
  const skyB = toldAt(smalls, TOLD_SKY + 2, along);
  const landR = toldAt(smalls, TOLD_LAND, along);
  const landG = toldAt(smalls, TOLD_LAND + 1, along);
  const landB = toldAt(smalls, TOLD_LAND + 2, along);
  const landLight = luminance(landR, landG, landB);
  const skyLight = f32x4.add(luminance(skyR, skyG, skyB), LEAST);
  const even = clamped(toldAt(smalls, TOLD_EVEN, along));
  const shade = f32x4.pmin(ONE, f32x4.pmax(even, f32x4.div(light, skyLight)));
  const wayR = f32x4.sub(landR, f32x4.mul(shade, skyR));
  const wayG = f32x4.sub(landG, f32x4.mul(shade, skyG));
  const wayB = f32x4.sub(landB, f32x4.mul(shade, skyB));
  const goneR = f32x4.sub(r, f32x4.mul(shade, skyR));
  const goneG = f32x4.sub(g, f32x4.mul(shade, skyG));
  const goneB = f32x4.sub(b, f32x4.mul(shade, skyB));
  const apart = f32x4.add(f32x4.splat(1e-12), dot(wayR, wayG, wayB, wayR, wayG, wayB));
  const share = f32x4.div(dot(goneR, goneG, goneB, wayR, wayG, wayB), apart);
  const offR = f32x4.sub(goneR, f32x4.mul(share, wayR));
  const offG = f32x4.sub(goneG, f32x4.mul(share, wayG));
  const offB = f32x4.sub(goneB, f32x4.mul(share, wayB));
  const astray = f32x4.div(f32x4.sqrt(dot(offR, offG, offB, offR, offG, offB)), skyLight);
  const told = smoothStep(LAND_APART_FROM, LAND_APART_TO, f32x4.div(f32x4.sqrt(apart), skyLight));
  // Where the sky is even, colour tells how far a mixed pixel is land; what is brighter than that is sky, where its haze is white.
  const isEven = evennessAt(smalls, along);
  const floor = toldAt(smalls, TOLD_FLOOR, along);
  const darkness = f32x4.div(light, f32x4.pmax(LEAST, f32x4.pmin(floor, skyLight)));
  const isDark = f32x4.sub(ONE, smoothStep(LAND_OWN_DARK_FROM, LAND_OWN_DARK_TO, darkness));
  const own = f32x4.mul(f32x4.mul(isDark, isEven), smoothStep(LAND_ASTRAY_FROM, LAND_ASTRAY_TO, astray));
  const mixed = f32x4.pmax(clamped(share), own);
  const trust = f32x4.mul(told, isEven);
  const other = f32x4.pmax(found, foreign(r, g, b, skyR, skyG, skyB, light, skyLight));
  const between = f32x4.add(other, f32x4.mul(trust, f32x4.sub(mixed, other)));
  const darkest = f32x4.pmin(landLight, f32x4.mul(LIGHTEST, floor));
  const below = f32x4.div(f32x4.sub(floor, light), f32x4.pmax(LEAST, f32x4.sub(floor, darkest)));
  const isThing = f32x4.mul(told, smoothStep(LAND_THING_FROM, LAND_THING_TO, below));
  const thing = v128.and(isThing, f32x4.gt(floor, landLight));
  const leaves = toldAt(smalls, TOLD_LEAVES, along);
  const leafy = betweenLeaves(r, g, b, light, landLight, leaves);
  const changeR = f32x4.sub(r, skyR);
  const changeG = f32x4.sub(g, skyG);
  const changeB = f32x4.sub(b, skyB);
  const change = f32x4.div(f32x4.sqrt(dot(changeR, changeG, changeB, changeR, changeG, changeB)), skyLight);
  const same = f32x4.sub(ONE, smoothStep(LAND_SAME_FROM, LAND_SAME_TO, change));
  const around = smoothStep(0, LAND_AROUND, toldAt(smalls, TOLD_NEAR_SKY, along));
  const dark = f32x4.sub(ONE, smoothStep(LAND_DARK_FROM, LAND_DARK_TO, f32x4.div(landLight, skyLight)));
  const gap = f32x4.mul(f32x4.mul(around, f32x4.pmax(same, leafy)), dark);
  const inSky = toldAt(smalls, TOLD_WITHIN_SKY, along);
  const inLand = toldAt(smalls, TOLD_WITHIN_LAND, along);
  const unsure = f32x4.pmax(ZERO, f32x4.sub(f32x4.sub(ONE, inSky), inLand));
  const all = sum(
    f32x4.mul(inSky, thing),
    f32x4.mul(inLand, f32x4.sub(ONE, gap)),
    f32x4.mul(unsure, f32x4.mul(f32x4.sub(ONE, leafy), between)),
  );
  return clamped(all);
}
