import { regionKey, wholeRegion } from '@/core/plane/region';
import { allOf } from './all-of';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { evenKey, matteKey, matteOf, plateKey, shadingKey, surveyKey } from './node-keys';
import type { Node } from './node-store';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type { LineRefs, PlaneRef, PlateRefs } from './task';

/** Nodes of the plate as lamps and ambient light find it: without the day's shading and the sun's own shadows. */
export function createEvenNodes(
  { pool, store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
  { matteNode }: MatteNodes,
) {
  async function evenNode(request: FrameRequest, signal: AbortSignal): Promise<Node<PlateRefs>> {
    const { sunShadow } = request.scene.plan;
    if (!sunShadow?.lift) return levelNode(request, signal);
    const { region, scene } = request;
    return store.node<PlateRefs>(
      evenKey(request),
      async () => {
        const size = surveySize(scene.plate);
        const [level, { refs: gains }, coverage] = await allOf([
          levelNode(request, signal),
          gainsNode(request, sunShadow.matte, signal),
          matteNode(request, matteOf(scene, sunShadow.matte), signal),
        ] as const);
        const count = region.width * region.height;
        const task = { type: 'lift', plate: level.refs, coverage, gains, gainsSize: size, region } as const;
        return planes({ r: count, g: count, b: count }, signal, (out) =>
          inBands(region, signal, (rows) => ({ ...task, amount: sunShadow.lift, rows, out })),
        );
      },
      `lift ${regionKey(region)}`,
    );
  }

  /** How much brighter it is beside a shadow than within. */
  const gainsNode = (request: FrameRequest, id: string, signal: AbortSignal) => {
    const { scene } = request;
    const { width, height } = surveySize(scene.plate);
    const small = { ...request, region: wholeRegion(width, height) };
    const matte = matteOf(scene, id);
    return store.node<PlateRefs>(
      `gains ${matteKey(small, matte)}`,
      async () => {
        const [{ refs: survey }, { refs: plate }, coverage] = await allOf([
          surveyNode(request, signal),
          plateNode(scene.plate.asset, small.region, signal),
          matteNode(small, matte, signal),
        ] as const);
        const count = width * height;
        return planes({ r: count, g: count, b: count }, signal, (out) =>
          pool.run({ type: 'shadowGains', plate, survey, coverage, width, height, out }, signal),
        );
      },
      'gains',
    );
  };

  /** The plate with the day's shading taken out. */
  async function levelNode(request: FrameRequest, signal: AbortSignal): Promise<Node<PlateRefs>> {
    const { scene, region } = request;
    const amount = scene.night.evenOut;
    const own = await plateNode(scene.plate.asset, region, signal);
    if (amount === 0) return own;
    return store.node<PlateRefs>(
      `even ${amount} ${surveyKey(request)} ${plateKey(scene.plate.asset, region)}`,
      async () => {
        const { shift } = (await levellingNode(request, signal)).refs;
        const count = region.width * region.height;
        const task = { type: 'even', plate: own.refs, shift, amount, region } as const;
        return planes({ r: count, g: count, b: count }, signal, (out) =>
          inBands(region, signal, (rows) => ({ ...task, rows, out }), 'quick'),
        );
      },
      `even ${regionKey(region)}`,
    );
  }

  /** How far each place would move to be level. */
  const levellingNode = (request: FrameRequest, signal: AbortSignal) => {
    const { scene, region } = request;
    return store.node<{ shift: PlaneRef }>(
      `levelling ${surveyKey(request)} ${plateKey(scene.plate.asset, region)}`,
      async () => {
        const [{ refs: plate }, { refs: survey }, { refs: shading }] = await allOf([
          plateNode(scene.plate.asset, region, signal),
          surveyNode(request, signal),
          shadingNode(request, signal),
        ] as const);
        const size = surveySize(scene.plate);
        const task = { type: 'levelling', plate, survey, shading, surveySize: size, region } as const;
        return planes({ shift: region.width * region.height }, signal, ({ shift: out }) =>
          inBands(region, signal, (rows) => ({ ...task, rows, out })),
        );
      },
      `levelling ${regionKey(region)}`,
    );
  };

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

  return { evenNode };
}

export type EvenNodes = ReturnType<typeof createEvenNodes>;
