import { SAID, type Said } from '@/core/survey/said';

/** How a place is called, and its tint over the picture. */
export const PLACE_TINTS: Record<Said, { title: string; tint: readonly [r: number, g: number, b: number] }> =
  {
    ground: { title: 'Ground', tint: [224, 166, 66] },
    upright: { title: 'Upright', tint: [205, 96, 160] },
    far: { title: 'Far', tint: [170, 176, 190] },
    sky: { title: 'Sky', tint: [70, 120, 235] },
    water: { title: 'Water', tint: [40, 190, 170] },
  };

export const cssOf = ([r, g, b]: readonly number[]) => `rgb(${r} ${g} ${b})`;

/** Codes of places as pixels that are tinted so. */
export function tintedPlaces(places: Uint8Array): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint8ClampedArray(4 * places.length);
  places.forEach((code, i) => {
    const { tint } = PLACE_TINTS[SAID[code - 1]];
    pixels.set([...tint, 255], 4 * i);
  });
  return pixels;
}
