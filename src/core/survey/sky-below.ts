import { flood } from '../plane/flood';
import { growInto, growOverEdge } from './grow-into';
import type { PlateFeatures } from './plate-features';
import { skyLooks } from './sky-looks';
import { solidOf } from './sky-patches';

/** Where no row of a plate lies: all of it is over this horizon. */
const BELOW_PLATE = { left: 2, right: 2 } as const;

/**
 * Sky that goes on below a horizon of which nothing is said: one may look up a tower. Only what hangs together with the sky above, across no
 * edge and through no strait, is taken: a lake or sand beyond a shore is none. Spreads into `sky`.
 *
 * @param over 1 over the horizon, where all sky is known
 */
export function skyBelow(features: PlateFeatures, sky: Uint8Array, over: Uint8Array): void {
  const { width, height } = features;
  const ends = [...sky.keys()].filter((i) => sky[i] && i + width < sky.length && !over[i + width]);
  // Most photos have their ground there.
  if (ends.length === 0) return;
  const { like, pale } = skyLooks(features, BELOW_PLATE);
  const solid = solidOf(like, width, height);
  const open = solid.map((is, i) => is & (1 - over[i]));
  const room = new Int32Array(sky.length);
  const reached = new Uint8Array(sky.length);
  for (const end of ends) {
    const below = end + width;
    if (!solid[end] || reached[below]) continue;
    for (const i of room.subarray(0, flood(room, open, width, height, below))) reached[i] = 1;
  }
  growInto(reached, like, width);
  growOverEdge(reached, pale, width);
  for (let i = 0; i < sky.length; i++) if (reached[i] && !over[i]) sky[i] = 1;
}
