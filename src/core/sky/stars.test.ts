import { describe, expect, it } from 'vitest';
import { createCamera } from '../geometry/camera';
import { dot, type Vec3 } from '../geometry/vec3';
import { wholeRegion } from '../plane/region';
import { addPoints, pixelSteradians } from './add-points';
import { celestialPole } from './horizon-frame';
import { scatteredStars } from './scattered-stars';
import { FIRST_SKY } from './sky-schema';
import { createStarColors, starClass, starKelvin } from './star-color';
import { LUX_OF_MAGNITUDE_0, MOST_POINTS, POINT_STRIDE, starPoints, type StarLook } from './star-points';
import { trueMoon } from './true-moon';
import { trueStars } from './true-stars';

const CAMERA = createCamera({ horizon: { left: 0.8, right: 0.8 }, eyeHeight: 1.6, lens: 24 }, 1.5);
const LOOK: StarLook = {
  colors: [1, 1, 1, 1, 1, 1],
  size: 0.0006,
  trail: 0,
  fall: { u: 0.5, v: 2, turn: 0, soft: 0 },
  pole: [0, 0.7, 0.714],
};
const planes = (width: number, height: number) => {
  const plane = () => new Float32Array(width * height);
  return { width, height, r: plane(), g: plane(), b: plane() };
};

describe('points of light', () => {
  it.each([
    [300, 0.0006],
    [1200, 0.0006],
    [1200, 0.003],
  ])('keep their light on a picture %i wide at a breadth of %f', (width, size) => {
    const region = wholeRegion(width, Math.round(width / 1.5));
    const out = planes(region.width, region.height);
    addPoints(out, Float32Array.of(0.4137, 0.2211, 3e-6, 2e-6, 1e-6), 1, size, 1, CAMERA, region, () => 1);
    const lux = (plane: Float32Array) =>
      plane.reduce((sum, value, i) => {
        const [u, v] = [((i % width) + 0.5) / width, (Math.floor(i / width) + 0.5) / region.height];
        return sum + value * pixelSteradians(CAMERA, width, u, v);
      }, 0);
    expect(lux(out.r) / 3e-6).toBeCloseTo(1, 2);
    expect(lux(out.b) / 1e-6).toBeCloseTo(1, 2);
  });

  it('are the same in a part of a picture, and wait behind what lets nothing through', () => {
    const points = Float32Array.of(0.3, 0.3, 1, 1, 1, 0.31, 0.31, 1, 1, 1);
    const whole = planes(90, 60);
    addPoints(whole, points, 2, 0.01, 1, CAMERA, wholeRegion(90, 60), () => 1);
    const part = planes(40, 20);
    const region = { ...wholeRegion(90, 60), left: 10, top: 8, width: 40, height: 20 };
    addPoints(part, points, 2, 0.01, 1, CAMERA, region, () => 1);
    for (let y = 0; y < 20; y++)
      for (let x = 0; x < 40; x++) expect(part.g[y * 40 + x]).toBe(whole.g[(y + 8) * 90 + x + 10]);
    const dark = planes(90, 60);
    addPoints(dark, points, 2, 0.01, 1, CAMERA, wholeRegion(90, 60), () => 0);
    expect(Math.max(...dark.r)).toBe(0);
  });

  it('take up all of a picture’s sky between them', () => {
    const [width, height] = [300, 200];
    const camera = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 36 }, 1.5);
    let sum = 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        sum += pixelSteradians(camera, width, (x + 0.5) / width, (y + 0.5) / height);
    // A rectangle of half sides a and b at distance 1 spans 4 atan(ab / sqrt(1 + a2 + b2)).
    const [a, b] = [0.5, 0.5 / 1.5];
    expect(sum).toBeCloseTo(4 * Math.atan((a * b) / Math.sqrt(1 + a * a + b * b)), 4);
  });
});

