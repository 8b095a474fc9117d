import fc from 'fast-check';
import sharp, { type Sharp } from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { readNetwork } from '../../test/thing-network';
import { kindOfClass } from './class-kinds';
import { DetectService } from './detect-service';
import type { ThingNetwork } from './network';
import { eachOnce, ofWhole, type SeenThing } from './seen-things';
import { squareOf } from './square-of';
import { squaresOf } from './squares';

describe('squaresOf', () => {
  it('covers the picture’s whole width with squares that lie within it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 2.8, noNaN: true }),
        fc.double({ min: -0.5, max: 1.5, noNaN: true }),
        (aspect, horizon) => {
          const [whole, ...nearer] = squaresOf(aspect, horizon);
          expect(whole).toEqual({ left: 0, top: 0, right: 1, bottom: 1 });
          for (const { left, top, right, bottom } of nearer) {
            expect(Math.min(left, top)).toBeGreaterThanOrEqual(-1e-9);
            expect(Math.max(right, bottom)).toBeLessThanOrEqual(1 + 1e-9);
            expect((right - left) * aspect).toBeCloseTo(bottom - top, 9);
          }
          nearer.slice(1).forEach(({ left }, k) => expect(left).toBeLessThanOrEqual(nearer[k].right));
          expect(nearer.at(-1)!.right).toBeCloseTo(nearer.length > 1 || aspect <= 0.8 ? 1 : 0.5, 0);
        },
      ),
    );
  });

  it('keeps to a bounded number of them, even of a panorama', () => {
    expect(squaresOf(1.5, 0.5)).toHaveLength(3);
    expect(squaresOf(12, 0.5)).toHaveLength(5);
  });
});

describe('what is seen in parts', () => {
  const thing = (left: number, right: number, sure = 0.5, is: SeenThing['is'] = 'car'): SeenThing => ({
    ...{ is, sure, left, right },
    ...{ top: 0.4, bottom: 0.6 },
  });

  it('is told in fractions of the whole, without what the part’s own edges cut', () => {
    const part = { left: 0.5, top: 0.2, right: 1, bottom: 0.8 };
    const [seen, ...others] = ofWhole([thing(0.2, 0.4), thing(0, 0.3), thing(0.8, 1)], part);
    expect(seen).toMatchObject({ left: 0.6, right: 0.7 });
    expect(seen.top).toBeCloseTo(0.44, 9);
    expect(seen.bottom).toBeCloseTo(0.56, 9);
    // The picture's own edge cuts, too, but what it cuts is nowhere seen whole.
    expect(others.map(({ right }) => right)).toEqual([1]);
  });

  it('is told once, by the surest', () => {
    const twice = [thing(0.1, 0.3, 0.4), thing(0.11, 0.31, 0.9), thing(0.5, 0.7, 0.3)];
    expect(eachOnce(twice).map(({ sure }) => sure)).toEqual([0.9, 0.3]);
    const part = [thing(0.1, 0.5, 0.9), thing(0.1, 0.2, 0.4)];
    expect(eachOnce(part)).toHaveLength(1);
    expect(eachOnce([part[0], { ...part[1], is: 'person' }])).toHaveLength(2);
  });
});

describe('kindOfClass', () => {
  it('is what is seen, but for what is seldom and not sure, and nothing of what flies or floats', () => {
    expect([kindOfClass(0, 0.2), kindOfClass(2, 0.2), kindOfClass(7, 0.2)]).toEqual(['person', 'car', 'car']);
    expect([kindOfClass(16, 0.3), kindOfClass(16, 0.5)]).toEqual(['thing', 'animal']);
    expect([kindOfClass(14, 0.9), kindOfClass(8, 0.9), kindOfClass(99, 0.9)]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
});

describe('squareOf', () => {
  const picture = (width: number, height: number, code: (x: number, y: number) => number) => ({
    ...{ width, height },
    rgb: Uint8Array.from({ length: 3 * width * height }, (_, i) =>
      code(Math.floor(i / 3) % width, Math.floor(i / 3 / width)),
    ),
  });
  const whole = { left: 0, top: 0, right: 1, bottom: 1 };

  it('is the mean of what lies under each of its pixels', () => {
    const halves = squareOf(
      picture(6, 4, (x) => 10 * x),
      whole,
      2,
    );
    expect(Array.from(halves.filter((_, i) => i % 3 === 0))).toEqual([10, 40, 10, 40]);
    const part = squareOf(
      picture(6, 4, (_, y) => 10 * y),
      { ...whole, top: 0.25, bottom: 0.75 },
      2,
    );
    expect(Array.from(part.filter((_, i) => i % 3 === 1))).toEqual([10, 10, 20, 20]);
  });

  it('keeps what is even, larger or smaller than it is', () => {
    for (const side of [3, 5, 16]) {
      const even = squareOf(
        picture(7, 5, () => 90),
        { left: 0.1, top: 0.3, right: 0.9, bottom: 0.8 },
        side,
      );
      expect(even.every((code) => Math.abs(code - 90) < 1e-3)).toBe(true);
    }
  });
});

describe('the network', { timeout: 60_000 }, () => {
  let network: ThingNetwork;
  beforeAll(async () => {
    network = await readNetwork();
  }, 60_000);

  async function thingsOf(photo: Sharp, horizon: number) {
    const { data, info } = await photo.removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const service = new DetectService(Promise.resolve(network));
    service.open({ width: info.width, height: info.height, rgb: new Uint8Array(data) });
    return service.things(horizon);
  }

  it('sees a person who stands on a quay, and luggage beside', async () => {
    const things = await thingsOf(sharp('e2e/plates/ferry-steps.jpg').resize(1120), 0.5);
    const person = things.find(({ is, top, foot }) => is === 'person' && foot - top > 0.3)!;
    expect(person.left).toBeCloseTo(0.32, 1);
    expect(person.foot).toBeCloseTo(0.89, 1);
    expect(things.some(({ is, left }) => is === 'thing' && Math.abs(left - 0.26) < 0.03)).toBe(true);
    expect(things.every(({ left, right, top, foot }) => left < right && top < foot)).toBe(true);
  });

  it('sees it in a photo two stops under, too', async () => {
    const dark = sharp('e2e/plates/ferry-steps.jpg').resize(1120).linear(0.45, 0);
    const things = await thingsOf(dark, 0.5);
    expect(things.some(({ is, foot }) => is === 'person' && Math.abs(foot - 0.89) < 0.03)).toBe(true);
  });

  it.each(['#000000', '#7fb2ee'])('sees nothing in what is all %s', async (background) => {
    const plain = sharp({ create: { width: 900, height: 600, channels: 3, background } });
    expect(await thingsOf(plain, 0.5)).toEqual([]);
  });
});
