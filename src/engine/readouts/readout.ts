import type { FrameRequest } from '../frame-request';
import type { Spot } from '../graph/spot';
import type { View } from '../graph/view';
import type { Want } from '../graph/stage-spec';

/** What a readout reads with. */
export interface Reader {
  /** Where a readout asks for results. */
  spot: (request: FrameRequest) => Spot;
  /** A result, to be read before the readout ends. It must be one that is kept. */
  see: <V extends View>(want: Want<V>) => Promise<V>;
}

/** Something that is read off the stages of a picture, other than the picture. */
export type Readout<T> = (reader: Reader) => Promise<T>;
