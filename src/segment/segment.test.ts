import { createRequire } from 'node:module';
import { beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { createCamera, type PlatePoint } from '@/core/geometry/camera';
import type { UprightPlane } from '@/core/geometry/upright-plane';
import type { Facade } from '@/core/layout/facades';
import { middleOf } from '@/core/plane/middle-of';
import { cornersOf, DRAWN, drawnStreet, leftLight, ROW, WINDOWS } from '../../test/drawn-street';
import type { EdgeStroke } from '@/core/matte/pass';
import { brushEdges } from './edge-brush';
import { whenReady, type OpenCv } from './opencv';
import { boxAround, type Picture } from './picture';
import { findAlike } from './find-alike';
import { SegmentService } from './segment-service';
import { standingThings } from './standing-things';
import { straightLines } from './straight-lines';
import { traceEdges } from './trace-edge';
import { uprightThings } from './upright-things';
import { straightestFacade, windowTwins } from './window-twins';

let cv: OpenCv;
beforeAll(async () => {
  ({ cv } = await whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv));
});

const [WIDTH, HEIGHT] = [160, 120];
const DISC = { x: 80, y: 60, radius: 30 };
const inDisc = (x: number, y: number) => Math.hypot(x - DISC.x, y - DISC.y) <= DISC.radius;

/** A mottled red disc with a dark band across, on mottled grey. */
const picture: Picture = {
  width: WIDTH,
  height: HEIGHT,
  rgb: Uint8Array.from({ length: 3 * WIDTH * HEIGHT }, (_, i) => {
    const [x, y] = [Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
    const mottle = ((x * 7 + y * 13) % 11) - 5;
    const color = !inDisc(x, y) ? [120, 125, 118] : y > 56 && y < 64 ? [60, 30, 30] : [190, 50, 40];
    return color[i % 3] + mottle;
  }),
};

const NOTHING = new Uint8Array(WIDTH * HEIGHT);
const around = (radius: number, steps = 14) =>
  Array.from({ length: steps }, (_, k) => (2 * Math.PI * k) / steps).flatMap((angle) => [
    (DISC.x + radius * Math.cos(angle)) / WIDTH,
    (DISC.y + radius * Math.sin(angle)) / HEIGHT,
  ]);
const loop: EdgeStroke = { act: 'loop', path: around(42), size: 0.02 };

function overlap(coverage: Uint8Array): number {
  let [both, either] = [0, 0];
  coverage.forEach((value, i) => {
    const [found, there] = [value > 127, inDisc(i % WIDTH, Math.floor(i / WIDTH))];
    both += Number(found && there);
    either += Number(found || there);
  });
  return both / either;
}

describe('findAlike', () => {
  it('finds a thing again, also at another size, and nothing in what is plain', () => {
    const size = { width: 240, height: 100 };
    const post = (x: number, y: number, cx: number, half: number) =>
      Math.abs(x - cx) < half && Math.abs(y - 50) < 1.6 * half ? ((y - 50) / half > 0 ? 200 : 30) : undefined;
    const rgb = Uint8Array.from({ length: 3 * size.width * size.height }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % size.width, Math.floor(i / 3 / size.width)];
      return post(x, y, 40, 12) ?? post(x, y, 120, 12) ?? post(x, y, 200, 7) ?? 110 + ((x * 7 + y * 13) % 11);
    });
    const sample = { at: { u: 40 / 240, v: 0.5 }, half: { u: 0.08, v: 0.3 } };
    const found = findAlike(cv, { ...size, rgb }, sample);
    const best = (u: number) =>
      Math.max(0, ...found.filter(({ at }) => Math.abs(at.u - u) < 0.02).map(({ score }) => score));
    expect(best(120 / 240)).toBeGreaterThan(0.9);
    expect(best(200 / 240)).toBeGreaterThan(0.6);
    const small = found
      .filter(({ at }) => Math.abs(at.u - 200 / 240) < 0.02)
      .sort((a, b) => b.score - a.score)[0];
    expect(small.times).toBeLessThan(0.8);
    const plain = new Uint8Array(rgb.length).fill(90);
    expect(findAlike(cv, { ...size, rgb: plain }, sample)).toEqual([]);
    expect(findAlike(cv, { ...size, rgb }, { at: sample.at, half: { u: 0.001, v: 0.001 } })).toEqual([]);
  });
});

