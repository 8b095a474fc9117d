import type { PlacedBody } from './placed-schema';

/** A picture that was taken in to be placed. */
export interface TakenPicture {
  /** SHA-256 of its file. */
  asset: string;
  width: number;
  height: number;
  /** SHA-256 of its own coverage, where its file has one, and where in it something stands. */
  alpha?: string;
  body: PlacedBody;
  /** What a person should know of how it was read. */
  note?: string;
}
