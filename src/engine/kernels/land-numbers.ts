import { ALL_OWN, DARKER, READ } from '@/core/sky/free-land';
import * as land from '@/core/sky/land-share';

/** Both ends of a smooth step. */
const ends = (name: string, from: number, to: number) => ({ [`${name}_FROM`]: from, [`${name}_TO`]: to });

/** What land and sky are told apart by along the skyline, as numbers of kernels. */
export const LAND_NUMBERS = {
  ...ends('LAND_APART', land.APART.none, land.APART.sure),
  ...ends('LAND_THING', land.THING.from, land.THING.to),
  ...ends('LAND_SAME', land.THROUGH.same, land.THROUGH.other),
  ...ends('LAND_DARK', land.DARK_LAND.surely, land.DARK_LAND.not),
  ...ends('LAND_LIGHTER', land.BETWEEN_LEAVES.lighter.from, land.BETWEEN_LEAVES.lighter.to),
  ...ends('LAND_BLUER', land.BETWEEN_LEAVES.bluer.from, land.BETWEEN_LEAVES.bluer.to),
  ...ends('LAND_ASTRAY', land.ASTRAY.from, land.ASTRAY.to),
  ...ends('LAND_OWN_DARK', land.OWN_DARK.surely, land.OWN_DARK.not),
  ...ends('LAND_UNEVEN', land.UNEVEN.from, land.UNEVEN.to),
  ...ends('LAND_FOREIGN', land.FOREIGN.from, land.FOREIGN.to),
  ...ends('LAND_READ', READ.from, READ.to),
  ...ends('LAND_HELD', DARKER.surely, DARKER.not),
  LAND_HELD: DARKER.held,
  LAND_ALL_OWN: ALL_OWN,
  LAND_LIGHTEST: land.THING.lightest,
  LAND_AROUND: land.THROUGH.around,
  LAND_DEEPEST: land.FOREIGN.deepest,
  LAND_DARKEST: land.FOREIGN.darkest,
  LAND_BRIGHT: land.DARK_LAND.not,
  LAND_SURELY: land.SURELY,
  LAND_NO_SKY: land.NO_SKY,
};
