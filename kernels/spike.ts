/* Spikes of sources. The same as `addSpike` of src/core/lens/add-spikes.ts, 32-bit. */
import { fading } from './fading';
import { SPIKE_ACROSS, SPIKE_BYTES, SPIKE_STEPS } from './generated';

const ROOT_OF_TURN: f32 = 2.5066283;
const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);

/** A spike across its longer axis at four places of it: where its middle lies, how far it is drawn, its peak, and how it falls off. */
const MIDDLE: usize = 0;
const WIDE: usize = 16;
const PEAK: usize = 32;
const FALLS: usize = 48;

/** Notes a spike at a distance `far` from its source, as one of the four places of `room`. `table`: share and breadth of each step. */
@inline
function noteAt(
  room: usize,
  far: f32,
  side: f32,
  ahead: f32,
  aside: f32,
  light: f32,
  perStep: f32,
  table: usize,
): void {
  const at = far * perStep;
  const step = min<i32>(SPIKE_STEPS, <i32>at);
  const part = at - <f32>step;
  const entry = table + (<usize>step << 3);
  const share = load<f32>(entry) + part * (load<f32>(entry + 8) - load<f32>(entry));
  const sigma = load<f32>(entry + 4) + part * (load<f32>(entry + 12) - load<f32>(entry + 4));
  store<f32>(room + MIDDLE, side + far * aside);
  store<f32>(room + WIDE, (SPIKE_ACROSS * sigma) / abs<f32>(ahead));
  store<f32>(room + PEAK, (light * share) / (ROOT_OF_TURN * sigma));
  store<f32>(room + FALLS, (ahead * ahead) / (2 * sigma * sigma));
}

/** Light at four places across, some distances off the middle; beyond what is drawn none. */
@inline
function across(off: v128, wide: v128, peak: v128, falls: v128): v128 {
  const light = f32x4.mul(peak, fading(f32x4.mul(falls, f32x4.mul(off, off))));
  return v128.bitselect(light, ZERO, f32x4.le(f32x4.abs(off), wide));
}

/** Adds four values to a row, of which `count` belong to it. */
@inline
function add(at: usize, values: v128, count: i32): void {
  if (count >= 4) {
    v128.store(at, f32x4.add(v128.load(at), values));
    return;
  }
  if (count > 0) store<f32>(at, load<f32>(at) + f32x4.extract_lane(values, 0));
  if (count > 1) store<f32>(at + 4, load<f32>(at + 4) + f32x4.extract_lane(values, 1));
  if (count > 2) store<f32>(at + 8, load<f32>(at + 8) + f32x4.extract_lane(values, 2));
}

/**
 * Adds one spike to a region of `width` by `height` that begins at `left`, `top`. `spike`: where it begins, which way it goes (length 1),
 * its light, and how far it is seen. All places are those of the whole picture, so that every region finds the same.
 */
function addSpike(
  out: usize,
  left: i32,
  top: i32,
  width: i32,
  height: i32,
  spike: usize,
  perStep: f32,
  table: usize,
  room: usize,
): void {
  const dx = load<f32>(spike + 8);
  const dy = load<f32>(spike + 12);
  const light = load<f32>(spike + 16);
  const isLevel = abs<f32>(dx) >= abs<f32>(dy);
  const begin = load<f32>(isLevel ? spike : spike + 4);
  const side = load<f32>(isLevel ? spike + 4 : spike);
  const ahead = isLevel ? dx : dy;
  const aside = isLevel ? dy : dx;
  const low = isLevel ? left : top;
  const high = isLevel ? left + width - 1 : top + height - 1;
  const end = begin + load<f32>(spike + 20) * ahead;
  const from = max<i32>(low, <i32>ceil<f32>(min<f32>(begin, end)));
  const to = min<i32>(high, <i32>floor<f32>(max<f32>(begin, end)));
  if (!isLevel) {
    const right = left + width;
    for (let p = from; p <= to; p++) {
      noteAt(room, (<f32>p - begin) / ahead, side, ahead, aside, light, perStep, table);
      const middle = load<f32>(room + MIDDLE);
      const wide = load<f32>(room + WIDE);
      const last = min<i32>(right - 1, <i32>floor<f32>(middle + wide));
      const peak = v128.load32_splat(room + PEAK);
      const falls = v128.load32_splat(room + FALLS);
      for (let q = max<i32>(left, <i32>ceil<f32>(middle - wide)); q <= last; q += 4) {
        const off = f32x4.add(f32x4.splat(<f32>q - middle), LANES);
        const at = out + (<usize>((p - top) * width + q - left) << 2);
        add(at, across(off, f32x4.splat(wide), peak, falls), right - q);
      }
    }
    return;
  }
  for (let p = from; p <= to; p += 4) {
    let least: f32 = 1e9;
    let most: f32 = -1e9;
    for (let k = 0; k < 4; k++) {
      const place = room + (<usize>k << 2);
      noteAt(place, (<f32>min<i32>(to, p + k) - begin) / ahead, side, ahead, aside, light, perStep, table);
      least = min<f32>(least, load<f32>(place + MIDDLE) - load<f32>(place + WIDE));
      most = max<f32>(most, load<f32>(place + MIDDLE) + load<f32>(place + WIDE));
    }
    const middle = v128.load(room + MIDDLE);
    const wide = v128.load(room + WIDE);
    const peak = v128.load(room + PEAK);
    const falls = v128.load(room + FALLS);
    const last = min<i32>(top + height - 1, <i32>floor<f32>(most));
    for (let q = max<i32>(top, <i32>ceil<f32>(least)); q <= last; q++) {
      const off = f32x4.sub(f32x4.splat(<f32>q), middle);
      const at = out + (<usize>((q - top) * width + p - left) << 2);
      add(at, across(off, wide, peak, falls), to + 1 - p);
    }
  }
}

/**
 * Adds `count` spikes. `table`: share of its light a pixel along a spike and breadth, pixels, at each of SPIKE_STEPS steps, of which `perStep` go
 * into a pixel. `room`: 64 bytes.
 */
export function addSpikes(
  out: usize,
  left: i32,
  top: i32,
  width: i32,
  height: i32,
  spikes: usize,
  count: i32,
  perStep: f32,
  table: usize,
  room: usize,
): void {
  for (let k = 0; k < count; k++)
    addSpike(out, left, top, width, height, spikes + <usize>k * SPIKE_BYTES, perStep, table, room);
}
