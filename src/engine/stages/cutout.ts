import { tonalEnds, type TonalEnds } from '@/core/placed/match-picture';
import { cardCorners, cardOf, type Card } from '@/core/placed/placed-card';
import { groundOf } from '@/core/placed/placed-land';
import type { Placed } from '@/core/placed/placed-schema';
import { footWidth } from '@/core/placed/contact-shadow';
import { blurCutout } from '@/core/placed/blur-cutout';
import { cameraOf } from '@/core/picture/camera-of';
import { bilinearOver } from '@/core/plane/bilinear-over';
import { wholeRegion, type Region } from '@/core/plane/region';
import { lineCoverage } from '@/core/survey/line-coverage';
import { newScene } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { ofOther, smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { servedSizes } from '../sizes';
import { brushed } from './found';
import { matte } from './matte';
import { plate } from './plate';
import { survey, surveyIn } from './survey';
import { hypot } from '@/core/plane/hypot';

/** The matte of a placed picture's own scene that is its cut. */
const CUT = 'cut';

/** A placed picture's own scene: the picture is its plate, and its cut its matte. */
const ownScene = ({ asset, width, height, cut }: Placed): Scene => ({
  ...newScene('', { asset, width, height }),
  mattes: cut ? [{ id: CUT, name: CUT, invert: false, ...cut }] : [],
});

/** The cards of a scene's placed pictures, by their ids. */
const cardsIn = (scene: Scene): ReadonlyMap<string, Card> => {
  const camera = cameraOf(scene);
  const ground = groundOf(camera, scene.plan);
  return new Map(scene.placed.map((placed) => [placed.id, cardOf(camera, ground, placed)]));
};

/** The card of a placed picture of a scene. */
export const cardAt = ({ scene, memo }: Pick<Spot, 'scene' | 'memo'>, { id }: Pick<Placed, 'id'>): Card =>
  memo(cardsIn, scene).get(id)!;

/** What of a scene its camera depends on. */
export const eyeIn = ({ plan, plate: { width, height } }: Scene) => {
  const { horizon, eyeHeight, lens } = plan;
  return { plan: { horizon, eyeHeight, lens } as Scene['plan'], plate: { width, height } };
};

/** The copy of a placed picture that is about as fine as it is seen at a spot. */
function copyRegion(at: Spot, placed: Placed): Region {
  const { fullWidth, fullHeight } = at.region;
  const { body, width, height } = placed;
  const [a, b, c] = cardCorners(cameraOf(at.scene), cardAt(at, placed));
  const long = (from?: typeof a, to?: typeof a) =>
    from && to ? hypot((from.u - to.u) * fullWidth, (from.v - to.v) * fullHeight) : Infinity;
  const across = long(a, b) / (body.right - body.left);
  const down = (long(b, c) / (body.bottom - body.top)) * (width / height);
  const sizes = servedSizes({ width, height });
  const size = sizes.find((one) => one.width >= Math.max(across, down)) ?? sizes.at(-1)!;
  return wholeRegion(size.width, size.height);
}

/** A spot on a placed picture's own scene. */
export const ownSpot = (at: Spot, placed: Placed): Spot => ofOther(at, at.memo(ownScene, placed));

/** The darkest and lightest of a picture: of a plate its land's, of what is cut out of its own accord that alone. */
export const ends = stage({
  name: 'tonal ends',
  part: 'the placed pictures',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at, { land, alpha }: { land: boolean; alpha?: string }) => ({
    plate: plate(at),
    survey: land ? survey(at) : undefined,
    alpha: alpha === undefined ? undefined : brushed(at, alpha),
  }),
  planes: () => ({ black: 3, white: 3 }),
  pace: 'heavy',
  whole: true,
  run(out, { plate: seen, survey: told, alpha }) {
    const sky = told && lineCoverage(seen, surveyIn(told).sky).map((share) => 1 - share);
    const found = tonalEnds(seen, sky ?? (alpha && spread(alpha, seen.region))) ?? tonalEnds(seen) ?? NO_ENDS;
    out.black.set(found.black);
    out.white.set(found.white);
  },
});

const NO_ENDS: TonalEnds = { black: [0, 0, 0], white: [1, 1, 1] };

export const endsIn = ({ black, white }: View<'black' | 'white'>): TonalEnds => ({
  black: [black[0], black[1], black[2]],
  white: [white[0], white[1], white[2]],
});

/** A grey picture over a region. */
function spread({ data, facts }: View<'data', { width: number; height: number }>, region: Region) {
  const out = new Float32Array(region.width * region.height);
  bilinearOver(out, { ...facts, data }, region);
  return out;
}

/** What is there of a placed picture, on a copy of it. `footing`: the width of its foot, a share of its body's. */
export const cutout = stage({
  name: 'cutout',
  part: 'the placed pictures',
  settings: (_, { body, blur }: CutoutParams) => ({ body, blur }),
  inputs: (at, { alpha, cut }) => ({
    plate: plate(at),
    alpha: alpha === undefined ? undefined : brushed(at, alpha),
    cut: cut ? matte(at, CUT) : undefined,
  }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels, coverage: pixels, footing: 1 }),
  pace: 'heavy',
  whole: true,
  run(out, { plate: seen, alpha, cut }, { prepared: { body, blur } }) {
    for (const c of ['r', 'g', 'b'] as const) out[c].set(seen[c]);
    const own = alpha && spread(alpha, out.region);
    for (let i = 0; i < out.coverage.length; i++)
      out.coverage[i] = (own ? own[i] : 1) * (cut ? cut.coverage[i] : 1);
    out.footing[0] = footWidth(out.coverage, out.width, out.height, body);
    if (blur > 0) blurCutout(out, blur);
  },
});

type CutoutParams = Pick<Placed, 'alpha' | 'body'> & { cut: boolean; blur: number };

/** The cutout of a placed picture for a spot. */
export function cutoutAt(at: Spot, placed: Placed) {
  const { alpha, body, cut, soft, tall } = placed;
  const region = copyRegion(at, placed);
  // Its blur is a share of the plate's width, and so of as many of its own pixels as span it there.
  const card = cardAt(at, placed);
  const perMetre = region.fullHeight / (tall / (body.bottom - body.top));
  const metres = card.foot[1] / cameraOf(at.scene).focal;
  const blur = soft * metres * perMetre;
  return cutout({ ...ownSpot(at, placed), region }, { alpha, body, cut: cut !== undefined, blur });
}
