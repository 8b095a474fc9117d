import type { ThingBox } from '@/core/layout/guess-things';
import { dayCodes } from '@/segment/day-codes';
import type { Picture } from '@/segment/picture';
import { SIDE, type ThingNetwork } from './network';
import { eachOnce, ofWhole, type SeenThing } from './seen-things';
import { squareOf } from './square-of';
import { squaresOf } from './squares';

/** What the worker that sees things does, for one plate. It answers once the network is `ready`. */
export class DetectService {
  private picture?: Picture;

  constructor(private readonly ready: Promise<ThingNetwork>) {}

  /** Takes the plate, before anything else. */
  open(picture: Picture): void {
    this.picture = dayCodes(picture);
  }

  /**
   * The things of the plate that the network knows, the surest first.
   *
   * @param horizon its height in the middle, fraction of the picture's
   */
  async things(horizon: number): Promise<ThingBox[]> {
    const network = await this.ready;
    const { picture } = this;
    if (!picture) throw new Error('The plate is not there yet.');
    const seen: SeenThing[] = [];
    for (const part of squaresOf(picture.width / picture.height, horizon)) {
      seen.push(...ofWhole(await network.see(squareOf(picture, part, SIDE)), part));
    }
    return eachOnce(seen).map(({ is, left, right, top, bottom }) => ({
      ...{ is, left, right, top },
      foot: bottom,
      open: false,
    }));
  }
}
