import type { PlatePoint } from '@/core/geometry/camera';
import { LIGHTNESS_WEIGHT, meanTones, nearestTone, type Tone } from '@/core/survey/ground-tones';
import type { ThingBox } from '@/core/layout/guess-things';
import { flags, withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** Width of the copy that is looked at, pixels. */
const WIDTH = 800;

/** Strip along the lower edge that is taken for ground, fractions of height and width; and every how many pixels. */
const GROUND = { from: 0.9, left: 0.15, right: 0.85, every: 3 } as const;

/** Distance from all tones of the ground, CIELAB codes, from which something is not ground. */
const UNLIKE = 16;

/** How far under the horizon it is looked, fraction of the height: the far ground is like anything. */
const UNDER = 0.03;

/** Least height and breadth, fractions of the picture; most breadth; how much of its box a thing fills. */
const THING = { high: 0.045, broad: 0.012, broadest: 0.25, fills: 0.3 } as const;

const toneAt = (lab: Uint8Array, i: number): Tone => [
  LIGHTNESS_WEIGHT * lab[3 * i],
  lab[3 * i + 1],
  lab[3 * i + 2],
];

/** The tones of a strip along the lower edge. */
function stripTones(lab: Uint8Array, width: number, height: number): Tone[] {
  const seeds: Tone[] = [];
  for (let y = Math.floor(GROUND.from * height); y < height; y += GROUND.every) {
    for (let x = Math.floor(GROUND.left * width); x < GROUND.right * width; x += GROUND.every)
      seeds.push(toneAt(lab, y * width + x));
  }
  return meanTones(seeds);
}

/**
 * Things that stand on the ground of a picture and are of other tones: people, luggage, pots. Each as the box of what of it lies
 * under the horizon; `open` where it goes on over that.
 *
 * @param horizon its height in the middle, fraction of the picture's
 */
export function standingThings(cv: OpenCv, picture: Picture, horizon: PlatePoint['v']): ThingBox[] {
  return withMats((keep) => {
    const scale = Math.min(1, WIDTH / picture.width);
    const [width, height] = [picture.width, picture.height].map((side) => Math.round(scale * side));
    const full = keep(cv.matFromArray(picture.height, picture.width, flags(cv).CV_8UC3, picture.rgb));
    const [color, lab] = [keep(new cv.Mat()), keep(new cv.Mat())];
    cv.resize(full, color, new cv.Size(width, height), 0, 0, flags(cv).INTER_AREA);
    cv.cvtColor(color, lab, flags(cv).COLOR_RGB2Lab);
    cv.GaussianBlur(lab, lab, new cv.Size(5, 5), 0);
    const tones = stripTones(lab.data, width, height);
    const first = Math.min(height - 1, Math.max(0, Math.floor((horizon + UNDER) * height)));
    const unlike = keep(cv.Mat.zeros(height, width, flags(cv).CV_8UC1));
    for (let i = first * width; i < width * height; i++) {
      if (nearestTone(tones, toneAt(lab.data, i)).distance > UNLIKE) unlike.data[i] = 255;
    }
    const disc = (side: number) =>
      keep(cv.getStructuringElement(flags(cv).MORPH_ELLIPSE, new cv.Size(side, side)));
    cv.morphologyEx(unlike, unlike, flags(cv).MORPH_OPEN, disc(3));
    cv.morphologyEx(unlike, unlike, flags(cv).MORPH_CLOSE, disc(7));
    const [labels, stats, middles] = [keep(new cv.Mat()), keep(new cv.Mat()), keep(new cv.Mat())];
    const count = cv.connectedComponentsWithStats(unlike, labels, stats, middles);
    return Array.from({ length: count - 1 }, (_, k) => stats.data32S.subarray(5 * k + 5, 5 * k + 10))
      .filter(([x, y, w, h, area]) => {
        const whole = x > 2 && x + w < width - 2 && y + h < height - 2;
        const sized = h >= THING.high * height && w >= THING.broad * width && w <= THING.broadest * width;
        return whole && sized && area >= THING.fills * w * h;
      })
      .map(([x, y, w, h]) => ({
        left: x / width,
        right: (x + w) / width,
        top: y / height,
        foot: (y + h) / height,
        open: y <= first + 1,
      }));
  });
}
