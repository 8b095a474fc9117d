/** What a matte covers on a copy of the plate, 0 to 255. */
export interface CoveragePicture {
  width: number;
  height: number;
  data: Uint8Array;
}
