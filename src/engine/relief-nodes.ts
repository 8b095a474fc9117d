import type { Camera } from '@/core/plan/camera';
import { RELIEF_PLANES } from '@/core/plan/relief';
import { levelPieces, standsAhead, wallPieces } from '@/core/plan/surfaces';
import { wholeRegion } from '@/core/plane/region';
import { boundsOf, type Bounds } from '@/core/spill/occlusion';
import { SOFT_LEVELS } from '@/core/spill/soft-coverage';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { matteKey, matteOf, reliefKey } from './node-keys';
import { createViews } from './perform/memory-views';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type { OccluderRefs, PlaneRef, ReliefRefs } from './task';

/** Nodes that follow from the ground plan: the relief of a region, and what casts shadows. */
export function createReliefNodes(
  { arena, pool, store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
  { matteNode }: MatteNodes,
) {
  const views = createViews(arena.memory);

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

  /** A matte's coverage on the small copy, blurred to every width that a shadow's edge may have. */
  const softNode = (request: FrameRequest, id: string, signal: AbortSignal) => {
    const matte = matteOf(request.scene, id);
    return store.node<{ levels: PlaneRef; bounds: Bounds }>(`soft ${matteKey(request, matte)}`, async () => {
      const { width, height } = request.region;
      const coverage = await matteNode(request, matte, signal);
      const { blocks, refs } = await planes({ levels: SOFT_LEVELS * width * height }, signal, (out) =>
        pool.run({ type: 'prefilter', coverage, width, height, out: out.levels }, signal),
      );
      const bounds = boundsOf(views.floats(coverage, width * height), width, height);
      return { blocks, refs: { ...refs, bounds } };
    });
  };

  async function occludersOf(
    request: FrameRequest,
    camera: Camera,
    signal: AbortSignal,
  ): Promise<OccluderRefs> {
    const { plan, plate } = request.scene;
    const { width, height } = surveySize(plate);
    const small = { ...request, region: wholeRegion(width, height) };
    const standees: OccluderRefs['standees'] = [];
    for (const standee of plan.standees) {
      const { levels, bounds } = (await softNode(small, standee.matte, signal)).refs;
      standees.push({ ahead: standsAhead(camera, standee), width, height, levels, bounds });
    }
    return {
      walls: wallPieces(camera, plan.walls),
      decks: levelPieces(camera, plan.decks).filter(({ height: above }) => above > 0),
      standees,
    };
  }

  return { reliefNode, occludersOf };
}

export type ReliefNodes = ReturnType<typeof createReliefNodes>;
