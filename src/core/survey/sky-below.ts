import { growInto } from './grow-into';
import type { PlateFeatures } from './plate-features';
import { skyLooks } from './sky-looks';
import { solidOf } from './sky-patches';

/** Where no row of a plate lies: all of it is over this horizon. */
const BELOW_PLATE = { left: 2, right: 2 } as const;

/** Steps by which sky goes on to the edge at which it ends. */
const OVER_EDGE = 2;

/**
 * Sky that goes on below a horizon of which nothing is said: one may look up a tower. Only what hangs together with the sky above, across no
 * edge and through no strait, is taken: a lake or sand beyond a shore is none. Spreads into `sky`.
 *
 * @param over 1 over the horizon, where all sky is known
 */
export function skyBelow(features: PlateFeatures, sky: Uint8Array, over: Uint8Array): void {
  const { width, height } = features;
  const { like, pale } = skyLooks(features, BELOW_PLATE);
  const solid = solidOf(like, width, height);
  const open: number[] = [];
  const reached = new Uint8Array(sky.length);
  for (let i = 0; i + width < sky.length; i++) if (sky[i] && solid[i] && !over[i + width]) open.push(i);
  while (open.length > 0) {
    const from = open.pop()!;
    const x = from % width;
    for (const to of [from - width, from + width, x > 0 ? from - 1 : -1, x < width - 1 ? from + 1 : -1]) {
      if (to < 0 || to >= sky.length || over[to] || reached[to] || !solid[to]) continue;
      reached[to] = 1;
      open.push(to);
    }
  }
  for (let step = 0; step <= OVER_EDGE; step++) growInto(reached, step === 0 ? like : pale, width);
  for (let i = 0; i < sky.length; i++) if (reached[i] && !over[i]) sky[i] = 1;
}
