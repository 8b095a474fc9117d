import type { Camera } from '@/core/plan/camera';
import { RELIEF_PLANES } from '@/core/plan/relief';
import { standsAhead, wallPieces } from '@/core/plan/surfaces';
import { wholeRegion } from '@/core/plane/region';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { matteOf, reliefKey } from './node-keys';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type { OccluderRefs, PlaneRef, ReliefRefs } from './task';

/** Nodes that follow from the ground plan: the relief of a region, and what casts shadows. */
export function createReliefNodes(
  { store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
  { matteNode }: MatteNodes,
) {
  /** The standees of a request's ground plan with their coverage of its region. */
  async function standeesOf(request: FrameRequest, camera: Camera, signal: AbortSignal) {
    const standees: { ahead: number; coverage: PlaneRef }[] = [];
    for (const standee of request.scene.plan.standees) {
      const coverage = await matteNode(request, matteOf(request.scene, standee.matte), signal);
      standees.push({ ahead: standsAhead(camera, standee), coverage });
    }
    return standees;
  }

  const reliefNode = (request: FrameRequest, camera: Camera, signal: AbortSignal) =>
    store.node<ReliefRefs>(reliefKey(request), async () => {
      const { scene, region } = request;
      const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
      const survey = (await surveyNode(request, signal)).refs;
      const { walls, decks } = scene.plan;
      const standees = await standeesOf(request, camera, signal);
      const surfaces = { walls: wallPieces(camera, walls), decks, standees };
      const count = region.width * region.height;
      const sizes = Object.fromEntries(RELIEF_PLANES.map((name) => [name, count])) as ReliefRefs;
      const size = surveySize(scene.plate);
      const task = { type: 'relief', plate, survey, surveySize: size, camera, surfaces, region } as const;
      return planes(sizes, signal, (out) => inBands(region, signal, (rows) => ({ ...task, rows, out })));
    });

  async function occludersOf(
    request: FrameRequest,
    camera: Camera,
    signal: AbortSignal,
  ): Promise<OccluderRefs> {
    const { width, height } = surveySize(request.scene.plate);
    const small = { ...request, region: wholeRegion(width, height) };
    const standees = await standeesOf(small, camera, signal);
    return {
      walls: wallPieces(camera, request.scene.plan.walls),
      standees: standees.map(({ ahead, coverage }) => ({
        ahead,
        coverage: { width, height, data: coverage },
      })),
    };
  }

  return { reliefNode, occludersOf };
}

export type ReliefNodes = ReturnType<typeof createReliefNodes>;
