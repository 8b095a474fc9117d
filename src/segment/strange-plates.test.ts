import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import sharp, { type Sharp } from 'sharp';
import { srgb } from '@/core/color/srgb';
import { createCamera, type CameraSettings } from '@/core/geometry/camera';
import { groundPoint } from '@/core/geometry/ground';
import { hangLamp } from '@/core/layout/hang-lamp';
import { surveyPlate } from '@/core/survey/survey';
import { surveySize } from '@/engine/sizes';
import { firstGuess } from '@/state/actions/first-guess';
import { newScene } from '@/core/scene/new-scene';
import { DRAWN, drawnStreet } from '../../test/drawn-street';
import { whenReady, type OpenCv } from './opencv';
import { SegmentService } from './segment-service';

const ready = whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv);

/** A horizon as fractions of a picture that is cut out of a larger one. */
const cutHorizon = (cut: { left: number; top: number; width: number; height: number }) => {
  const at = (x: number) =>
    ((DRAWN.horizon.left + (x / 1200) * (DRAWN.horizon.right - DRAWN.horizon.left)) * 800 - cut.top) /
    cut.height;
  return { left: at(cut.left), right: at(cut.left + cut.width) };
};

const streetBy = async (settings: Partial<CameraSettings> = {}) =>
  sharp(await drawnStreet({ ...DRAWN, ...settings }));
const PORTRAIT = { left: 250, top: 0, width: 500, height: 800 };
const PANORAMA = { left: 0, top: 200, width: 1200, height: 360 };

/** The picture as a lens of this much barrel distortion shows it. */
async function bulged(street: Sharp, bulge: number): Promise<Sharp> {
  const { data, info } = await street.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const out = Buffer.alloc(data.length);
  for (let y = 0; y < info.height; y++) {
    for (let x = 0; x < info.width; x++) {
      const [dx, dy] = [x / info.width - 0.5, (y - info.height / 2) / info.width];
      const times = 1 + bulge * (dx * dx + dy * dy);
      const [sx, sy] = [
        Math.round((0.5 + dx * times) * info.width),
        Math.round(info.height / 2 + dy * times * info.width),
      ];
      if (sx < 0 || sy < 0 || sx >= info.width || sy >= info.height) continue;
      data.copy(out, 3 * (y * info.width + x), 3 * (sy * info.width + sx), 3 * (sy * info.width + sx) + 3);
    }
  }
  return sharp(out, { raw: { width: info.width, height: info.height, channels: 3 } });
}

