import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { testPlaced } from '../../../test/placed';
import { createCamera, project, rayThrough } from '../geometry/camera';
import { wholeRegion } from '../plane/region';
import { addContact, footWidth, hiddenByUpright } from './contact-shadow';
import { blurCutout } from './blur-cutout';
import { cutToBody, fillClear, isOpaque } from './clear-picture';
import { layOver } from './lay-over';
import { layPlaced, type Cutout } from './lay-placed';
import { matched, matchPicture, tonalEnds } from './match-picture';
import { cardCorners, cardOf, cardPoint, meetCard, onCard, sightOf } from './placed-card';
import { WHOLE_BODY } from './placed-schema';
import { rideAlong } from './ride-along';

const CAMERA = createCamera({ horizon: { left: 0.42, right: 0.44 }, eyeHeight: 1.6, lens: 30 }, 1.5);
const GROUND = { walls: [], decks: [] };
const HAND = { match: 1, exposure: 0, black: 0, warmth: 0 };

/** A cutout of one light, of which everything is there. */
function plain(width: number, height: number, light = 0.5): Cutout {
  const plane = (value: number) => new Float32Array(width * height).fill(value);
  return { width, height, r: plane(light), g: plane(light), b: plane(light), coverage: plane(1) };
}

describe('a card', () => {
  it('is met where its own points are seen, however it is turned, leant, flipped and cut', () => {
    const side = fc.double({ min: 0, max: 1, noNaN: true });
    const turned = fc.record({
      turn: fc.integer({ min: -70, max: 70 }),
      lean: fc.integer({ min: -60, max: 60 }),
      flip: fc.boolean(),
    });
    fc.assert(
      fc.property(side, side, turned, (across, up, said) => {
        const body = { left: 0.2, right: 0.7, top: 0.1, bottom: 0.9 };
        const card = cardOf(CAMERA, GROUND, testPlaced('p', { ...said, body }));
        const at = project(CAMERA, cardPoint(card, across, up))!;
        const found = onCard(CAMERA, card, at)!;
        expect(found.across).toBeCloseTo(across, 6);
        expect(found.up).toBeCloseTo(up, 6);
        const place = new Float64Array(2);
        meetCard(place, sightOf(CAMERA, card), ...rayThrough(CAMERA, at));
        expect(place[0]).toBeCloseTo(0.2 + 0.5 * (said.flip ? 1 - across : across), 6);
        expect(place[1]).toBeCloseTo(0.1 + 0.8 * (1 - up), 6);
      }),
    );
  });

  it('is as tall as it is said to be, and half as large twice as far off', () => {
    const level = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 30 }, 1.5);
    const tallAt = (v: number) => {
      const card = cardOf(level, GROUND, testPlaced('p', { foot: { u: 0.5, v }, tall: 2 }));
      const [lowerLeft, , , upperLeft] = cardCorners(level, card);
      expect(cardPoint(card, 0.5, 1)[2]).toBeCloseTo(2, 9);
      return (lowerLeft.v - upperLeft.v) * card.foot[1];
    };
    expect(tallAt(0.9)).toBeCloseTo(tallAt(0.6), 3);
  });
});

describe('a placed picture is laid', () => {
  const region = wholeRegion(120, 80);
  const card = cardOf(CAMERA, GROUND, testPlaced('p', { tall: 1 }));
  const same = { black: [0, 0, 0], gain: [1, 1, 1], lift: [0, 0, 0] };

  it('over as many pixels as its card is large, in its own light', () => {
    const out = plain(120, 80, 0);
    layPlaced(out, plain(40, 80), CAMERA, card, same, region);
    const covered = out.coverage.reduce((sum, value) => sum + value, 0);
    const [a, b, c] = cardCorners(CAMERA, card);
    const wide = Math.hypot((b.u - a.u) * 120, (b.v - a.v) * 80);
    const high = Math.hypot((c.u - b.u) * 120, (c.v - b.v) * 80);
    expect(covered / (wide * high)).toBeCloseTo(1, 1);
    for (let i = 0; i < out.r.length; i++) if (out.coverage[i] > 0) expect(out.r[i]).toBeCloseTo(0.5, 5);
  });

  it('without a trace of what is clear at its edges', () => {
    const half = plain(40, 80, 0.5);
    for (let i = 0; i < half.coverage.length; i++) {
      if (i % 40 >= 20) continue;
      half.coverage[i] = 0;
      half.r[i] = 9;
    }
    const out = plain(120, 80, 0);
    layPlaced(out, half, CAMERA, card, same, region);
    expect(Math.max(...out.r)).toBeCloseTo(0.5, 5);
  });

  it('before a sky: the land keeps what the picture leaves it of a pixel', () => {
    const plate = plain(1, 1, 0.2);
    const land = Float32Array.of(0.5);
    layOver(plate, { ...plain(1, 1, 1), coverage: Float32Array.of(0.5) }, land);
    expect(land[0]).toBeCloseTo(0.75);
    // Half of it is the picture's, a quarter the land's, a quarter sky.
    expect(plate.r[0] * land[0]).toBeCloseTo(0.5 * 1 + 0.25 * 0.2);
  });
});

