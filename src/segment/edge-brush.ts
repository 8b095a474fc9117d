import type { Mat } from '@techstark/opencv-js';
import type { EdgeStroke } from '@/core/matte/pass';
import { flags, withMats, type OpenCv } from './opencv';
import { boxAround, type Box, type Picture } from './picture';
import { hypot } from '@/core/plane/hypot';

/** Longest side of what is cut at a time, pixels: larger neighbourhoods are cut on a smaller copy. */
const MOST_SIDE = 420;

/** Rounds of fitting colours and cutting. */
const ROUNDS = 5;

/** The neighbourhood of a stroke reaches this many radii; that of a loop this share of its size beyond it. */
const AROUND = { stroke: 3.5, loop: 0.2 };

/** Parts of what a loop found that are smaller than this share of the largest are left out. */
const SPECK = 0.06;

/** Share of a loop's area up to which a hole in what was found is filled. */
const HOLE = 0.01;

/**
 * The core of a loop is taken for sure: the line midway between its sides, where its depth hardly grows in any direction. A
 * loop is drawn around a thing; without a core, a dark hat before dark windows would be lost. Its rim, shallower than a
 * share of its greatest depth, is more likely what lies behind.
 */
const CORE = { slope: 0.5, least: 2, rim: 0.25 };

/** What the cut is told of a pixel (GrabCut's mask). */
const OUT = 0;
const IN = 1;
const MAYBE_OUT = 2;
const MAYBE_IN = 3;

/**
 * Coverage after one more stroke of the edge brush: the neighbourhood of the stroke is cut where colours part (GrabCut,
 * Rother, Kolmogorov and Blake 2004). 0 or 255 a pixel; the same stroke on the same coverage gives the same result.
 *
 * @param coverage what was found before, a byte a pixel of the picture; it is not changed
 */
export function brushEdges(
  cv: OpenCv,
  picture: Picture,
  coverage: Uint8Array,
  stroke: EdgeStroke,
): Uint8Array {
  const radius = stroke.size * picture.width;
  const box = boxAround(stroke.path, picture, (longest) =>
    stroke.act === 'loop' ? Math.max(12, AROUND.loop * longest) : AROUND.stroke * radius + 2,
  );
  if (!box || (stroke.act === 'loop' && stroke.path.length < 6)) return coverage;
  return withMats((keep) => {
    const scale = Math.min(1, MOST_SIDE / Math.max(box.width, box.height));
    const size = new cv.Size(
      Math.max(3, Math.round(box.width * scale)),
      Math.max(3, Math.round(box.height * scale)),
    );
    const shrunk = (source: Mat) => {
      const out = keep(new cv.Mat());
      cv.resize(source, out, size, 0, 0, flags(cv).INTER_AREA);
      return out;
    };
    const colors = shrunk(
      keep(cv.matFromArray(box.height, box.width, flags(cv).CV_8UC3, cropped(picture.rgb, picture, box, 3))),
    );
    const before = shrunk(
      keep(cv.matFromArray(box.height, box.width, flags(cv).CV_8UC1, cropped(coverage, picture, box, 1))),
    );
    const places = stroke.path.map((part, i) =>
      i % 2 === 0
        ? Math.round((part * picture.width - box.x) * scale)
        : Math.round((part * picture.height - box.y) * scale),
    );
    const mask = keep(cv.Mat.zeros(size.height, size.width, flags(cv).CV_8UC1));
    const line = keep(cv.matFromArray(places.length / 2, 1, cv.CV_32SC2, places));
    if (stroke.act === 'loop') maskLoop(cv, mask, line, keep);
    else maskStroke(cv, mask, line, before.data, stroke.act, radius * scale, keep);
    const seeds = new Set(mask.data);
    if (!(seeds.has(IN) || seeds.has(MAYBE_IN)) || !(seeds.has(OUT) || seeds.has(MAYBE_OUT))) return coverage;
    cv.setRNGSeed(1);
    const [outside, inside] = [keep(new cv.Mat()), keep(new cv.Mat())];
    cv.grabCut(colors, mask, new cv.Rect(0, 0, 1, 1), outside, inside, ROUNDS, flags(cv).GC_INIT_WITH_MASK);
    const cut = keep(new cv.Mat(size.height, size.width, flags(cv).CV_8UC1));
    cut.data.set(mask.data.map((value) => (value === IN || value === MAYBE_IN ? 255 : 0)));
    if (stroke.act === 'loop') tidy(cv, cut, keep);
    const back = keep(new cv.Mat());
    cv.resize(cut, back, new cv.Size(box.width, box.height), 0, 0, flags(cv).INTER_LINEAR);
    return joined(coverage, back.data, picture, box, stroke.act);
  });
}

