import type { Surround } from '../night/surroundings';
import type { Scene } from '../scene/schema';
import { burns } from './layers';
import { hypot } from '../plane/hypot';

/** What of a scene stays open when its surroundings are darkened. Undefined when they are not. */
export function surroundOf(scene: Scene): Surround | undefined {
  const { stops, soft, at, across, down, lamps } = scene.night.surround;
  if (stops === 0) return undefined;
  const pools = [{ ...at, across, down }];
  const aspect = scene.plate.width / scene.plate.height;
  for (const { circuit, at: drop, foot } of lamps > 0 ? scene.fixtures : []) {
    const on = scene.circuits.find(({ id }) => id === circuit);
    if (!on || !burns(on, scene)) continue;
    const reach = lamps * hypot((foot.u - drop.u) * aspect, foot.v - drop.v);
    if (reach === 0) continue;
    const middle = { u: (drop.u + foot.u) / 2, v: (drop.v + foot.v) / 2 };
    pools.push({ ...middle, across: reach / aspect, down: reach });
  }
  return { stops, soft, pools };
}
