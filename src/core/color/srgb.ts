/** A transfer function and its inverse. */
export interface Transfer {
  /** Linear light to code value. */
  encode: (linear: number) => number;
  /** Code value to linear light. */
  decode: (code: number) => number;
}

/** sRGB transfer, IEC 61966-2-1. Code and light in [0, 1]; odd-symmetric below 0, continued above 1. */
export const srgb: Transfer = {
  encode: (linear) => {
    const x = Math.abs(linear);
    const code = x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055;
    return linear < 0 ? -code : code;
  },
  decode: (code) => {
    const x = Math.abs(code);
    const linear = x <= 0.04045 ? x / 12.92 : ((x + 0.055) / 1.055) ** 2.4;
    return code < 0 ? -linear : linear;
  },
};
