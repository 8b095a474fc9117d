/*
 * What surfaces mirror, a pixel at a time: its red, green, blue and how far it is known are one vector. The same as
 * src/core/mirror/mirror-image.ts and add-mirrors.ts, 32-bit.
 */
import { ZERO } from './film';
import {
  MIRROR_F0, MIRROR_GRAZING, MIRROR_LEAST, MIRROR_OVERLAP, MIRROR_SHARE_FAR, MIRROR_SHARE_MIDDLE, MIRROR_SHARE_NEAR, MIRROR_TAP, PART,
  SMALL_BYTES,
} from './generated';
import { begin, readyAll, seenAt } from './small';

/** Bytes of a level in the list: where its pixels lie, its width and height. */
const LEVEL: usize = 12;

const ROOT_TWO: f32 = 1.4142135;

/** The whole number that is nearest to the logarithm to base 2 of what is at least 1. */
@inline
function nearestLog(value: f32): i32 {
  return (reinterpret<i32>(value * ROOT_TWO) >> 23) - 127;
}

/** A picture of four floats a pixel, looked at between its pixels. */
@inline
function lookedAt(data: usize, wide: i32, high: i32, x: f32, y: f32): v128 {
  const px = min<f32>(<f32>(wide - 1), max<f32>(0, x));
  const py = min<f32>(<f32>(high - 1), max<f32>(0, y));
  const left = <i32>px;
  const top = <i32>py;
  const aside = f32x4.splat(px - <f32>left);
  const down = f32x4.splat(py - <f32>top);
  const at = data + (<usize>(top * wide + left) << 4);
  const right: usize = left + 1 < wide ? 16 : 0;
  const below: usize = top + 1 < high ? <usize>wide << 4 : 0;
  const a = v128.load(at);
  const b = v128.load(at + below);
  const upper = f32x4.add(a, f32x4.mul(aside, f32x4.sub(v128.load(at + right), a)));
  const lower = f32x4.add(b, f32x4.mul(aside, f32x4.sub(v128.load(at + below + right), b)));
  return f32x4.add(upper, f32x4.mul(down, f32x4.sub(lower, upper)));
}

@inline
function tap(sum: v128, level: usize, x: f32, y: f32, share: f32): v128 {
  const seen = lookedAt(load<u32>(level), load<i32>(level + 4), load<i32>(level + 8), x, y);
  return f32x4.add(sum, f32x4.mul(f32x4.splat(share), seen));
}

/**
 * What `count` pixels of a copy show as mirrors. `planes`: offsets of out, u, v, behind, weight, alpha, facing, then how many levels there
 * are, and those. `perBehind`: how wide a facet of slope 1 blurs what lies wholly behind the mirror, pixels of the copy.
 */
export function mirrorImage(planes: usize, perBehind: f32, count: i32): void {
  const out = load<u32>(planes);
  const us = load<u32>(planes + 4);
  const vs = load<u32>(planes + 8);
  const behinds = load<u32>(planes + 12);
  const weights = load<u32>(planes + 16);
  const alphas = load<u32>(planes + 20);
  const facings = load<u32>(planes + 24);
  const last = load<i32>(planes + 28) - 1;
  const levels = planes + 32;
  const width = <f32>load<i32>(levels + 4);
  const height = <f32>load<i32>(levels + 8);
  for (let i = 0; i < count; i++) {
    const at = <usize>i << 2;
    const weight = load<f32>(weights + at);
    let sum = ZERO;
    if (weight > 0) {
      const along = load<f32>(alphas + at) * load<f32>(behinds + at) * perBehind;
      const aside = along * max<f32>(MIRROR_GRAZING, load<f32>(facings + at));
      const blur = max<f32>(1, max<f32>(aside, MIRROR_OVERLAP * along));
      const k = min<i32>(last, nearestLog(blur));
      const scale: f32 = <f32>1 / <f32>(1 << k);
      const level = levels + <usize>k * LEVEL;
      const x = load<f32>(us + at) * width * scale - 0.5;
      const y = load<f32>(vs + at) * height * scale - 0.5;
      const step = MIRROR_TAP * along * scale;
      sum = tap(sum, level, x, y - 2 * step, MIRROR_SHARE_FAR);
      sum = tap(sum, level, x, y - step, MIRROR_SHARE_NEAR);
      sum = tap(sum, level, x, y, MIRROR_SHARE_MIDDLE);
      sum = tap(sum, level, x, y + step, MIRROR_SHARE_NEAR);
      sum = tap(sum, level, x, y + 2 * step, MIRROR_SHARE_FAR);
    }
    v128.store(out + (<usize>i << 4), f32x4.replace_lane(sum, 3, weight));
  }
}

/** Schlick's Fresnel (1994) of a mirror seen under a cosine. */
@inline
function fresnel(facing: f32): f32 {
  const away: f32 = 1 - min<f32>(1, max<f32>(0, facing));
  const square = away * away;
  return MIRROR_F0 + (1 - MIRROR_F0) * square * square * away;
}

@inline
function addTo(plane: usize, value: f32): void {
  store<f32>(plane, load<f32>(plane) + value);
}

/**
 * Adds what surfaces mirror to `rows` rows of a region of `width`. `planes`: offsets of r, g, b, sheen, normals x, y, z, land, then of the
 * image, its width and height. `smalls`: the image's weight, and how far ripples shift it. `params`: view rays, twice the focal
 * length in widths and in heights of the image, strength, then where the first pixel lies on the image and the way to the next, across and
 * down. `lines`: room for two lines of each small picture.
 */
