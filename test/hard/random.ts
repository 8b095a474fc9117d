/** Random numbers from a seed (Mulberry32, T. Ettinger): the same run again for the same seed. */
export interface Random {
  /** From 0 up to but not including 1. */
  next: () => number;
  /** A whole number from 0 up to but not including `below`. */
  below: (below: number) => number;
  pick: <T>(list: readonly T[]) => T;
}

export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const below = (most: number) => Math.floor(next() * most);
  return { next, below, pick: (list) => list[below(list.length)] };
}
