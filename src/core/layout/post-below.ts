import type { PlatePoint } from '../geometry/camera';
import type { Plane } from '../plane/plane';
import type { LampGlass } from './lamp-glass';

/** Breadths of a post that are tried, in radii of its lamp's glass; the narrowest that counts, pixels. */
const BREADTHS = [0.12, 0.2, 0.32, 0.5, 0.8, 1.25, 2, 3] as const;
const NARROWEST = 1.2;

/** How far beside the glass's middle a post may begin, in radii, and how finely that is sought. */
const BESIDE = { reach: 0.7, step: 0.2 } as const;

/** Contrast against both sides from which a row shows the post, codes; what counts as plainly seen. */
const CONTRAST = { least: 5, plain: 20 } as const;

/**
 * What of a post may not stand out, in radii of the glass and as a share of the way down to it: as long as its tone goes on, above the ground;
 * where ground lies on both sides of it, it ends where it is not seen.
 */
const GAP = { radii: 1.2, share: 0.12, onGround: 0.5 } as const;
const SAME = { tone: 16, onGround: 16, follows: 0.1 } as const;

/** How many times as broad as a post its pedestal may be, how plainly that is seen, codes, and how much it counts: a post is itself first. */
const PEDESTAL = { broader: [1.5, 2, 2.5, 3], contrast: 12, counts: 0.5 } as const;

/** How far beside a post ground is looked for, in its breadths and in pixels. */
const GROUND = { breadths: 1, pixels: 4 } as const;

/** Least length of a post in radii, how far below the glass it begins at most, and least share of its rows that show it. */
const POST = { length: 3.5, begins: 2.6, shows: 0.6 } as const;

/** How far it may lean, pixels aside for one down. */
const LEAN = [-0.03, -0.015, 0, 0.015, 0.03] as const;

/** A strip of a row: its tone, and how far it differs from both sides; 0 where it lies between them. */
interface Strip {
  tone: number;
  contrast: number;
}

/** Tells the strips of a plane's rows, by sums along them. */
function createStrips({ width, height, data }: Plane): (y: number, x: number, breadth: number) => Strip {
  const sums = new Float64Array((width + 1) * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0, k = y * (width + 1); x < width; x++, k++) sums[k + 1] = sums[k] + data[y * width + x];
  }
  /** Mean of a row between two places, whole pixels. */
  const mean = (y: number, from: number, to: number): number => {
    const [left, right] = [Math.max(0, Math.round(from)), Math.min(width, Math.round(to))];
    const row = y * (width + 1);
    return right > left ? (sums[row + right] - sums[row + left]) / (right - left) : NaN;
  };
  return (y, x, breadth) => {
    const half = breadth / 2;
    const side = Math.max(2, half);
    const tone = mean(y, x - half, x + half);
    const left = mean(y, x - half - 1 - side, x - half - 1) - tone;
    const right = mean(y, x + half + 1, x + half + 1 + side) - tone;
    return { tone, contrast: left * right > 0 ? Math.min(Math.abs(left), Math.abs(right)) : 0 };
  };
}

/** A way down from a lamp's glass: from beside its middle, how it leans, and how broad it is. Pixels. */
interface Way {
  x: number;
  lean: number;
  breadth: number;
}

/** What a way down is followed through. */
interface Sight {
  height: number;
  strip: (y: number, x: number, breadth: number) => Strip;
  /** Whether ground lies on both sides of a strip. */
  stands: (y: number, x: number, breadth: number) => boolean;
  /** The glass: its middle and its radius, pixels. */
  cy: number;
  r: number;
}

/** The strip of a post that stands on the ground, or of its pedestal, within which the post shows nothing of its own. */
function withPedestal(strip: Sight['strip'], y: number, x: number, breadth: number, own: number): Strip {
  const narrow = strip(y, x, breadth);
  if (narrow.contrast >= CONTRAST.least || Math.abs(narrow.tone - own) > SAME.tone) return narrow;
  const broad = PEDESTAL.broader.map((times) => strip(y, x, times * breadth));
  const seen = broad.find(
    ({ tone, contrast }) => contrast >= PEDESTAL.contrast && Math.abs(tone - own) < SAME.tone,
  );
  return seen ? { ...seen, contrast: PEDESTAL.counts * seen.contrast } : narrow;
}

/** Where a post along a way ends, pixels, and how surely it was seen, codes of contrast times rows; undefined where it is none. */
function followPost({ height, strip, stands, cy, r }: Sight, { x: from, lean, breadth }: Way) {
  const first = Math.round(cy + r);
  let [end, last, begins, shown, weight, own] = [first, first, -1, 0, 0, NaN];
  let onGround = false;
  for (let y = first; y < height; y++) {
    const x = from + lean * (y - cy);
    const { tone, contrast } = onGround ? withPedestal(strip, y, x, breadth, own) : strip(y, x, breadth);
    if (contrast >= CONTRAST.least && !(onGround && Math.abs(tone - own) > SAME.onGround)) {
      if (begins < 0) [begins, own] = [y, tone];
      shown++;
      end = last = y;
      own += SAME.follows * (tone - own);
      weight += Math.min(contrast, CONTRAST.plain);
      onGround ||= stands(y, x, breadth);
    } else if (!onGround && Math.abs(tone - own) < SAME.tone) last = y;
    if (begins < 0 && y - first > POST.begins * r) return undefined;
    const gap = onGround ? GAP.onGround * r : Math.max(GAP.radii * r, GAP.share * (y - cy));
    if (begins >= 0 && y - last > Math.max(2, gap)) break;
  }
  const long = end - begins + 1;
  const isPost = onGround && long >= POST.length * r && shown >= POST.shows * long;
  return isPost ? { x: from + lean * (end - cy), end, weight } : undefined;
}

/**
 * The foot of the post below a lamp's glass: an upright strip that differs from what lies on both sides of it, from the glass down to
 * where it ends on the ground. Undefined where none is sure.
 *
 * @param plate one channel, in codes
 * @param isGround whether ground is seen at a place of the plate
 */
export function postBelow(
  plate: Plane,
  { at, radius }: Pick<LampGlass, 'at' | 'radius'>,
  isGround: (u: number, v: number) => boolean,
): PlatePoint | undefined {
  const { width, height } = plate;
  const [cx, cy, r] = [at.u * width, at.v * height, radius * width];
  const stands = (y: number, x: number, breadth: number) => {
    const away = Math.max(GROUND.pixels, (0.5 + GROUND.breadths) * breadth);
    return [-away, away].every((beside) => isGround((x + beside) / width, (y + 0.5) / height));
  };
  const sight: Sight = { height, strip: createStrips(plate), stands, cy, r };
  let best: ReturnType<typeof followPost>;
  for (const breadth of BREADTHS.map((times) => times * r)) {
    if (breadth < NARROWEST) continue;
    for (let off = -BESIDE.reach; off <= BESIDE.reach + 1e-9; off += BESIDE.step) {
      for (const lean of LEAN) {
        const post = followPost(sight, { x: cx + off * r, lean, breadth });
        if (post && (!best || post.weight > best.weight)) best = post;
      }
    }
  }
  return best && { u: best.x / width, v: Math.min(1, (best.end + 1) / height) };
}
