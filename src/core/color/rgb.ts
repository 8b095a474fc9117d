/** A scene-linear colour in sRGB primaries. Values above 1 are fine. */
export type Rgb = readonly [r: number, g: number, b: number];
