import { cameraOf } from '@/core/picture/camera-of';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import { wholeRegion } from '@/core/plane/region';
import { BOUNCE_STRIDE, bounceLights, gatherBounce } from '@/core/light/bounce';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { direct, type Lamps } from './direct';
import { plate } from './plate';
import { landOf } from './land';
import { relief } from './relief';
import type { Size } from '../sizes';
import { survey } from './survey';

/** How finely light that surfaces give on is found: every so many pixels of the small copy, from so many blocks of it. */
const BOUNCE = { every: 4, blocks: { columns: 20, rows: 13 } } as const;

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
    };
  },
  planes: (pixels) => ({ spill: pixels }),
  pace: 'heavy',
  whole: true,
  run(out, inputs, { prepared: settings }) {
    const { columns, rows } = BOUNCE.blocks;
    const camera = cameraOf(settings);
    const [medianLuminance] = inputs.survey.medianLuminance;
    const lights = new Float32Array(BOUNCE_STRIDE * columns * rows);
    const { relief: land, plate: small } = inputs;
    const used = bounceLights(
      lights,
      land,
      small,
      inputs.direct.spill,
      camera,
      medianLuminance,
      inputs.direct.facts.flux,
      columns,
      rows,
    );
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