describe('straightLines', () => {
  it('finds the edge between two tones, and none in what is plain', () => {
    const rgb = Uint8Array.from({ length: 3 * WIDTH * HEIGHT }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
      return y > 30 + 0.25 * x ? 40 : 200;
    });
    const [[a, b]] = straightLines(cv, { width: WIDTH, height: HEIGHT, rgb });
    const slope = ((b.v - a.v) * HEIGHT) / ((b.u - a.u) * WIDTH);
    expect(slope).toBeCloseTo(0.25, 1);
    expect(straightLines(cv, { width: WIDTH, height: HEIGHT, rgb: rgb.fill(80) })).toEqual([]);
  });
});

describe('straightLines of odd pictures', () => {
  it.each([
    [1, 1],
    [3, 200],
    [900, 12],
    [60, 400],
  ])('says nothing but numbers of %d x %d pixels', (width, height) => {
    const rgb = Uint8Array.from({ length: 3 * width * height }, (_, i) => (i * 7919) % 251);
    const lines = straightLines(cv, { width, height, rgb });
    expect(lines.flat().every(({ u, v }) => Number.isFinite(u) && Number.isFinite(v))).toBe(true);
  });
});

describe('uprightThings', () => {
  /** Two dark posts and one light one on grey, a slab too broad for a post, and a thin level bar. */
  const bars = [
    { x: 60, y: 90, w: 6, h: 60, tone: 30 },
    { x: 140, y: 60, w: 8, h: 110, tone: 40 },
    { x: 220, y: 100, w: 6, h: 50, tone: 220 },
    { x: 280, y: 60, w: 60, h: 110, tone: 30 },
    { x: 20, y: 30, w: 300, h: 6, tone: 30 },
  ];
  const [width, height] = [400, 260];
  const streetOf = (paint: (x: number, y: number) => number): Picture => ({
    width,
    height,
    rgb: Uint8Array.from({ length: 3 * width * height }, (_, i) =>
      paint(Math.floor(i / 3) % width, Math.floor(i / 3 / width)),
    ),
  });
  const spans = (found: ReturnType<typeof uprightThings>) =>
    found.map(({ outline }) => {
      const us = outline.map(({ u }) => Math.round(u * width));
      const vs = outline.map(({ v }) => Math.round(v * height));
      return { left: Math.min(...us), right: Math.max(...us), top: Math.min(...vs), foot: Math.max(...vs) };
    });

  it('finds posts, dark and light, from top to foot, and nothing broad, level or plain', () => {
    const picture = streetOf(
      (x, y) =>
        bars.find((bar) => x >= bar.x && x < bar.x + bar.w && y >= bar.y && y < bar.y + bar.h)?.tone ?? 120,
    );
    const found = spans(uprightThings(cv, picture));
    for (const { x, y, w, h } of bars.slice(0, 3)) {
      const own = found.filter(({ left, right }) => right > x - 4 && left < x + w + 4);
      expect(own.length).toBeGreaterThan(0);
      for (const { left, right, top, foot } of own) {
        expect([left, right]).toEqual([x, x + w]);
        expect(Math.abs(top - y)).toBeLessThanOrEqual(1);
        expect(Math.abs(foot - y - h)).toBeLessThanOrEqual(1);
      }
    }
    expect(found.every(({ left }) => left < 250)).toBe(true);
    expect(
      uprightThings(
        cv,
        streetOf(() => 90),
      ),
    ).toEqual([]);
  });

  it('takes fine upright texture for none', () => {
    expect(
      uprightThings(
        cv,
        streetOf((x) => (x % 4 < 2 ? 60 : 160)),
      ),
    ).toEqual([]);
  });
});

