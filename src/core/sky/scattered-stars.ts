import { seeded } from '../fixture/seeded';
import type { Vec3 } from '../geometry/vec3';

/** A star: the unit vector toward it in world axes, its magnitude, and its colour index B-V. */
export interface Star {
  toward: Vec3;
  magnitude: number;
  bv: number;
}

/** Stars of the whole sphere down to magnitude 6, and how their number grows tenfold every two magnitudes. */
const TO_MAGNITUDE_6 = 5000;

/** Colour indices: half of naked-eye stars are about white, half about orange. */
const HUES = { middle: [0.05, 1.08], spread: [0.3, 0.35] } as const;

/**
 * Made-up stars all around, the brightest first; down to a fainter magnitude there are the same ones and more.
 *
 * @param faintest magnitude of the faintest, at most 8
 */
export function scatteredStars(seed: number, faintest: number): Star[] {
  const random = seeded(seed);
  const count = Math.floor(TO_MAGNITUDE_6 * 10 ** (0.5 * (faintest - 6)));
  return Array.from({ length: count }, (_, k) => {
    const z = 2 * random() - 1;
    const turn = 2 * Math.PI * random();
    const level = Math.sqrt(1 - z * z);
    const hue = random() < 0.5 ? 0 : 1;
    const bv = HUES.middle[hue] + HUES.spread[hue] * (random() + random() + random() - 1.5) * 1.15;
    return {
      toward: [level * Math.sin(turn), level * Math.cos(turn), z],
      magnitude: 6 + 2 * Math.log10((k + 0.5) / TO_MAGNITUDE_6),
      bv,
    };
  });
}
