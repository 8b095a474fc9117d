import { wholeRegion, type Region } from '@/core/plane/region';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import { plateKey, surveyHorizon, surveyKey } from './node-keys';
import { surveySize } from './sizes';
import type { PlateRefs, SurveyRefs } from './task';

/** Nodes that follow from the plate and the horizon: the plate itself, and its survey. */
export function createPlateNodes({ arena, pool, store, assets, inBands, planes }: Graph) {
  const plateNode = (asset: string, region: Region, signal: AbortSignal) =>
    store.node<PlateRefs>(plateKey(asset, region), async () => {
      const codes = await assets.codes(asset, region, signal);
      const held = store.allocate(2 * codes.length);
      try {
        new Uint16Array(arena.memory.buffer, held.offset, codes.length).set(codes);
        const count = region.width * region.height;
        return await planes({ r: count, g: count, b: count }, signal, (out) =>
          inBands(region, signal, (rows) => ({ type: 'plate', codes: held.offset, region, rows, out })),
        );
      } finally {
        arena.release(held);
      }
    });

  const surveyNode = (request: FrameRequest, signal: AbortSignal) =>
    store.node<SurveyRefs>(surveyKey(request), async () => {
      const { scene } = request;
      const size = surveySize(scene.plate);
      const plate = (await plateNode(scene.plate.asset, wholeRegion(size.width, size.height), signal)).refs;
      const count = size.width * size.height;
      const sizes = {
        groundSlope: count,
        groundOffset: count,
        skySlope: count,
        skyOffset: count,
        feet: count,
        middle: 1,
      };
      return planes(sizes, signal, (out) =>
        pool.run({ type: 'survey', plate, ...size, horizon: surveyHorizon(request), out }, signal),
      );
    });

  return { plateNode, surveyNode };
}

export type PlateNodes = ReturnType<typeof createPlateNodes>;