describe('standingThings', () => {
  const [width, height] = [400, 260];
  /** Mottled grey ground under a horizon at 0.4, with what is laid on it. */
  const ground = (...laid: { x: number; y: number; w: number; h: number; tone: number[] }[]): Picture => ({
    width,
    height,
    rgb: Uint8Array.from({ length: 3 * width * height }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % width, Math.floor(i / 3 / width)];
      const thing = laid.find((own) => x >= own.x && x < own.x + own.w && y >= own.y && y < own.y + own.h);
      if (thing) return thing.tone[i % 3];
      return y < 0.4 * height ? [120, 160, 220][i % 3] : 125 + ((x * 7 + y * 13) % 11);
    }),
  });

  it('finds what is of other tones than the ground, and says where it goes on over the horizon', () => {
    const coat = { x: 100, y: 60, w: 30, h: 130, tone: [180, 60, 40] };
    const pot = { x: 250, y: 150, w: 30, h: 40, tone: [60, 120, 60] };
    const found = standingThings(cv, ground(coat, pot), 0.4);
    expect(found).toHaveLength(2);
    const [first, second] = found.sort((p, q) => p.left - q.left);
    expect(first.open).toBe(true);
    expect(first.foot).toBeCloseTo(190 / 260, 1);
    expect(second).toMatchObject({ open: false });
    expect(second.left).toBeCloseTo(250 / 400, 1);
    expect(second.top).toBeCloseTo(150 / 260, 1);
  });

  it('finds nothing on bare ground, at the picture’s edge, or in what is too small', () => {
    expect(standingThings(cv, ground(), 0.4)).toEqual([]);
    const edge = { x: 0, y: 150, w: 40, h: 60, tone: [180, 60, 40] };
    const speck = { x: 200, y: 200, w: 3, h: 4, tone: [180, 60, 40] };
    expect(standingThings(cv, ground(edge, speck), 0.4)).toEqual([]);
  });
});

describe('brushEdges', () => {
  it('finds a thing in a rough loop, and the same again', () => {
    const found = brushEdges(cv, picture, NOTHING, loop);
    expect(overlap(found)).toBeGreaterThan(0.95);
    expect(brushEdges(cv, picture, NOTHING, loop)).toEqual(found);
    expect(NOTHING.every((value) => value === 0)).toBe(true);
  });

  it('takes what a stroke runs over to its edge, and leaves out what it is told to', () => {
    const take: EdgeStroke = { act: 'take', path: [0.4, 0.5, 0.6, 0.5, 0.5, 0.35, 0.5, 0.65], size: 0.03 };
    const taken = brushEdges(cv, picture, NOTHING, take);
    expect(overlap(taken)).toBeGreaterThan(0.85);
    const all = new Uint8Array(WIDTH * HEIGHT).fill(255);
    const leave: EdgeStroke = { act: 'leave', path: around(44), size: 0.03 };
    const left = brushEdges(cv, picture, all, leave);
    expect(left[60 * WIDTH + 80]).toBe(255);
    expect(left[60 * WIDTH + 80 + 42]).toBe(0);
  });

  it.each([
    ['a stroke outside the picture', { ...loop, path: [2, 2, 2.1, 2, 2.1, 2.1] }],
    ['a loop of two places', { ...loop, path: [0.2, 0.2, 0.8, 0.8] }],
    ['a path of none', { ...loop, path: [] }],
    ['a stroke that leaves nothing out of nothing', { ...loop, act: 'leave' as const }],
  ])('finds nothing by %s', (_name, stroke) => {
    expect(brushEdges(cv, picture, NOTHING, stroke)).toEqual(NOTHING);
  });

  it('bears a loop that crosses itself and leaves the picture', () => {
    const crossed: EdgeStroke = { ...loop, path: [-0.5, -0.5, 1.5, 1.5, 1.5, -0.5, -0.5, 1.5] };
    expect(brushEdges(cv, picture, NOTHING, crossed)).toHaveLength(WIDTH * HEIGHT);
  });
});

describe('traceEdges', () => {
  const on = (angle: number) => ({
    u: (DISC.x + DISC.radius * Math.cos(angle)) / WIDTH,
    v: (DISC.y + DISC.radius * Math.sin(angle)) / HEIGHT,
  });

  it('follows the edge of a disc from one place of it to another', () => {
    const trace = traceEdges(cv, picture, on(-2.6));
    const points = trace.to(on(-0.5));
    expect(points.length).toBeGreaterThan(4);
    expect(points.at(-1)).toEqual(on(-0.5));
    points.forEach(({ u, v }) =>
      expect(Math.abs(Math.hypot(u * WIDTH - DISC.x, v * HEIGHT - DISC.y) - DISC.radius)).toBeLessThan(3),
    );
    trace.close();
  });

  it('goes straight to places out of reach and begins nowhere outside the picture', () => {
    const trace = traceEdges(cv, picture, on(0));
    expect(trace.to({ u: 3, v: 0.5 })).toEqual([{ u: 3, v: 0.5 }]);
    trace.close();
    expect(traceEdges(cv, picture, { u: -9, v: 0.5 }).to({ u: 0.5, v: 0.5 })).toEqual([{ u: 0.5, v: 0.5 }]);
  });
});

