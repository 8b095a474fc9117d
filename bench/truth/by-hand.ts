import { TRUTH } from './truth-files';

/** Sizes of what a hand paints for one lamp, fractions of the picture's width, and the ellipse's strength beside the brush. */
export interface HandSizes {
  brush: number;
  across: number;
  down: number;
  ellipse: number;
}

/** What a practised hand takes without much thought. */
export const ORDINARY: HandSizes = { brush: 0.1, across: 0.14, down: 0.04, ellipse: 1 };

/** A lamp as the hand sees it: its place and its foot. */
export type HandLamp = readonly [u: number, v: number, footU: number, footV: number, ...rest: number[]];

/** The hand's way: the plate times a soft round brush at every lamp and a soft ellipse on the ground under it. */
export function paintByHand(plate: Float32Array, lamps: readonly HandLamp[], sizes: HandSizes): Float32Array {
  const { width, height } = TRUTH;
  const aspect = width / height;
  return plate.map((value, i) => {
    const [u, v] = [((i % width) + 0.5) / width, (Math.floor(i / width) + 0.5) / height];
    let light = 0;
    for (const [lampU, lampV, footU, footV] of lamps) {
      const near = ((u - lampU) ** 2 + ((v - lampV) / aspect) ** 2) / sizes.brush ** 2;
      const pool = ((u - footU) / sizes.across) ** 2 + ((v - footV) / aspect / sizes.down) ** 2;
      light += Math.exp(-near) + sizes.ellipse * Math.exp(-pool);
    }
    return value * light;
  });
}

/** Sizes searched, one after the other, for the least error. */
export function fitByHand(error: (sizes: HandSizes) => number): HandSizes {
  let best = ORDINARY;
  let least = error(best);
  for (const factor of [2.2, 1.6, 1.25]) {
    for (let round = 0; round < 2; round++) {
      for (const name of Object.keys(best) as (keyof HandSizes)[]) {
        for (const by of [factor, 1 / factor]) {
          for (
            let tried = { ...best, [name]: best[name] * by };
            ;
            tried = { ...tried, [name]: tried[name] * by }
          ) {
            const now = error(tried);
            if (now >= least) break;
            [best, least] = [tried, now];
          }
        }
      }
    }
  }
  return best;
}
