import type { FoundPass } from '@/core/matte/pass';
import { regionKey, wholeRegion } from '@/core/plane/region';
import type { Matte } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import { matteKey } from './node-keys';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type { FoundRefs, LineRefs, PlaneRef } from './task';

/** Nodes of mattes: coverage of a region, and what is looked for on the small copy. */
export function createMatteNodes(
  { pool, store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
) {
  async function findNode(request: FrameRequest, pass: FoundPass, signal: AbortSignal): Promise<LineRefs> {
    const { asset } = request.scene.plate;
    const size = surveySize(request.scene.plate);
    const key = `find ${asset} ${JSON.stringify({ ...pass, join: undefined })}`;
    const node = await store.node<LineRefs>(
      key,
      async () => {
        const plate = (await plateNode(asset, wholeRegion(size.width, size.height), signal)).refs;
        const count = size.width * size.height;
        return planes({ slope: count, offset: count }, signal, (out) =>
          pool.run({ type: 'find', plate, ...size, pass, out }, signal),
        );
      },
      `find ${pass.id}`,
    );
    return node.refs;
  }

  async function foundLines(
    request: FrameRequest,
    { passes }: Matte,
    signal: AbortSignal,
  ): Promise<FoundRefs> {
    const found: FoundRefs = {};
    for (const pass of passes) {
      if (pass.kind === 'area' || pass.kind === 'colour')
        found[pass.id] = await findNode(request, pass, signal);
      if (pass.kind !== 'sky') continue;
      const { skySlope, skyOffset } = (await surveyNode(request, signal)).refs;
      found[pass.id] = { slope: skySlope, offset: skyOffset };
    }
    return found;
  }

  /** A matte on the small copy, softened. */
  async function softNode(
    request: FrameRequest,
    matte: Matte,
    radius: number,
    signal: AbortSignal,
  ): Promise<PlaneRef> {
    const small = surveySize(request.scene.plate);
    const whole = { ...request, region: wholeRegion(small.width, small.height) };
    const node = await store.node<{ soft: PlaneRef }>(
      `soft ${matteKey(whole, matte)}`,
      async () => {
        const coverage = await matteNode(whole, { ...matte, feather: 0 }, signal);
        return planes({ soft: small.width * small.height }, signal, ({ soft: out }) =>
          pool.run({ type: 'feather', coverage, ...small, radius, out }, signal),
        );
      },
      `soft ${matte.id}`,
    );
    return node.refs.soft;
  }

  /** Coverage of a request's region by a matte. A feathered one is softened on the small copy and enlarged. */
  async function matteNode(request: FrameRequest, matte: Matte, signal: AbortSignal): Promise<PlaneRef> {
    const { region, scene } = request;
    const { passes, invert, feather } = matte;
    const size = surveySize(scene.plate);
    const radius = Math.round((feather * size.width) / 2);
    const node = await store.node<{ coverage: PlaneRef }>(
      matteKey(request, matte),
      async () => {
        const soft = radius > 0 ? await softNode(request, matte, radius, signal) : undefined;
        const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
        const found = soft === undefined ? await foundLines(request, matte, signal) : {};
        return planes({ coverage: region.width * region.height }, signal, ({ coverage: out }) =>
          inBands(region, signal, (rows) =>
            soft === undefined
              ? { type: 'matte', passes, invert, plate, found, foundSize: size, region, rows, out }
              : { type: 'enlarge', coverage: soft, size, region, rows, out },
          ),
        );
      },
      `matte ${matte.id} ${radius > 0} ${regionKey(region)}`,
    );
    return node.refs.coverage;
  }

  return { matteNode };
}

export type MatteNodes = ReturnType<typeof createMatteNodes>;
