import { globeBounds } from '@/core/fixture/add-globe-source';
import { globeLight, globeLuminance } from '@/core/fixture/globe-light';
import { placeFixture } from '@/core/fixture/place-fixture';
import type { Camera } from '@/core/plan/camera';
import type { Fixture } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import { layerKey } from './node-keys';
import type { Node } from './node-store';
import type { PlateNodes } from './plate-nodes';
import type { LayerRefs } from './task';
import { unionRows } from './union-rows';

/** Nodes of what lamps do: one a layer. */
export function createLayerNodes({ store, inBands, planes }: Graph, { reliefNode }: PlateNodes) {
  async function layerNode(
    request: FrameRequest,
    camera: Camera,
    fixtures: Fixture[],
    signal: AbortSignal,
  ): Promise<Node<LayerRefs>> {
    const { region, moving } = request;
    return store.node<LayerRefs>(layerKey(request, fixtures), async () => {
      const relief = (await reliefNode(request, camera, signal)).refs;
      const still = fixtures.filter(({ id }) => id !== moving);
      const split = still.length > 0 && still.length < fixtures.length;
      const base = split ? (await layerNode(request, camera, still, signal)).refs : undefined;
      const lamps = fixtures.map((fixture) => {
        const hung = placeFixture(camera, fixture);
        const { at, size, heart, halo } = fixture;
        const luminance = globeLuminance(fixture, hung.radius);
        return { fixture, light: globeLight(fixture, hung), source: { at, size, heart, halo, luminance } };
      });
      const sourceRows = unionRows(
        lamps.map(({ source }) => globeBounds(source, region)),
        region,
      );
      const count = region.width * region.height;
      const sizes = { spill: count, air: count, source: region.width * (sourceRows.to - sourceRows.from) };
      let out: LayerRefs | undefined;
      const node = await planes(sizes, signal, (refs) => {
        const target = { ...refs, sourceRows };
        out = target;
        const fresh = base ? lamps.filter(({ fixture }) => fixture.id === moving) : lamps;
        const lights = fresh.map(({ light }) => light);
        const sources = lamps.map(({ source }) => source);
        return inBands(region, signal, (rows) => ({
          type: 'layer',
          relief,
          camera,
          region,
          rows,
          base,
          lights,
          sources,
          out: target,
        }));
      });
      return { blocks: node.blocks, refs: out! };
    });
  }

  return { layerNode };
}
