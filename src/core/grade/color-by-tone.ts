import type { Rgb } from '../color/rgb';

/** A colour that tones around a place take. Colour as sRGB codes, `at` as tone, all 0 to 1. */
export interface ToneStop {
  at: number;
  color: Rgb;
}

/** The colour of a tone between stops, which may come in any order; the outermost stops reach to the ends. */
export function colorByTone(stops: readonly ToneStop[]): (tone: number) => Rgb {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  return (tone) => {
    const after = sorted.findIndex(({ at }) => at > tone);
    if (after === 0) return sorted[0].color;
    if (after < 0) return sorted[sorted.length - 1].color;
    const [from, to] = [sorted[after - 1], sorted[after]];
    const t = (tone - from.at) / (to.at - from.at);
    const between = (c: 0 | 1 | 2) => from.color[c] + t * (to.color[c] - from.color[c]);
    return [between(0), between(1), between(2)];
  };
}