describe('boxAround', () => {
  it('holds the margin inside the picture, and is nothing outside it', () => {
    expect(boxAround([0.5, 0.5], picture, () => 10)).toEqual({ x: 70, y: 50, width: 20, height: 20 });
    expect(boxAround([0, 0], picture, () => 10)).toEqual({ x: 0, y: 0, width: 10, height: 10 });
    expect(boxAround([3, 3], picture, () => 10)).toBeUndefined();
  });
});

describe('SegmentService', () => {
  it('wants the plate first, then adds stroke to stroke', async () => {
    const service = new SegmentService(Promise.resolve({ cv }));
    await expect(service.brush(undefined, loop)).rejects.toThrow('not there yet');
    service.open(picture);
    expect(await service.brush(undefined, loop)).toEqual(brushEdges(cv, picture, NOTHING, loop));
    await service.traceFrom({ u: 0.31, v: 0.5 });
    expect((await service.traceTo({ u: 0.5, v: 0.25 })).length).toBeGreaterThan(1);
  });
});

describe('windowTwins', () => {
  const camera = createCamera(DRAWN, 1.5);
  const [fx, fy] = ROW.from;
  const [dx, dy] = [ROW.to[0] - fx, ROW.to[1] - fy];
  const long = Math.hypot(dx, dy);
  const row = { point: [fx, fy, 0], normal: [dy / long, -dx / long, 0] } satisfies UprightPlane;
  const within = (outline: readonly PlatePoint[], pixels: number) => (corners: readonly PlatePoint[]) =>
    corners.every(({ u, v }, i) => Math.hypot((u - outline[i].u) * 960, (v - outline[i].v) * 640) < pixels);

  it('finds the row and the storey above with outlines of their own, and nothing else', async () => {
    const { data } = await sharp(await drawnStreet())
      .resize(960)
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const plate = { width: 960, height: 640, data: Float32Array.from(data) };
    const seen = WINDOWS.map(cornersOf);
    const own = seen[3];
    const found = windowTwins(cv, plate, camera, row, own);
    expect(found.length).toBeGreaterThanOrEqual(4);
    for (const { outline } of found) expect(seen.some((other) => within(other, 5)(outline))).toBe(true);
    const plain = { ...plate, data: new Float32Array(plate.data.length).fill(80) };
    expect(windowTwins(cv, plain, camera, row, own)).toEqual([]);
  });

  it('takes the wall that is known, else the plane on which the outline is level', () => {
    const outline = cornersOf(WINDOWS[3]);
    const facing = { point: [0, 10, 0], normal: [0, -1, 0], known: false } satisfies Facade;
    const tried = { ...row, known: false };
    expect(straightestFacade(camera, [facing, tried], outline)).toBe(tried);
    const known = { ...facing, known: true };
    expect(straightestFacade(camera, [tried, known], outline)).toBe(known);
  });
});

describe('a window in a click', () => {
  const clues = { camera: createCamera(DRAWN, 1.5), horizon: DRAWN.horizon, walls: [] };

  async function drawnService(barred = false): Promise<SegmentService> {
    const { data, info } = await sharp(await drawnStreet(DRAWN, barred))
      .raw()
      .toBuffer({ resolveWithObject: true });
    const service = new SegmentService(Promise.resolve({ cv }));
    service.open({ width: info.width, height: info.height, rgb: new Uint8Array(data) });
    return service;
  }

  it('is all of it or the light between bars that was clicked', async () => {
    const service = await drawnService(true);
    for (const window of [WINDOWS[0], WINDOWS[2], WINDOWS[3]]) {
      const light = cornersOf(leftLight(window));
      const found = await service.findWindows(clues, middleOf(light));
      for (const corners of [cornersOf(window), light]) {
        const off = found.map((outline) =>
          Math.max(
            ...outline.map(({ u, v }, i) => Math.hypot((u - corners[i].u) * 960, (v - corners[i].v) * 640)),
          ),
        );
        expect(Math.min(...off)).toBeLessThan(3);
      }
    }
  });

  it('is found by the worker’s own lines where no wall is said', async () => {
    const service = await drawnService();
    const corners = cornersOf(WINDOWS[3]);
    const [outline] = await service.findWindows(clues, middleOf(corners));
    outline.forEach(({ u, v }, i) => {
      expect(Math.hypot((u - corners[i].u) * 960, (v - corners[i].v) * 640)).toBeLessThan(4);
    });
    const twins = await service.windowTwins(clues, outline);
    expect(twins.length).toBeGreaterThanOrEqual(3);
    expect(await service.findWindows(clues, { u: 0.7, v: 0.1 })).toEqual([]);
  });
});