type Keep = Parameters<Parameters<typeof withMats>[0]>[0];

/** Inside a loop may be in, and its core is; the rest is out. */
function maskLoop(cv: OpenCv, mask: Mat, line: Mat, keep: Keep): void {
  const loop = keep(new cv.MatVector());
  loop.push_back(line);
  cv.fillPoly(mask, loop, new cv.Scalar(MAYBE_IN));
  const depth = keep(new cv.Mat());
  cv.distanceTransform(mask, depth, flags(cv).DIST_L2, 5);
  const { data32F: deep, cols, rows } = depth;
  const deepest = deep.reduce((most, value) => Math.max(most, value), 0);
  for (let y = 1; y < rows - 1; y++) {
    for (let x = 1; x < cols - 1; x++) {
      const i = y * cols + x;
      if (deep[i] === 0) continue;
      const slope = hypot(deep[i + 1] - deep[i - 1], deep[i + cols] - deep[i - cols]) / 2;
      if (deep[i] >= CORE.least && slope <= CORE.slope) mask.data[i] = IN;
      else if (deep[i] < CORE.rim * deepest) mask.data[i] = MAYBE_OUT;
    }
  }
}

/** Under a stroke is in (or out); around it is to be found; beyond, what was found before holds. */
function maskStroke(
  cv: OpenCv,
  mask: Mat,
  line: Mat,
  before: Uint8Array,
  act: 'take' | 'leave',
  radius: number,
  keep: Keep,
): void {
  const along = (width: number) => {
    const drawn = keep(cv.Mat.zeros(mask.rows, mask.cols, flags(cv).CV_8UC1));
    const lines = keep(new cv.MatVector());
    lines.push_back(line);
    cv.polylines(drawn, lines, false, new cv.Scalar(255), Math.max(1, Math.round(2 * width)));
    return drawn.data;
  };
  const [under, near] = [along(radius), along(AROUND.stroke * radius)];
  mask.data.set(
    before.map((found, i) => {
      const covered = found > 127;
      if (under[i]) return act === 'take' ? IN : OUT;
      if (near[i]) return covered ? MAYBE_IN : MAYBE_OUT;
      return covered ? IN : OUT;
    }),
  );
}

/** Leaves out specks and fills small holes, in place. */
function tidy(cv: OpenCv, cut: Mat, keep: Keep): void {
  const sweep = (inverted: boolean, drop: (area: number, largest: number) => boolean) => {
    if (inverted) cv.bitwise_not(cut, cut);
    const [labels, stats, middles] = [0, 1, 2].map(() => keep(new cv.Mat()));
    const count = cv.connectedComponentsWithStats(cut, labels, stats, middles);
    const areas = Array.from({ length: count }, (_, label) => stats.intAt(label, flags(cv).CC_STAT_AREA));
    const largest = Math.max(1, ...areas.slice(1));
    const gone = areas.map((area, label) => label > 0 && drop(area, largest));
    labels.data32S.forEach((label, i) => {
      if (gone[label]) cut.data[i] = 0;
    });
    if (inverted) cv.bitwise_not(cut, cut);
  };
  sweep(false, (area, largest) => area < SPECK * largest);
  sweep(true, (area) => area < HOLE * cut.data.length);
}

function cropped(
  data: Uint8Array,
  { width }: Pick<Picture, 'width'>,
  box: Box,
  channels: number,
): Uint8Array {
  const out = new Uint8Array(box.width * box.height * channels);
  for (let y = 0; y < box.height; y++) {
    const from = ((box.y + y) * width + box.x) * channels;
    out.set(data.subarray(from, from + box.width * channels), y * box.width * channels);
  }
  return out;
}

/** A coverage with what was cut in a box added to it, or left out of it. */
function joined(
  coverage: Uint8Array,
  cut: Uint8Array,
  { width }: Pick<Picture, 'width'>,
  box: Box,
  act: EdgeStroke['act'],
): Uint8Array {
  const out = coverage.slice();
  for (let y = 0; y < box.height; y++) {
    for (let x = 0; x < box.width; x++) {
      const i = (box.y + y) * width + box.x + x;
      const found = cut[y * box.width + x];
      out[i] = act === 'leave' ? Math.min(out[i], found) : Math.max(out[i], found);
    }
  }
  return out;
}
