import type { HungLamp } from '@/core/layout/hang-lamp';
import type { Scene } from '@/core/scene/schema';
import { HUNG, hung, type ClickedLamp } from '../stages/hung';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** Where a lamp hangs that was clicked; undefined where the plate and the plan do not tell it. */
export const hungIn =
  (scene: Scene, lamp: ClickedLamp): Readout<HungLamp | undefined> =>
  async (reader) => {
    const told = (await reader.see(hung(smallSpot(reader, scene), lamp))).hung;
    if (told[HUNG.is] === 0) return undefined;
    return {
      at: { u: told[HUNG.u], v: told[HUNG.v] },
      radius: told[HUNG.radius] || undefined,
      foot: { u: told[HUNG.footU], v: told[HUNG.footV] },
    };
  };
