export {
  cmsFLAGS_NOCACHE,
  INTENT_RELATIVE_COLORIMETRIC,
  instantiate,
  TYPE_RGB_16,
  TYPE_RGB_8,
} from 'lcms-wasm';

/** LittleCMS's name of a pixel format (lcms2.h): 32-bit floats of a colour space and its channels. */
const floats = (space: number, channels: number) => (1 << 22) | (space << 16) | (channels << 3) | 4;

/* Formats that the package does not name. */
export const TYPE_GRAY_FLT = floats(3, 1);
export const TYPE_RGB_FLT = floats(4, 3);
export const TYPE_XYZ_FLT = floats(9, 3);
