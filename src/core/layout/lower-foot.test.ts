import { describe, expect, it } from 'vitest';
import { lowerFoot, type LowUpright } from './lower-foot';
import { isUprightBetween } from './upright-share';
import { onSlope, type Side } from './wall-side';

const own: Side = {
  place: { u: 0.4, share: 1 },
  side: -1,
  horizon: { left: 0.3, right: 0.3 },
  aspect: 1.5,
};

/** An upright edge of the wall's side, from one slope under the horizon to another. */
const upright = (u: number, from: number, to: number): LowUpright => ({
  top: onSlope(own, u, from),
  foot: onSlope(own, u, to),
  counts: Math.min(0.15, (to - from) * (own.place.u - u)),
});

const PLACES = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3];

/** A shop seen from a balcony: a ledge at slope 1, a sign over the windows, and pilasters from there down to 4. */
const shop = [...PLACES.map((u) => upright(u, 1.02, 2)), ...PLACES.map((u) => upright(u + 0.01, 1.9, 4))];

describe('lowerFoot', () => {
  it('is where the wall under a ledge ends', () => {
    expect(lowerFoot(own, shop, 1)).toBeCloseTo(4, 6);
  });

  it('looks past an upright that ends elsewhere, and past those of the other side', () => {
    const others = [upright(0.22, 1.1, 3), { ...shop[8], foot: { u: 0.8, v: 0.5 } }];
    expect(lowerFoot(own, [...shop, ...others], 1)).toBeCloseTo(4, 6);
  });

  it('is nowhere where ground lies between a row of things and the foot', () => {
    expect(
      lowerFoot(
        own,
        PLACES.map((u) => upright(u, 2.6, 4)),
        1,
      ),
    ).toBeUndefined();
  });

  it('is nowhere where too few end together, where they end about there, or where nothing is', () => {
    expect(
      lowerFoot(
        own,
        shop.slice(0, 9).filter((_, i) => i < 3 || i > 5),
        1,
      ),
    ).toBeUndefined();
    expect(
      lowerFoot(
        own,
        PLACES.map((u) => upright(u, 1, 1.3)),
        1,
      ),
    ).toBeUndefined();
    expect(lowerFoot(own, [], 1)).toBeUndefined();
  });

  it('takes no upright that begins over the foot: it stands before the wall', () => {
    expect(
      lowerFoot(
        own,
        PLACES.map((u) => upright(u, 0.6, 4)),
        1,
      ),
    ).toBeUndefined();
  });
});

describe('isUprightBetween', () => {
  const shares = (between: number, below: number) =>
    Array.from({ length: 52 }, (_, step) => (step < 24 ? between : below));
  // Step 24 of the slopes is one of about 0.24.
  const [upper, lower] = [0.08, 0.237];

  it('tells walls from paving', () => {
    expect(isUprightBetween(shares(0.3, 0.05), upper, lower)).toBe(true);
    expect(isUprightBetween(shares(0.1, 0.02), upper, lower)).toBe(false);
    expect(isUprightBetween(shares(0.3, 0.25), upper, lower)).toBe(false);
  });

  it('believes a wall under which nothing is told, and nothing where nothing is told of it', () => {
    expect(isUprightBetween(shares(0.3, NaN), upper, lower)).toBe(true);
    expect(isUprightBetween(shares(NaN, 0.05), upper, lower)).toBe(false);
  });
});
