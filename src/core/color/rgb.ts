/** A scene-linear colour in sRGB primaries. Values above 1 are fine. */
export type Rgb = readonly [r: number, g: number, b: number];

/** A colour so many times as bright. */
export const times = ([r, g, b]: Rgb, k: number): Rgb => [r * k, g * k, b * k];
