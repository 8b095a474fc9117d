import { cameraOf } from '@/core/picture/camera-of';
import { BEYOND } from '@/core/relief/beyond-picture';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import { wholeRegion } from '@/core/plane/region';
import { BOUNCE_STRIDE, bounceLights, gatherBounce } from '@/core/light/bounce';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { beyond } from './beyond';
import { direct, directBeyond, type Lamps } from './direct';
import { plate } from './plate';
import { landOf } from './land';
import { relief } from './relief';
import type { Size } from '../sizes';
import { survey } from './survey';

/** How finely light that surfaces give on is found: every so many pixels of the small copy, from so many blocks of it and of what lies beyond. */
const BOUNCE = { every: 4, blocks: { columns: 20, rows: 13 }, beyond: { columns: 16, rows: 14 } } as const;
const MOST_LIGHTS = [BOUNCE.blocks, BOUNCE.beyond].reduce(
  (sum, { columns, rows }) => sum + columns * rows,
  0,
);

/** What the surfaces that lamps light give on, illuminance in lux of the whole plate. */
export const bounce = stage({
  name: 'bounce',
  part: 'the light of the fixtures',
  region(at) {
    const { width, height } = smallOf(at).region;
    return wholeRegion(Math.ceil(width / BOUNCE.every), Math.ceil(height / BOUNCE.every));
  },
  settings: landOf,
  inputs(at, lamps: Lamps) {
    const small = smallOf(at);
    return {
      relief: relief(small),
      plate: plate(small),
      survey: survey(small),
      direct: direct(small, lamps),
      beyond: beyond(small),
      directBeyond: directBeyond(small, lamps),
    };
  },
  planes: (pixels) => ({ spill: pixels }),
  pace: 'heavy',
  whole: true,
  run(out, inputs, { prepared: settings }) {
    const camera = cameraOf(settings);
    const [medianLuminance] = inputs.survey.medianLuminance;
    const lights = new Float32Array(BOUNCE_STRIDE * MOST_LIGHTS);
    const { relief: land, plate: small, direct: lit } = inputs;
    const surfaces = [
      { region: land.region, relief: land, plate: small, spill: lit.spill, blocks: BOUNCE.blocks },
      {
        ...{ region: BEYOND, relief: inputs.beyond, spill: inputs.directBeyond.spill },
        blocks: BOUNCE.beyond,
      },
    ];
    const used = bounceLights(lights, surfaces, camera, medianLuminance, lit.facts.flux);
    gatherBounce(out.spill, lights, used, thinned(land, out), camera, out.region);
  },
});

/** A relief at every so many pixels: what is lit is looked at in the middle of each square of them. */
function thinned(land: Relief & Size, { width, height }: Size): Relief {
  const middle = (cell: number, side: number) =>
    Math.min(side - 1, cell * BOUNCE.every + (BOUNCE.every >> 1));
  const at = Int32Array.from(
    { length: width * height },
    (_, i) => middle(Math.floor(i / width), land.height) * land.width + middle(i % width, land.width),
  );
  return Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, Float32Array.from(at, (from) => land[name][from])]),
  ) as unknown as Relief;
}
