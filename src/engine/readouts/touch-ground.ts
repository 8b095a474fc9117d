import type { Region } from '@/core/plane/region';
import type { Touch } from '@/core/scene/schema';
import type { TouchGround } from '@/core/touch/touched-light';
import type { FrameRequest } from '../frame-request';
import { touchGround } from '../stages/touch-ground';
import type { Readout } from './readout';

/** A part of a picture under the brush of a touch; the caller's own. */
export interface TouchGroundPicture extends TouchGround {
  region: Region;
}

/** What a stroke of a touch gives at each place of a region. */
export const touchGroundOf =
  (request: FrameRequest, touch: Touch): Readout<TouchGroundPicture> =>
  async ({ spot, see }) => {
    const { width, height, ...planes } = await see(touchGround(spot(request), touch));
    const { r, g, b, gainR, gainG, gainB, taken, room } = planes;
    const own = (plane: Float32Array) => new Float32Array(plane);
    return {
      region: request.region,
      light: { width, height, r: own(r), g: own(g), b: own(b) },
      gain: { width, height, r: own(gainR), g: own(gainG), b: own(gainB) },
      ...{ taken: own(taken), room: own(room) },
    };
  };
