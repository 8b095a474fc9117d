import type { CoveragePicture } from '@/core/matte/coverage-picture';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { Region } from '@/core/plane/region';
import type { KeptResults } from './kept-results';

/**
 * Gives a region of a plate: interleaved RGB, 16-bit sRGB codes, 3 * width * height. The renderer asks again for what its
 * memory has let go.
 */
export type LoadCodes = (asset: string, region: Region, signal: AbortSignal) => Promise<Uint16Array>;

/** Where a renderer gets the files of a scene from. */
export interface RenderAssets {
  codes: LoadCodes;
  lut: (asset: string, signal: AbortSignal) => Promise<CubeLut>;
  /** What an edge brush found. */
  coverage: (asset: string, signal: AbortSignal) => Promise<CoveragePicture>;
  /** Results of an earlier visit, where there are any. */
  results?: KeptResults;
}
