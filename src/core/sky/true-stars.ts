import { MakeTime, Observer, RotateVector, Rotation_EQJ_HOR, Vector } from 'astronomy-engine';
import { toWorld, type When } from './horizon-frame';
import type { Star } from './scattered-stars';
import { STAR_CATALOGUE } from './star-catalogue';

/** Bytes of a star in the catalogue. */
const BYTES = 8;

/** The stars of the catalogue down to a magnitude where they stand, the brightest first. */
export function trueStars(when: When, faintest: number): Star[] {
  const time = MakeTime(new Date(when.moment));
  const rotation = Rotation_EQJ_HOR(time, new Observer(when.latitude, when.longitude, 0));
  const bytes = Uint8Array.from(atob(STAR_CATALOGUE), (letter) => letter.charCodeAt(0));
  const view = new DataView(bytes.buffer);
  const stars: Star[] = [];
  for (let at = 0; at < bytes.length; at += BYTES) {
    const magnitude = view.getInt16(at + 4, true) / 100;
    if (magnitude > faintest) break;
    const ascension = (view.getUint16(at, true) * 2 * Math.PI) / 65536;
    const declination = (view.getInt16(at + 2, true) * Math.PI) / 2 / 32767;
    const level = Math.cos(declination);
    const [a, b, c] = [level * Math.cos(ascension), level * Math.sin(ascension), Math.sin(declination)];
    const { x, y, z } = RotateVector(rotation, new Vector(a, b, c, time));
    const toward = toWorld([x, y, z], when.bearing);
    stars.push({ toward, magnitude, bv: view.getInt16(at + 6, true) / 1000 });
  }
  return stars;
}
