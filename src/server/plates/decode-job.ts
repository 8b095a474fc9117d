import type { ColorProfile } from '@/core/color/color-profile';
import type { SceneParts } from '../scenes/scene-parts';

/** A whole picture as interleaved RGB, 16-bit sRGB codes. */
export interface DecodedCodes {
  data: Uint16Array;
  width: number;
  height: number;
}

/** What is found in a colour profile: how it turns codes into light, or that only LittleCMS can follow it. */
export type ReadProfile = { colors: ColorProfile } | { colors: 'tables' };

/** Work for a thread of its own: what it is given and what it gives. */
export interface DecodeWork {
  /** A camera's raw file. */
  raw: { given: { path: string }; gives: DecodedCodes };
  /** A colour profile, for samples of so many codes. */
  profile: { given: { profile: Uint8Array; codes: 256 | 65536 }; gives: ReadProfile };
  /** A picture with a profile of tables, to be made codes of sRGB. */
  convert: { given: { path: string; profile: Uint8Array; deep: boolean }; gives: DecodedCodes };
  /** A scene file, to be taken apart into files of a data folder. */
  unpack: { given: { path: string; dataDir: string }; gives: SceneParts };
}

export type DecodeKind = keyof DecodeWork;

/** A job as it is handed to a thread. */
export interface DecodeJob<Kind extends DecodeKind = DecodeKind> {
  kind: Kind;
  given: DecodeWork[Kind]['given'];
}

/** What a thread answers: what came of the job, or why it could not be done. */
export type DecodeAnswer<Kind extends DecodeKind = DecodeKind> =
  { gives: DecodeWork[Kind]['gives'] } | { fault: { status: number; code: string; message: string } };
