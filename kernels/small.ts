/*
 * Small pictures that are looked at between their pixels, several at once: each has two lines drawn out, between which a row lies. See SMALL in
 * src/engine/kernels/layout.ts.
 */
import { drawOut, LINE, lineAt } from './enlarge';
import { splatAt } from './film';
import {
  SMALL_BYTES, SMALL_DOWN, SMALL_HELD, SMALL_HIGH, SMALL_LOWER, SMALL_PLACE, SMALL_UPPER, SMALL_WIDE,
} from './generated';

/** Gives each of some small pictures its lines, of which none is drawn yet. */
export function begin(smalls: usize, count: usize, lines: usize): void {
  for (let k: usize = 0; k < count; k++) {
    const small = smalls + k * SMALL_BYTES;
    store<u32>(small + SMALL_UPPER, <u32>(lines + 2 * k * LINE));
    store<u32>(small + SMALL_LOWER, <u32>(lines + (2 * k + 1) * LINE));
    store<i32>(small + SMALL_HELD, -2);
  }
}

/** Draws two lines of a small picture for a row of the region, where they are not drawn yet. */
export function ready(small: usize, y: i32, first: i32, count: i32): void {
  const place = small + SMALL_PLACE;
  const wide = load<i32>(small + SMALL_WIDE);
  const high = load<i32>(small + SMALL_HIGH);
  const data = load<u32>(small);
  const v = load<f32>(place + 8) + <f32>y * load<f32>(place + 12);
  const row = min<i32>(high - 1, max<i32>(0, <i32>floor<f32>(v)));
  const held = load<i32>(small + SMALL_HELD);
  if (row !== held) {
    if (row === held + 1) {
      const upper = load<u32>(small + SMALL_UPPER);
      store<u32>(small + SMALL_UPPER, load<u32>(small + SMALL_LOWER));
      store<u32>(small + SMALL_LOWER, upper);
    } else {
      drawOut(load<u32>(small + SMALL_UPPER), data + (<usize>(row * wide) << 2), wide, place, first, count);
    }
    const next = min<i32>(high - 1, row + 1);
    drawOut(load<u32>(small + SMALL_LOWER), data + (<usize>(next * wide) << 2), wide, place, first, count);
    store<i32>(small + SMALL_HELD, row);
  }
  store<f32>(small + SMALL_DOWN, min<f32>(1, max<f32>(0, v - <f32>row)));
}

@inline
export function seenAt(small: usize, at: usize): v128 {
  return lineAt(load<u32>(small + SMALL_UPPER), load<u32>(small + SMALL_LOWER), at, splatAt(small, SMALL_DOWN));
}
