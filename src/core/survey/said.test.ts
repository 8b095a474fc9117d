import { describe, expect, it } from 'vitest';
import type { RgbPlanes } from '../plane/plane';
import { findGround } from './find-ground';
import { findSky } from './find-sky';
import { lineCoverage } from './line-coverage';
import { plateFeatures } from './plate-features';
import { codeOf, whatIsSaid, type Said, type SaidStroke } from './said';
import { surveyPlate } from './survey';

const [WIDTH, HEIGHT] = [160, 100];
const HORIZON = { left: 0.45, right: 0.45 };

/** Sky down to row 20, a house to row 60, a lawn of another tone to row 70, then a road, on which a box stands. */
function plate(): RgbPlanes {
  const planes = { width: WIDTH, height: HEIGHT };
  const [r, g, b] = [0, 1, 2].map(() => new Float32Array(WIDTH * HEIGHT));
  for (let i = 0; i < r.length; i++) {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    const isBox = x >= 100 && x < 120 && y >= 74 && y < 90;
    const isLawn = y >= 60 && y < 70;
    const land = isBox ? [0.3, 0.05, 0.05] : isLawn ? [0.1, 0.22, 0.05] : [0.3, 0.3, 0.29];
    [r[i], g[i], b[i]] = y < 20 ? [0.3, 0.45, 0.8] : y < 60 ? [0.4, 0.12, 0.08] : land;
  }
  return { ...planes, r, g, b };
}

const at = (x: number, y: number) => y * WIDTH + x;
const stroke = (as: Said, places: [x: number, y: number][], radius = 3): SaidStroke => ({
  as,
  path: places.flatMap(([x, y]) => [(x + 0.5) / WIDTH, (y + 0.5) / HEIGHT]),
  size: radius / WIDTH,
});

describe('what is said by the brush', () => {
  const features = plateFeatures(plate());

  it('goes on around the stroke up to an edge, and not over it', () => {
    const said = whatIsSaid(features, [stroke('upright', [[110, 82]], 6)])!;
    const isSaid = (x: number, y: number) => said[at(x, y)] === codeOf('upright');
    expect([isSaid(110, 82), isSaid(104, 76), isSaid(117, 87)]).toEqual([true, true, true]);
    expect([isSaid(96, 82), isSaid(124, 82), isSaid(110, 94)]).toEqual([false, false, false]);
  });

  it('stays near a narrow brush, on a place without edges too', () => {
    const said = whatIsSaid(features, [stroke('upright', [[40, 85]], 2)])!;
    expect([said[at(40, 85)], said[at(43, 85)] > 0, said[at(50, 85)]]).toEqual([2, true, 0]);
  });

  it('believes the later of two strokes', () => {
    const across: [number, number][] = [
      [20, 85],
      [60, 85],
    ];
    const said = whatIsSaid(features, [stroke('upright', across), stroke('water', [[40, 85]])])!;
    expect([said[at(25, 85)], said[at(40, 85)]]).toEqual([codeOf('upright'), codeOf('water')]);
  });

  it('joins the places of a stroke, and lies outside the picture without harm', () => {
    const out: [number, number][] = [
      [-300, 85],
      [30, 85],
      [30, 400],
    ];
    const said = whatIsSaid(features, [stroke('ground', out)])!;
    expect([said[at(0, 85)], said[at(15, 85)], said[at(30, 99)]]).toEqual([1, 1, 1]);
    expect(whatIsSaid(features, [])).toBeUndefined();
    expect(whatIsSaid(features, [{ as: 'ground', path: [], size: 0.1 }])!.some((code) => code > 0)).toBe(
      false,
    );
  });

  it('makes ground of a lawn that was taken for something upright, as far as the lawn goes', () => {
    const sky = findSky(features, HORIZON);
    expect(findGround(features, HORIZON, sky)[at(80, 64)]).toBe(0);
    const said = whatIsSaid(features, [stroke('ground', [[80, 65]], 4)]);
    const ground = findGround(features, HORIZON, sky, [], said);
    expect([ground[at(80, 64)], ground[at(20, 66)], ground[at(80, 55)]]).toEqual([1, 1, 0]);
  });

  it('stands a place up on its own foot', () => {
    const strokes = [stroke('upright', [[110, 82]], 6)];
    const survey = surveyPlate(plate(), HORIZON, [], strokes);
    expect(lineCoverage(plate(), survey.ground)[at(110, 82)]).toBeLessThan(0.3);
    expect(survey.feet[at(110, 80)]).toBeGreaterThan(0.85);
    expect(survey.feet[at(110, 80)]).toBeLessThan(0.95);
  });

  it('puts what is far at the horizon, and leaves sky and land to each other', () => {
    const strokes = [
      stroke('far', [[30, 52]], 4),
      stroke('sky', [[130, 30]], 4),
      stroke('upright', [[40, 10]], 4),
    ];
    const { feet, sky } = surveyPlate(plate(), HORIZON, [], strokes);
    expect(feet[at(30, 52)]).toBeCloseTo(0.45, 2);
    const isSky = lineCoverage(plate(), sky);
    expect(isSky[at(130, 30)]).toBeGreaterThan(0.7);
    expect(isSky[at(40, 10)]).toBeLessThan(0.3);
    expect(isSky[at(100, 8)]).toBeGreaterThan(0.9);
  });

  it('has water only where it is said and ground lies', () => {
    expect(surveyPlate(plate(), HORIZON).water).toBeUndefined();
    const { water } = surveyPlate(plate(), HORIZON, [], [stroke('water', [[40, 85]], 6)]);
    const covered = lineCoverage(plate(), water!);
    expect(covered[at(40, 85)]).toBeGreaterThan(0.9);
    expect(covered[at(140, 85)]).toBeLessThan(0.05);
  });
});