describe('star points', () => {
  const points = new Float32Array(POINT_STRIDE * MOST_POINTS);
  const overhead: Vec3 = [0, 0, 1];
  const light = (from: number) => points[from + 2] + points[from + 3] + points[from + 4];

  it('have the light of their magnitude, less what the air takes', () => {
    const up = createCamera({ horizon: { left: 5, right: 5 }, eyeHeight: 1.6, lens: 24 }, 1.5);
    const star = (magnitude: number) => [{ toward: [0, 0.1, 0.995] as Vec3, magnitude, bv: 0.5 }];
    expect(starPoints(points, up, star(1), LOOK)).toBe(1);
    const one = light(0);
    expect(starPoints(points, up, star(6), LOOK)).toBe(1);
    expect(one / light(0)).toBeCloseTo(100, 3);
    expect(0.2126 * points[2] + 0.7152 * points[3] + 0.0722 * points[4]).toBeCloseTo(
      LUX_OF_MAGNITUDE_0 * 10 ** -2.4 * 10 ** -0.1,
      10,
    );
  });

  it('are fewer toward the horizon and none under it or under the fall-off', () => {
    const stars = scatteredStars(3, 6);
    const all = starPoints(points, CAMERA, stars, LOOK);
    const heights = Array.from({ length: all }, (_, k) => points[POINT_STRIDE * k + 1]);
    expect(heights.every((v) => v <= 0.8 + 1e-6)).toBe(true);
    const upper = starPoints(points, CAMERA, stars, { ...LOOK, fall: { u: 0.5, v: 0.4, turn: 0, soft: 0 } });
    expect(upper).toBeLessThan(all);
    for (let k = 0; k < upper; k++) expect(points[POINT_STRIDE * k + 1]).toBeLessThanOrEqual(0.4);
  });

  it('tilt with the fall-off', () => {
    const stars = scatteredStars(3, 6);
    const count = starPoints(points, CAMERA, stars, { ...LOOK, fall: { u: 0.5, v: 0.4, turn: 90, soft: 0 } });
    for (let k = 0; k < count; k++) expect(points[POINT_STRIDE * k]).toBeGreaterThanOrEqual(0.5);
    expect(count).toBeGreaterThan(10);
  });

  it('of one class come out alone', () => {
    const stars = scatteredStars(3, 6);
    const reds = { ...LOOK, colors: [0, 0, 0, 0, 0, 2] };
    const count = starPoints(points, CAMERA, stars, reds);
    expect(count).toBeGreaterThan(0);
    expect(count).toBeLessThan(starPoints(points, CAMERA, stars, LOOK) / 3);
  });

  it('share their light along a trail about the pole', () => {
    const star = [{ toward: [0.1, 0.93, 0.35] as Vec3, magnitude: 2, bv: 0.5 }];
    starPoints(points, CAMERA, star, LOOK);
    const one = light(0);
    const count = starPoints(points, CAMERA, star, { ...LOOK, trail: 30 });
    expect(count).toBeGreaterThan(50);
    const sum = Array.from({ length: count }, (_, k) => light(POINT_STRIDE * k)).reduce((a, b) => a + b);
    expect(sum / one).toBeCloseTo(1, 1);
    const most = starPoints(points, CAMERA, scatteredStars(1, 8), { ...LOOK, trail: 240, size: 0.0002 });
    expect(most).toBeLessThanOrEqual(MOST_POINTS);
  });

  it('come in the same places down to a fainter limit', () => {
    expect(scatteredStars(5, 7).slice(0, scatteredStars(5, 4).length)).toEqual(scatteredStars(5, 4));
    expect(scatteredStars(5, 6).length).toBe(5000);
    expect(dot(scatteredStars(5, 1)[0].toward, scatteredStars(5, 1)[0].toward)).toBeCloseTo(1, 9);
    expect(overhead[2]).toBe(1);
  });
});

describe('colours of stars', () => {
  it('are those of their temperatures', () => {
    // The sun's B-V is 0.65, its temperature 5,772 K.
    expect(Math.abs(starKelvin(0.65) - 5772)).toBeLessThan(60);
    const colorOf = createStarColors();
    const [hot, cool] = [colorOf(-0.3), colorOf(1.6)];
    expect(hot[2]).toBeGreaterThan(hot[0]);
    expect(cool[0]).toBeGreaterThan(cool[2]);
    expect([-0.3, 0.1, 0.4, 0.7, 1, 2].map(starClass)).toEqual([0, 1, 2, 3, 4, 5]);
  });
});