describe('a picture is matched', () => {
  /** A chart from black to white under a light, on film that lifts its blacks. */
  const chart = (gains: readonly number[], lift: number) => {
    const steps = Array.from({ length: 200 }, (_, i) => i / 199);
    const [r, g, b] = gains.map((gain) => Float32Array.from(steps, (step) => lift + gain * step));
    return { width: 200, height: 1, r, g, b };
  };

  it('so that a grey card taken under other light is the plate’s grey card within a step', () => {
    const plate = chart([0.8, 0.7, 0.5], 0.02);
    const own = chart([0.45, 0.5, 0.62], 0.005);
    const matching = matchPicture(tonalEnds(plate)!, tonalEnds(own)!, false, HAND);
    const channels = ['r', 'g', 'b'] as const;
    for (const step of [20, 36, 100, 180]) {
      channels.forEach((c, k) => {
        const got = matched(matching, k, own[c][step]);
        expect(Math.abs(got / plate[c][step] - 1)).toBeLessThan(0.01);
      });
    }
  });

  it('by nothing where no match is wanted, and by the hand on top', () => {
    const ends = [tonalEnds(chart([0.8, 0.7, 0.5], 0.02))!, tonalEnds(chart([0.4, 0.5, 0.6], 0))!] as const;
    const none = matchPicture(...ends, false, { ...HAND, match: 0 });
    expect(matched(none, 1, 0.3)).toBeCloseTo(0.3);
    const lifted = matchPicture(...ends, false, { match: 0, exposure: 1, black: 0.01, warmth: 0 });
    expect(matched(lifted, 1, 0.3)).toBeCloseTo(0.61);
    const warm = matchPicture(...ends, false, { ...HAND, match: 0, warmth: 100 });
    expect(matched(warm, 0, 0.3)).toBeGreaterThan(matched(warm, 2, 0.3));
  });

  it('without making a black thing white: what is cut out has no white of its own', () => {
    const black = tonalEnds(chart([0.02, 0.02, 0.02], 0))!;
    const matching = matchPicture(tonalEnds(chart([0.8, 0.8, 0.8], 0))!, black, true, HAND);
    expect(matched(matching, 0, 0.02)).toBeLessThan(0.05);
  });

  it('has no ends where nothing counts', () => {
    expect(tonalEnds(chart([1, 1, 1], 0), new Float32Array(200))).toBeUndefined();
  });
});

