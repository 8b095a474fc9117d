import { hypot } from '@/core/plane/hypot';

/** A place of a plane, and its value there. */
export interface Peak {
  x: number;
  y: number;
  score: number;
}

/** Places are counted in steps of so many pixels. */
const STEP = 4;

/**
 * The highest places of a plane, highest first, each the highest within `apart` pixels of it, where something may be.
 *
 * @param least value from which a place counts
 * @param most most places that are told
 */
function peaks(
  data: Float32Array,
  columns: number,
  { apart, least, most }: { apart: number; least: number; most: number },
  mayBe: (x: number, y: number) => boolean,
): Peak[] {
  const high: Peak[] = [];
  for (let i = 0; i < data.length; i++) {
    const score = data[i];
    // Where a sample or a place is plain, likeness is no number.
    if (!(score >= least && score <= 1.01)) continue;
    const [x, y] = [i % columns, Math.floor(i / columns)];
    if (mayBe(x, y)) high.push({ x, y, score });
  }
  high.sort((a, b) => b.score - a.score);
  const kept: Peak[] = [];
  for (const one of high) {
    if (kept.length >= most) break;
    if (kept.every(({ x, y }) => hypot(x - one.x, y - one.y) > apart)) kept.push(one);
  }
  return kept;
}

/**
 * The peaks that are not there by chance: how many as good there would be by it where something may be is told by how many there are beside,
 * where nothing can be (a-contrario detection, Desolneux, Moisan and Morel 2000). Where it may be anywhere, nothing is by chance.
 *
 * @param mayBe whether something may be at a place
 * @param isOther whether a place where nothing can be shows something else than what is looked for
 * @param isAlike whether a peak stands a closer look
 * @param most how many may be by chance
 */
export function beyondChance(
  data: Float32Array,
  columns: number,
  limits: { apart: number; least: number; most: number },
  {
    mayBe,
    isOther,
    isAlike,
  }: {
    mayBe: (x: number, y: number) => boolean;
    isOther: (x: number, y: number) => boolean;
    isAlike: (peak: Peak) => boolean;
  },
  most: number,
): Peak[] {
  const rows = data.length / columns;
  let [may, all] = [0, 0];
  for (let y = 0; y < rows; y += STEP) {
    for (let x = 0; x < columns; x += STEP) {
      all++;
      if (mayBe(x, y)) may++;
    }
  }
  const times = may / Math.max(1, all - may);
  const others = peaks(data, columns, limits, (x, y) => !mayBe(x, y) && isOther(x, y)).filter(isAlike);
  const byChance = (best: number) => times * others.filter(({ score }) => score >= best).length;
  return peaks(data, columns, limits, mayBe).filter((peak) => isAlike(peak) && byChance(peak.score) <= most);
}