/** Published places of J2000: right ascension in hours, minutes, seconds, declination in degrees (Hipparcos). */
const NAMED: [name: string, ascension: [number, number, number], declination: number, magnitude: number][] = [
  ['Sirius', [6, 45, 8.9], -16.7161, -1.46],
  ['Arcturus', [14, 15, 39.7], 19.1824, -0.05],
  ['Vega', [18, 36, 56.3], 38.7837, 0.03],
  ['Capella', [5, 16, 41.4], 45.998, 0.08],
  ['Rigel', [5, 14, 32.3], -8.2016, 0.13],
  ['Betelgeuse', [5, 55, 10.3], 7.4071, 0.42],
  ['Altair', [19, 50, 47], 8.8683, 0.76],
  ['Aldebaran', [4, 35, 55.2], 16.5093, 0.86],
  ['Spica', [13, 25, 11.6], -11.1613, 0.97],
  ['Polaris', [2, 31, 49.1], 89.2641, 1.98],
];

describe('the true sky', () => {
  const when = { moment: '2026-03-20T21:30Z', latitude: 47.5, longitude: 8.3, bearing: 180 };

  /** Where a star stands by sidereal time and the precession of the year (Meeus, Astronomical Algorithms, 12 and 21). */
  function direction(hours: number, declination: number): Vec3 {
    const days = Date.parse(when.moment) / 86400000 + 2440587.5 - 2451545;
    const [years, rad] = [days / 365.25, Math.PI / 180];
    const dec0 = declination * rad;
    const ra0 = hours * 15 * rad;
    const [m, n] = [(3.07496 * 15) / 3600, 20.0431 / 3600];
    const ra = ra0 + years * (m + n * Math.sin(ra0) * Math.tan(dec0)) * rad;
    const dec = dec0 + years * n * Math.cos(ra0) * rad;
    const sidereal = (280.46061837 + 360.98564736629 * days + when.longitude) * rad;
    const [turn, lat] = [sidereal - ra, when.latitude * rad];
    const up = Math.sin(lat) * Math.sin(dec) + Math.cos(lat) * Math.cos(dec) * Math.cos(turn);
    const north = Math.cos(lat) * Math.sin(dec) - Math.sin(lat) * Math.cos(dec) * Math.cos(turn);
    const east = -Math.cos(dec) * Math.sin(turn);
    // The eye looks south: west is on its right.
    return [-east, -north, up];
  }

  const stars = trueStars(when, 6);

  it.each(NAMED)('has %s where almanacs put it', (name, [h, min, s], declination, magnitude) => {
    const toward = direction(h + min / 60 + s / 3600, declination);
    const [nearest] = [...stars].sort((a, b) => dot(b.toward, toward) - dot(a.toward, toward));
    // By the pole the year's precession is no longer straight.
    expect((Math.acos(Math.min(1, dot(nearest.toward, toward))) * 180) / Math.PI).toBeLessThan(
      name === 'Polaris' ? 0.2 : 0.06,
    );
    expect(Math.abs(nearest.magnitude - magnitude)).toBeLessThan(0.15);
  });

  it('turns about the pole, which stands as high as the place lies north', () => {
    const pole = celestialPole(when);
    expect((Math.asin(pole[2]) * 180) / Math.PI).toBeCloseTo(47.5, 6);
    // Looking south, it is behind the eye.
    expect(pole[1]).toBeLessThan(0);
    const brightest = [...stars].sort((a, b) => dot(b.toward, pole) - dot(a.toward, pole))[0];
    expect(dot(brightest.toward, pole)).toBeGreaterThan(0.999);
  });

  it.each([
    ['2026-01-03T10:03Z', 0.5],
    ['2026-01-18T19:52Z', 0],
    ['2026-01-26T04:48Z', 0.25],
  ])('has the moon of %s at a phase of %f', (moment, phase) => {
    const told = trueMoon({ ...when, moment }).phase;
    expect(Math.min(Math.abs(told - phase), 1 - Math.abs(told - phase))).toBeLessThan(0.003);
  });

  it('is a sky at the poles and on dates far off', () => {
    for (const [latitude, moment] of [
      [90, '1600-07-01T00:00Z'],
      [-90, '2999-12-31T23:59Z'],
    ] as const) {
      const there = { ...when, latitude, moment };
      expect(trueStars(there, 3).every(({ toward }) => toward.every(Number.isFinite))).toBe(true);
      expect(Object.values(trueMoon(there)).every(Number.isFinite)).toBe(true);
    }
    expect(trueStars(FIRST_SKY.when, 6).length).toBe(5044);
  });
});
