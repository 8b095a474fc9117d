/** What a matte covers on a copy of the plate, 0 to 255. */
export interface CoveragePicture {
  width: number;
  height: number;
  data: Uint8Array;
}

/** How much of the picture a matte covers, 0 to 1. */
export const coveredShare = ({ data }: CoveragePicture): number =>
  data.reduce((sum, value) => sum + value, 0) / (255 * data.length);
