import { regionKey, wholeRegion, type Region } from '@/core/plane/region';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import { evenKey, plateKey, shadingKey, surveyHorizon, surveyKey } from './node-keys';
import type { Node } from './node-store';
import { surveySize } from './sizes';
import type { PlateRefs, LineRefs, SurveyRefs } from './task';

/** Nodes that follow from the plate and the horizon: the plate itself, its survey, the plate without the day's shading. */
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

  /** The plate as lamps and ambient light find it: with the day's shading taken out. */
  async function evenNode(request: FrameRequest, signal: AbortSignal): Promise<Node<PlateRefs>> {
    const { scene, region } = request;
    const amount = scene.night.evenOut;
    const own = await plateNode(scene.plate.asset, region, signal);
    if (amount === 0) return own;
    return store.node<PlateRefs>(
      evenKey(request),
      async () => {
        const size = surveySize(scene.plate);
        const survey = (await surveyNode(request, signal)).refs;
        const shading = (await shadingNode(request, signal)).refs;
        const count = region.width * region.height;
        return planes({ r: count, g: count, b: count }, signal, (out) =>
          inBands(region, signal, (rows) => ({
            type: 'even',
            plate: own.refs,
            survey,
            shading,
            surveySize: size,
            amount,
            region,
            rows,
            out,
          })),
        );
      },
      `even ${regionKey(region)}`,
    );
  }

  const shadingNode = (request: FrameRequest, signal: AbortSignal) =>
    store.node<LineRefs>(shadingKey(request), async () => {
      const { asset } = request.scene.plate;
      const size = surveySize(request.scene.plate);
      const plate = (await plateNode(asset, wholeRegion(size.width, size.height), signal)).refs;
      const count = size.width * size.height;
      return planes({ slope: count, offset: count }, signal, (out) =>
        pool.run({ type: 'shading', plate, ...size, out }, signal),
      );
    });

  return { plateNode, surveyNode, evenNode };
}

export type PlateNodes = ReturnType<typeof createPlateNodes>;
