import { stopsTooBright } from '@/core/night/stops-too-bright';
import { mixPicture } from '@/core/picture/mix-picture';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { evened } from './even';
import { layerWants, litLayers } from './grip';
import { relief } from './relief';
import { landing, sumSettings, sumWeights } from './sum';
import { survey } from './survey';

/** One float: by how many stops what burns lights the land too brightly for the night's exposure, on the small copy. */
export const tooBright = stage({
  name: 'too bright',
  part: 'the light of the fixtures',
  region: (at) => smallOf(at).region,
  settings: sumSettings,
  inputs: (at) => ({
    ...{ plate: evened(at), relief: relief(at), survey: survey(at) },
    layers: litLayers(at).map((layer) => layerWants(at, layer)),
  }),
  prepare: ({ settings, inputs }) => sumWeights(settings, inputs.survey),
  planes: () => ({ stops: 1 }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, inputs, { prepared: weights }) {
    const { plate, relief: seen } = inputs;
    const { width, height, distance, land } = seen;
    const plane = () => new Float32Array(width * height);
    const light = { width, height, r: plane(), g: plane(), b: plane() };
    const dark = { ...weights, ambient: 0, sky: 0, mist: { color: [0, 0, 0] as const, perMetre: 0 } };
    const layers = weights.layers.map((layer) => ({ ...layer, source: [0, 0, 0] as const }));
    const base = { plate, night: plate, distance, land };
    mixPicture(light, base, inputs.layers.map(landing), { ...dark, layers }, { from: 0, to: height });
    out.stops[0] = stopsTooBright(light, land);
  },
});
