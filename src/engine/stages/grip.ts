import { variedPane } from '@/core/fixture/varied-panes';
import { applyGrip, isPlainGrip } from '@/core/picture/grip';
import { burns, layersOf, type Layer } from '@/core/picture/layers';
import type { Fixture } from '@/core/scene/schema';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import type { Want } from '../graph/stage-spec';
import { lampLight } from './masked';
import type { LayerView } from './lamps';
import { seenPlate } from './placed';
import { touches } from './touch';

/** The light of a layer: of lamps, or laid on by hand. */
export const layerLight = (at: Spot, layer: Layer): Want<LayerView> =>
  layer.touches ? touches(at, layer.touches) : lampLight(at, layer);

/** A layer's spill as what lies beneath takes it. */
export const grip = stage({
  name: 'grip',
  part: 'the light of the fixtures',
  settings: (_, { circuit }: Layer) => circuit.grip,
  inputs: (at, layer) => ({ light: layerLight(at, layer), plate: seenPlate(at) }),
  planes: (pixels) => ({ spill: pixels }),
  pace: 'quick',
  newest: ({ circuit, gel, touches: laid }) =>
    `${circuit.id} ${JSON.stringify(gel)}${laid ? ' by hand' : ''}`,
  run(out, inputs, { prepared: settings }, { of, cut }) {
    applyGrip(cut(out.spill), cut(inputs.light.spill), of(inputs.plate), settings);
  },
});

/** A layer's light, and its spill where not all that lies beneath takes all of it. */
export interface LayerWants extends Record<string, Want | undefined> {
  light: Want<LayerView>;
  gripped: Want<View<'spill'>> | undefined;
}

export const layerWants = (at: Spot, layer: Layer): LayerWants => ({
  light: layerLight(at, layer),
  gripped: isPlainGrip(layer.circuit.grip) ? undefined : grip(at, layer),
});

/** Lists of fixtures by their ids, for one list of a scene's fixtures. */
const listsOf = (_fixtures: readonly Fixture[]) => new Map<string, Fixture[]>();

/** Layers as far as they weigh light: whatever they hold, only their circuits and gels count. */
export const weighing = (layers: readonly Layer[]): Layer[] =>
  layers.map(({ circuit, gel, moon }) => ({ circuit, gel, moon, fixtures: [] }));

/** The layers of a scene that burn. Fixtures that stay the same come in the same lists, so that they are told apart once. */
export function litLayers({ scene, memo }: Pick<Spot, 'scene' | 'memo'>): Layer[] {
  const lists = memo(listsOf, scene.fixtures);
  const kept = (fixtures: Fixture[]) => {
    const name = fixtures.map(({ id }) => id).join(' ');
    const known = lists.get(name);
    if (known) return known;
    lists.set(name, fixtures);
    return fixtures;
  };
  return layersOf(scene, (fixture) => memo(variedPane, fixture))
    .filter(({ circuit }) => burns(circuit, scene))
    .map((layer) => ({ ...layer, fixtures: kept(layer.fixtures) }));
}