describe('a contact shadow', () => {
  it('hides half the sky at the foot of an endless wall, and what the formula says beside a low one', () => {
    expect(2 * hiddenByUpright(1e6, 1e-6, 1e6)).toBeCloseTo(0.5, 5);
    // A long wall as high as the place is far off: (1 - cos 45°) / 2.
    expect(2 * hiddenByUpright(1e6, 1, 1)).toBeCloseTo((1 - Math.SQRT1_2) / 2, 5);
  });

  it('agrees with adding up small parts of the wall', () => {
    const [aside, off, height, n] = [0.7, 0.4, 1.2, 400];
    let sum = 0;
    for (let i = 0; i < n; i++) {
      for (let k = 0; k < n; k++) {
        const [x, z] = [((i + 0.5) / n) * aside, ((k + 0.5) / n) * height];
        const far = x * x + z * z + off * off;
        sum += (z * off) / (Math.PI * far * far);
      }
    }
    const summed = (sum * aside * height) / (n * n);
    expect(hiddenByUpright(aside, off, height)).toBeCloseTo(summed, 4);
  });

  it('darkens the ground around a foot and nothing else', () => {
    const region = wholeRegion(60, 40);
    const factors = new Float32Array(2400).fill(1);
    const reach = new Float32Array(2400);
    for (let i = 0; i < 2400; i++) {
      const [, , rise] = rayThrough(CAMERA, { u: ((i % 60) + 0.5) / 60, v: (Math.floor(i / 60) + 0.5) / 40 });
      reach[i] = rise < 0 ? -1.6 / rise : 1e3;
    }
    const card = cardOf(CAMERA, GROUND, testPlaced('p', { foot: { u: 0.5, v: 0.8 } }));
    addContact(factors, reach, CAMERA, region, { card, width: 0.5, height: 1.6, strength: 1 });
    expect(factors[32 * 60 + 30]).toBeLessThan(0.8);
    expect(factors[39 * 60 + 2]).toBeGreaterThan(0.99);
    expect(factors[10 * 60 + 30]).toBe(1);
  });

  it('is as wide as what stands at its foot', () => {
    const post = new Float32Array(200).map((_, i) => (i < 100 || i % 10 === 4 || i % 10 === 5 ? 1 : 0));
    expect(footWidth(post, 10, 20, WHOLE_BODY)).toBeCloseTo(0.2);
    expect(footWidth(new Float32Array(200), 10, 20, WHOLE_BODY)).toBe(0);
  });
});

describe('a picture that is clear in part', () => {
  const clear = (width: number, height: number, there: (x: number, y: number) => boolean) => {
    const data = new Uint8Array(4 * width * height);
    for (let i = 0; i < width * height; i++)
      if (there(i % width, Math.floor(i / width))) data.set([200, 100, 50, 255], 4 * i);
    return { data, width, height, full: 255 };
  };

  it('is cut down to what is there, with room, and says where that stands', () => {
    const cut = cutToBody(
      clear(100, 200, (x, y) => x >= 40 && x < 60 && y >= 50 && y < 150),
      64,
    )!;
    expect([cut.picture.width, cut.picture.height]).toEqual([64, 106]);
    expect((cut.body.right - cut.body.left) * 64).toBeCloseTo(20);
    expect((cut.body.bottom - cut.body.top) * 106).toBeCloseTo(100);
    expect(isOpaque(cut.picture)).toBe(false);
    expect(
      cutToBody(
        clear(80, 80, () => false),
        64,
      ),
    ).toBeUndefined();
  });

  it('goes on under what is clear in its own colours', () => {
    const picture = clear(80, 80, (x) => x < 40);
    fillClear(picture);
    const at = 4 * (40 * 80 + 44);
    expect([...picture.data.slice(at, at + 4)]).toEqual([200, 100, 50, 0]);
  });
});

it('a blur keeps what is there, and its light', () => {
  const cutout = plain(60, 60, 0.5);
  for (let i = 0; i < 3600; i++) if (i % 60 < 20 || i % 60 >= 40) [cutout.coverage[i], cutout.r[i]] = [0, 7];
  blurCutout(cutout, 3);
  const row = cutout.coverage.subarray(1800, 1860);
  expect(row.reduce((sum, value) => sum + value, 0)).toBeCloseTo(20, 1);
  expect(row[20]).toBeGreaterThan(0.3);
  expect(row[20]).toBeLessThan(0.8);
  expect(cutout.r[1822]).toBeCloseTo(0.5, 4);
});

it('a lamp that is part of a picture keeps its place on it, and grows with it', () => {
  const before = cardOf(CAMERA, GROUND, testPlaced('p'));
  const after = cardOf(
    CAMERA,
    GROUND,
    testPlaced('p', { foot: { u: 0.3, v: 0.9 }, tall: 3.2, flip: true, turn: 20 }),
  );
  const at = project(CAMERA, cardPoint(before, 0.8, 0.9))!;
  const lamp = { at, foot: { u: 0.5, v: 0.8 }, aim: { u: 0.5, v: 0.9 }, path: [at], size: 0.01 };
  const moved = rideAlong({ camera: CAMERA, card: before }, { camera: CAMERA, card: after }, lamp);
  const on = onCard(CAMERA, after, moved.at)!;
  expect(on.across).toBeCloseTo(0.2, 6);
  expect(on.up).toBeCloseTo(0.9, 6);
  expect(moved.path[0]).toEqual(moved.at);
  expect(moved.size / 0.01).toBeCloseTo((2 * before.foot[1]) / after.foot[1], 3);
});
