/** A whole picture as interleaved RGB, 16-bit sRGB codes. */
export interface DecodedCodes {
  data: Uint16Array;
  width: number;
  height: number;
}

/** Work for a thread of its own. */
export type DecodeJob =
  /** A camera's raw file. */
  | { type: 'raw'; path: string }
  /** 16-bit codes of some RGB profile, to be made those of sRGB. */
  | ({ type: 'profile'; profile: Uint8Array } & DecodedCodes);

/** Why a job could not be done. */
export interface DecodeFault {
  fault: string;
}
