import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { luminance } from '../color/luminance';
import { ambientLux, TOWN_GLOW, twilightLux } from '../night/hour';
import { airMass, transmission } from './air-mass';
import { directionAt, projectDirection, skyDirection, skyPlace } from './direction';
import { createCamera } from '../geometry/camera';
import { clearSky, domeLux, lightPerSkyNit } from './dome-light';

const PLAIN = { sun: -40, afterglow: 0, town: 0, townKelvin: 2700 };
const TEN_HOURS = Array.from({ length: 10 }, (_, k) => k / 9);

describe('the clear sky', () => {
  it.each(TEN_HOURS)('gives level ground the ambient lux of hour %f', (hour) => {
    const { twilight, town } = clearSky({ ...PLAIN, hour });
    expect(domeLux(twilight) / twilightLux(hour)).toBeCloseTo(1, 6);
    expect(domeLux(town) / TOWN_GLOW).toBeCloseTo(1, 6);
    expect((domeLux(twilight) + domeLux(town)) / ambientLux(hour)).toBeCloseTo(1, 6);
  });

  it('gives an even sky of one cd/m2 pi lux', () => {
    expect(domeLux(() => [1, 1, 1])).toBeCloseTo(Math.PI, 2);
  });

  it('shows under any hour what a white sheet on the ground shows', () => {
    for (const hour of TEN_HOURS) {
      const even = ambientLux(hour) / Math.PI;
      expect(even * lightPerSkyNit({ exposure: -3, hour })).toBeCloseTo(2 ** -3, 9);
    }
  });

  it('is brightest low over where the sun went, and blue overhead at blue hour', () => {
    const { twilight } = clearSky({ ...PLAIN, hour: 0.44 });
    const light = (azimuth: number, elevation: number) => luminance(twilight({ azimuth, elevation }));
    expect(light(-40, 2)).toBeGreaterThan(1.7 * light(140, 2));
    expect(light(-40, 2)).toBeGreaterThan(1.5 * light(-40, 60));
    const [r, , b] = twilight({ azimuth: 60, elevation: 70 });
    expect(b).toBeGreaterThan(4 * r);
    const [low, , blue] = twilight({ azimuth: -40, elevation: 1 });
    expect(low).toBeGreaterThan(blue / 2);
  });

  it('grows warm toward the horizon by the town, and by nothing else that is set', () => {
    const set = clearSky({ ...PLAIN, hour: 1, town: 2 });
    const plain = clearSky({ ...PLAIN, hour: 1 });
    expect(domeLux(set.town) / domeLux(plain.town)).toBeCloseTo(4, 6);
    expect(domeLux(set.twilight)).toBeCloseTo(domeLux(plain.twilight), 9);
    const [r, , b] = plain.town({ azimuth: 0, elevation: 1 });
    expect(r).toBeGreaterThan(b);
  });

  it('is a number everywhere, below the horizon too', () => {
    const range = fc.double({ min: -180, max: 180, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), range, range, (hour, azimuth, elevation) => {
        const { twilight, town } = clearSky({ ...PLAIN, hour, sun: azimuth / 2 });
        for (const value of [...twilight({ azimuth, elevation }), ...town({ azimuth, elevation })])
          expect(value).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('air', () => {
  it('is passed once overhead and some 38 times at the horizon', () => {
    expect(airMass(90)).toBeCloseTo(1, 3);
    expect(airMass(30)).toBeCloseTo(2, 1);
    expect(airMass(0)).toBeGreaterThan(36);
    expect(airMass(0)).toBeLessThan(39);
    expect(airMass(-5)).toBe(airMass(0));
  });

  it('takes a quarter magnitude an air mass', () => {
    expect(transmission(90)).toBeCloseTo(10 ** -0.1, 3);
    expect(transmission(5)).toBeLessThan(0.1);
  });
});

describe('directions', () => {
  const camera = createCamera({ horizon: { left: 0.5, right: 0.56 }, eyeHeight: 1.6, lens: 28 }, 1.5);

  it('come back from places of the plate, however the eye is turned', () => {
    const place = fc.double({ min: -0.5, max: 1.5, noNaN: true });
    fc.assert(
      fc.property(place, place, (u, v) => {
        const at = projectDirection(camera, directionAt(camera, { u, v }))!;
        expect(at.u).toBeCloseTo(u, 9);
        expect(at.v).toBeCloseTo(v, 9);
      }),
    );
    expect(projectDirection(camera, skyDirection({ azimuth: 180, elevation: 10 }))).toBeUndefined();
  });

  it('are told as azimuth and elevation', () => {
    const { azimuth, elevation } = skyPlace(skyDirection({ azimuth: -73, elevation: 21 }));
    expect(azimuth).toBeCloseTo(-73, 9);
    expect(elevation).toBeCloseTo(21, 9);
  });
});
