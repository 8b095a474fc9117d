import { mixPicture } from '@/core/picture/mix-picture';
import { nightGains, pictureWeights } from '@/core/picture/weights';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { evened } from './even';
import { layerWants, litLayers, weighing } from './grip';
import { ifAny } from './direct';
import type { LayerView } from './lamps';
import { LENS_DOWN } from './lens-down';
import { relief } from './relief';
import { hasSky } from './skyline';
import { survey } from './survey';
import { nightLight } from './touch';

/** A layer with its spill as it lands. */
export const landing = ({ light, gripped }: { light: LayerView; gripped?: View<'spill'> }) => ({
  spill: gripped?.spill ?? light.spill,
  air: ifAny(light.air),
  shine: ifAny(light.shine),
  source: light.source,
  sourceRows: light.facts.sourceRows,
});

/** What a sum of light depends on beside its inputs. */
export const sumSettings = (at: Spot) => ({
  ...{ night: at.scene.night, desk: { ...at.scene.desk, ...LENS_DOWN }, circuits: at.scene.circuits },
  skied: hasSky(at),
  lit: weighing(litLayers(at)),
});

/** What is summed. */
export const sumInputs = (at: Spot) => ({
  ...{ plate: evened(at), night: nightLight(at), relief: relief(at), survey: survey(at) },
  layers: litLayers(at).map((layer) => layerWants(at, layer)),
});

/** How it is weighed. */
export function sumWeights(settings: ReturnType<typeof sumSettings>, told: View<'medianLuminance'>) {
  const weights = pictureWeights(settings, settings.lit, told.medianLuminance[0]);
  return { ...weights, ...nightGains(weights, settings.skied) };
}

/** The sum of all light, scene-linear: what the film is exposed to. */
export const sum = stage({
  name: 'sum',
  part: 'the light of the fixtures',
  settings: sumSettings,
  inputs: sumInputs,
  prepare: ({ settings, inputs }) => sumWeights(settings, inputs.survey),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  passing: true,
  run(out, inputs, { prepared: weights, kernels }, { rows }) {
    const { distance, land } = inputs.relief;
    const base = { plate: inputs.plate, night: inputs.night, distance, land };
    const layers = inputs.layers.map(landing);
    if (kernels) kernels.mixRows(out, base, layers, weights, rows);
    else mixPicture(out, base, layers, weights, rows);
  },
});
