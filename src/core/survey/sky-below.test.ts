import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import { UNSAID_HORIZON } from '../geometry/ground';
import { findGround } from './find-ground';
import { findSky } from './find-sky';
import { plateFeatures } from './plate-features';

const [W, H] = [200, 120];
const UNSAID = { left: UNSAID_HORIZON, right: UNSAID_HORIZON };
const SAID = { left: 0.5, right: 0.502 };
const BLUE = [0.05, 0.13, 0.32];
const TOWER = [0.35, 0.2, 0.12];
const SHRUBS = [0.03, 0.035, 0.02];

/** What is sky of a plate of what lies at each of its pixels, with a little grain. */
function skyOf(at: (x: number, y: number) => readonly number[], horizon = UNSAID) {
  const random = seeded(7);
  const planes = [0, 1, 2].map(() => new Float32Array(W * H));
  for (let i = 0; i < W * H; i++) {
    const rough = 1 + 0.006 * (2 * random() - 1);
    at(i % W, Math.floor(i / W)).forEach((light, c) => (planes[c][i] = rough * light));
  }
  const features = plateFeatures({ width: W, height: H, r: planes[0], g: planes[1], b: planes[2] });
  const sky = findSky(features, horizon);
  const share = (left: number, top: number, right: number, bottom: number) => {
    let all = 0;
    for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) all += sky[y * W + x];
    return all / ((right - left) * (bottom - top));
  };
  return { features, sky, share };
}

describe('sky below a horizon of which nothing is said', () => {
  const upATower = (x: number, y: number) => (x > 100 + 0.4 * (H - y) ? TOWER : BLUE);

  it('goes on down beside a tower, to the lower edge, and is no ground there', () => {
    const { features, sky, share } = skyOf(upATower);
    expect(share(2, 2, 95, 118)).toBeGreaterThan(0.98);
    expect(share(155, 2, 198, 118)).toBe(0);
    const ground = findGround(features, UNSAID, sky);
    expect(ground.some((is, i) => is > 0 && sky[i] > 0)).toBe(false);
  });

  it('ends at the horizon once that is said', () => {
    const { share } = skyOf(upATower, SAID);
    expect(share(2, 62, 95, 118)).toBe(0);
    expect(share(2, 2, 95, 58)).toBeGreaterThan(0.98);
  });

  it('is none beyond a shore, though it look the same and the shore have gaps', () => {
    const shore = (x: number, y: number) => (y >= 58 && y < 63 && x % 25 !== 0 ? SHRUBS : BLUE);
    const { share } = skyOf(shore);
    expect(share(2, 2, 198, 55)).toBeGreaterThan(0.98);
    expect(share(2, 66, 198, 118)).toBe(0);
  });
});
