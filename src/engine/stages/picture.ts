import { showCoverage } from '@/core/matte/show-coverage';
import { createDisplayCodes } from '@/core/film/display-codes';
import { developLight } from '@/core/film/develop-light';
import { mixPicture } from '@/core/picture/mix-picture';
import { pictureWeights } from '@/core/picture/weights';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { evened } from './even';
import { layerWants, litLayers } from './grip';
import { ifAny } from './direct';
import type { LayerView } from './lamps';
import { matte } from './matte';
import { night } from './night';
import { relief } from './relief';
import { survey } from './survey';

/** A layer with its spill as it lands. */
export const landing = ({ light, gripped }: { light: LayerView; gripped?: View<'spill'> }) => ({
  spill: gripped?.spill ?? light.spill,
  air: light.air,
  shine: ifAny(light.shine),
  source: light.source,
  sourceRows: light.facts.sourceRows,
});

/** The sum of all light, scene-linear: what the film is exposed to. */
export const sum = stage({
  name: 'sum',
  part: 'the light of the fixtures',
  settings: (at) => ({
    ...{ night: at.scene.night, desk: at.scene.desk, circuits: at.scene.circuits },
    lit: litLayers(at).map((layer) => ({ ...layer, fixtures: [] })),
  }),
  inputs: (at) => ({
    ...{ plate: evened(at), night: night(at), relief: relief(at), survey: survey(at) },
    layers: litLayers(at).map((layer) => layerWants(at, layer)),
  }),
  prepare: ({ settings, inputs }) => pictureWeights(settings, settings.lit, inputs.survey.medianLuminance[0]),
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

/** The sum, developed: RGBA codes of 8 bits, one float's room a pixel. */
export const film = stage({
  name: 'film',
  part: 'the night',
  settings: () => undefined,
  inputs: (at) => ({ light: sum(at) }),
  planes: (pixels) => ({ rgba: pixels }),
  pace: 'quick',
  passing: true,
  kit: () => createDisplayCodes(255),
  run(out, { light }, { kit: codes, kernels }, { first, count, of }) {
    if (kernels) kernels.develop(out.rgba, light, first, count);
    else developLight(codesIn(of(out)), of(light), codes);
  },
});

/** A picture with a matte shown over it. */
export const shown = stage({
  name: 'shown',
  part: 'the mattes',
  settings: ({ show }) => show!.view,
  inputs: (at) => ({ picture: film(at), matte: matte(at, at.show!.matte) }),
  planes: (pixels) => ({ rgba: pixels }),
  pace: 'quick',
  passing: true,
  run(out, inputs, { settings: view }, { of, cut }) {
    const codes = codesIn(of(out));
    codes.set(codesIn(of(inputs.picture)));
    showCoverage(codes, cut(inputs.matte.coverage), view);
  },
});

/** The codes of a picture, RGBA. */
export const codesIn = ({ rgba }: View<'rgba'>): Uint8ClampedArray =>
  new Uint8ClampedArray(rgba.buffer, rgba.byteOffset, rgba.byteLength);

/** The finished picture of a spot. */
export const picture = (at: Spot) => (at.show ? shown(at) : film(at));
