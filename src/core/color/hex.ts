import type { Rgb } from './rgb';

/** sRGB codes, 0 to 1, as `#rrggbb`. */
export function hexFromCodes([r, g, b]: Rgb): string {
  const pair = (code: number) =>
    Math.round(255 * Math.min(1, Math.max(0, code)))
      .toString(16)
      .padStart(2, '0');
  return `#${pair(r)}${pair(g)}${pair(b)}`;
}

/** `#rrggbb` as sRGB codes, 0 to 1; undefined for what is none. */
export function codesFromHex(hex: string): [number, number, number] | undefined {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!match) return undefined;
  const [r, g, b] = match.slice(1).map((pair) => parseInt(pair, 16) / 255);
  return [r, g, b];
}