export function addMirrors(planes: usize, smalls: usize, params: usize, lines: usize, width: i32, rows: i32): void {
  const red = load<u32>(planes);
  const green = load<u32>(planes + 4);
  const blue = load<u32>(planes + 8);
  const sheens = load<u32>(planes + 12);
  const normalX = load<u32>(planes + 16);
  const normalY = load<u32>(planes + 20);
  const normalZ = load<u32>(planes + 24);
  const lands = load<u32>(planes + 28);
  const image = load<u32>(planes + 32);
  const wide = load<i32>(planes + 36);
  const high = load<i32>(planes + 40);
  const turnAcross = load<f32>(params + 36);
  const turnDown = load<f32>(params + 40);
  const strength = load<f32>(params + 44);
  for (let part = 0; part < width; part += PART) {
    const first = min<i32>(part, width - 4);
    // What a part before has done is not added twice.
    const from = part - first;
    const count = min<i32>(PART, width - first);
    begin(smalls, 2, lines);
    for (let y = 0; y < rows; y++) {
      readyAll(smalls, 2, y, first, count);
      const row = y * width + first;
      for (let x = from; x < count; x++) {
        const at = <usize>(row + x) << 2;
        const sheen = load<f32>(sheens + at);
        const land = load<f32>(lands + at);
        if (sheen == 0 || land == 0) continue;
        const along = <usize>x << 2;
        const weight = f32x4.extract_lane(seenAt(smalls, along), 0);
        if (weight <= MIRROR_LEAST) continue;
        const column = <f32>(first + x);
        const line = <f32>y;
        const rx = load<f32>(params) + column * load<f32>(params + 12) + line * load<f32>(params + 24);
        const ry = load<f32>(params + 4) + column * load<f32>(params + 16) + line * load<f32>(params + 28);
        const rz = load<f32>(params + 8) + column * load<f32>(params + 20) + line * load<f32>(params + 32);
        const nx = load<f32>(normalX + at);
        const ny = load<f32>(normalY + at);
        const nz = load<f32>(normalZ + at);
        const toward = rx * nx + ry * ny + rz * nz;
        if (toward >= 0) continue;
        const facing = -toward / sqrt<f32>(rx * rx + ry * ry + rz * rz);
        const px = load<f32>(params + 48) + column * load<f32>(params + 52);
        const py = load<f32>(params + 56) + line * load<f32>(params + 60);
        let light = ZERO;
        const ripples = nz < 1 ? f32x4.extract_lane(seenAt(smalls + SMALL_BYTES, along), 0) : 0;
        if (ripples > 0) {
          // A tilt of the mirror turns what is seen in it by twice as much.
          const turn = ripples / weight;
          light = lookedAt(image, wide, high, px - turnAcross * turn * nx, py + turnDown * turn * ny);
        }
        if (f32x4.extract_lane(light, 3) < 0.5) light = lookedAt(image, wide, high, px, py);
        const share = (strength * sheen * land * fresnel(facing)) / f32x4.extract_lane(light, 3);
        const added = f32x4.mul(f32x4.splat(share), light);
        addTo(red + at, f32x4.extract_lane(added, 0));
        addTo(green + at, f32x4.extract_lane(added, 1));
        addTo(blue + at, f32x4.extract_lane(added, 2));
      }
    }
  }
}

/** A picture of `width` by `height` as four floats a pixel, all of it known. */
function interleave(out: usize, red: usize, green: usize, blue: usize, count: i32): void {
  for (let at: usize = 0; at < <usize>count << 2; at += 4)
    v128.store(out + (at << 2), f32x4(load<f32>(red + at), load<f32>(green + at), load<f32>(blue + at), 1));
}

/** A level of half the size, of means over two by two pixels. */
function halve(out: usize, level: usize): void {
  const data = load<u32>(level);
  const wide = load<i32>(level + 4);
  const high = load<i32>(level + 8);
  const right: usize = wide > 1 ? 16 : 0;
  const below: usize = high > 1 ? <usize>wide << 4 : 0;
  const quarter = f32x4.splat(0.25);
  let to: usize = load<u32>(out);
  const halfWide = load<i32>(out + 4);
  const halfHigh = load<i32>(out + 8);
  for (let y = 0; y < halfHigh; y++) {
    let at: usize = data + (<usize>(2 * y * wide) << 4);
    for (let x = 0; x < halfWide; x++, at += 32, to += 16) {
      const upper = f32x4.add(v128.load(at), v128.load(at + right));
      const lower = f32x4.add(v128.load(at + below), v128.load(at + below + right));
      v128.store(to, f32x4.mul(quarter, f32x4.add(upper, lower)));
    }
  }
}

/** Fills a pyramid. `planes`: offsets of r, g, b, how many levels there are, and those, the whole picture first. */
export function fillPyramid(planes: usize): void {
  const levels = planes + 16;
  const count = load<i32>(levels + 4) * load<i32>(levels + 8);
  interleave(load<u32>(levels), load<u32>(planes), load<u32>(planes + 4), load<u32>(planes + 8), count);
  for (let k = 1; k < load<i32>(planes + 12); k++)
    halve(levels + <usize>k * LEVEL, levels + <usize>(k - 1) * LEVEL);
}
