import { monotoneCurve, type CurvePoint } from './monotone-curve';

/** How tones are shaped. Tones are display codes as fractions, 0 to 1. */
export interface ToneShape {
  /** Tones at and under it become black, at and over `white` white. */
  black: number;
  white: number;
  /** How far the middle is lifted, in stops of the exponent: 0 leaves it, 1 takes the square root. */
  middle: number;
  points: readonly CurvePoint[];
}

/** Narrowest span between the black and the white point. */
const NARROWEST = 0.01;

/** A tone through the points, the midtone and then the curve. */
export function toneShape({ black, white, middle, points }: ToneShape): (tone: number) => number {
  const curve = monotoneCurve(points);
  const exponent = 2 ** -middle;
  const span = Math.max(NARROWEST, white - black);
  return (tone) => curve(Math.min(1, Math.max(0, (tone - black) / span)) ** exponent);
}