/** A room with a window and a table, by an eye in its middle. */
function room(): Sharp {
  const polygon = (points: string, fill: string) => `<polygon points="${points}" fill="${fill}"/>`;
  return sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800">
      ${polygon('0,0 1200,0 1200,800 0,800', '#8a7f70')}${polygon('0,0 400,250 400,520 0,800', '#a79a86')}
      ${polygon('1200,0 800,250 800,520 1200,800', '#968a78')}${polygon('0,0 1200,0 800,250 400,250', '#d8d3c8')}
      ${polygon('0,800 1200,800 800,520 400,520', '#5a4632')}${polygon('400,250 800,250 800,520 400,520', '#b5a994')}
      ${polygon('500,290 700,290 700,420 500,420', '#e8f0f8')}${polygon('420,640 780,640 739,580 461,580', '#3a2a1c')}
    </svg>`),
  );
}

const plain = (background: string) => sharp({ create: { width: 900, height: 600, channels: 3, background } });
const snow = { type: 'gaussian', mean: 225, sigma: 12 } as const;

interface Strange {
  name: string;
  photo: () => Promise<Sharp> | Sharp;
  /** Where its horizon lies; undefined: nobody could say. */
  horizon?: CameraSettings['horizon'];
}

const STRANGE: Strange[] = [
  {
    name: 'portrait',
    photo: async () => (await streetBy()).extract(PORTRAIT),
    horizon: cutHorizon(PORTRAIT),
  },
  {
    name: 'panorama',
    photo: async () => (await streetBy()).extract(PANORAMA),
    horizon: cutHorizon(PANORAMA),
  },
  {
    name: 'black and white',
    photo: async () => (await streetBy()).greyscale().toColourspace('srgb'),
    horizon: DRAWN.horizon,
  },
  { name: 'fog', photo: async () => (await streetBy()).linear(0.14, 170).blur(1.5), horizon: DRAWN.horizon },
  { name: 'two stops under', photo: async () => (await streetBy()).linear(0.45, 0), horizon: DRAWN.horizon },
  { name: 'burnt out', photo: async () => (await streetBy()).linear(1.6, 30), horizon: DRAWN.horizon },
  {
    name: 'from a balcony',
    photo: () => streetBy({ horizon: { left: 0.2, right: 0.21 }, eyeHeight: 5 }),
    horizon: { left: 0.2, right: 0.21 },
  },
  {
    name: 'up a facade, no horizon in view',
    photo: () => streetBy({ horizon: { left: 1.2, right: 1.2 } }),
    horizon: { left: 1.2, right: 1.2 },
  },
  { name: 'a fisheye', photo: async () => bulged(await streetBy(), 0.9), horizon: DRAWN.horizon },
  {
    name: 'a sky of 12 pixels',
    photo: () => streetBy({ horizon: { left: 0.02, right: 0.02 }, eyeHeight: 9 }),
    horizon: { left: 0.02, right: 0.02 },
  },
  { name: 'an interior', photo: room, horizon: { left: 0.47, right: 0.47 } },
  {
    name: 'snow',
    photo: () => sharp({ create: { width: 900, height: 600, channels: 3, noise: snow, background: '#fff' } }),
  },
  { name: 'all white', photo: () => plain('#ffffff') },
  { name: 'all black', photo: () => plain('#000000') },
  { name: 'sky and nothing else', photo: () => plain('#7fb2ee') },
];

/** How far a horizon that is told may be off, fraction of the height; that of a lens that bends its lines a little more. */
const OFF = { most: 0.02, bent: 0.06 } as const;

describe('plates that are strange', { timeout: 60_000 }, () => {
  it.each(STRANGE)('$name: nothing false is said, and nothing breaks', async ({ name, photo, horizon }) => {
    const png = await (await photo()).removeAlpha().png().toBuffer();
    const pixelsOf = async (picture: Sharp) => picture.raw().toBuffer({ resolveWithObject: true });
    const whole = await pixelsOf(sharp(png));
    const { width, height } = whole.info;
    const service = new SegmentService(ready);
    service.open({ width, height, rgb: new Uint8Array(whole.data) });
    const { data, info } = await pixelsOf(
      sharp(png).resize({ ...surveySize({ width, height }), fit: 'fill' }),
    );
    const count = info.width * info.height;
    const [r, g, b] = [0, 1, 2].map((c) =>
      Float32Array.from({ length: count }, (_, i) => srgb.decode(data[3 * i + c] / 255)),
    );
    const plate = { width: info.width, height: info.height, r, g, b };
    const scene = newScene('Strange', { asset: '0'.repeat(64), width, height });
    const survey = surveyPlate(plate, scene.plan.horizon);
    for (const plane of [survey.ground.slope, survey.sky.offset, survey.feet]) {
      expect(plane.every(Number.isFinite)).toBe(true);
    }
    const level = Float32Array.from(r, (_, i) => Number(Math.floor(i / info.width) > 0.5 * info.height));
    const one = new Float32Array(count).fill(1);
    const land = () => Promise.resolve({ ...plate, reach: one, land: one, level, plate });
    const offer = await firstGuess(scene, service, land);
    if (offer) {
      expect(horizon, `a horizon at ${offer.plan.horizon.left}`).toBeDefined();
      const most = name === 'a fisheye' ? OFF.bent : OFF.most;
      for (const side of ['left', 'right'] as const) {
        expect(Math.abs(offer.plan.horizon[side] - horizon![side])).toBeLessThan(most);
      }
    }
    const camera = createCamera(offer?.plan ?? scene.plan, width / height);
    const clues = { camera, horizon: offer?.plan.horizon ?? scene.plan.horizon, walls: [] };
    for (const at of [
      { u: 0.3, v: 0.3 },
      { u: 0.6, v: 0.7 },
    ]) {
      const windows = await service.findWindows(clues, at);
      expect(windows.flat().every(({ u, v }) => Number.isFinite(u + v))).toBe(true);
      const grey = { ...plate, data: Float32Array.from(r, (red) => 255 * Math.sqrt(red)) };
      const lamp = hangLamp(
        grey,
        camera,
        { walls: [], decks: [] },
        { radius: 0.13, height: 3.4, round: true },
        at,
        (_, v) => v > 0.5,
      );
      if (lamp) expect(groundPoint(camera, lamp.foot)[1]).toBeGreaterThan(0);
    }
  });
});
