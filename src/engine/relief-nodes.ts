import type { Camera } from '@/core/plan/camera';
import { RELIEF_PLANES } from '@/core/plan/relief';
import { levelPieces, standsAhead } from '@/core/plan/surfaces';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wholeRegion } from '@/core/plane/region';
import type { Matte } from '@/core/scene/schema';
import { boundsOf, type Bounds } from '@/core/spill/occlusion';
import { SOFT_LEVELS } from '@/core/spill/soft-coverage';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { matteKey, matteOf, reliefKey } from './node-keys';
import { createViews } from './perform/memory-views';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type {
  OccluderRefs,
  PlaneRef,
  ReliefRefs,
  SeenCoverageRefs,
  SurfaceRefs,
  TiltPicture,
  TiltRefs,
} from './task';

/** Width of the copy of a plate on which folds are looked for, pixels. */
const CREASE_WIDTH = 1200;

/** Nodes that follow from the ground plan: the relief of a region, and what casts shadows. */
export function createReliefNodes(
  { arena, pool, store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
  { matteNode }: MatteNodes,
) {
  const views = createViews(arena.memory);

  const smallOf = (request: FrameRequest): FrameRequest => {
    const { width, height } = surveySize(request.scene.plate);
    return { ...request, region: wholeRegion(width, height) };
  };

  /** How a standee bulges, found on the small copy. */
  async function roundNode(request: FrameRequest, matte: Matte, signal: AbortSignal): Promise<TiltPicture> {
    const small = smallOf(request);
    const { width, height } = small.region;
    const node = await store.node<TiltRefs>(`round ${matteKey(small, matte)}`, async () => {
      const coverage = await matteNode(small, matte, signal);
      const count = width * height;
      return planes({ right: count, up: count }, signal, (out) =>
        pool.run({ type: 'round', coverage, width, height, out }, signal),
      );
    });
    return { ...node.refs, width, height };
  }

  /** Folds by the plate's fine shading, found on one copy for every size of picture. */
  async function creaseNode({ scene }: FrameRequest, signal: AbortSignal): Promise<TiltPicture> {
    const { asset, ...size } = scene.plate;
    const width = Math.min(CREASE_WIDTH, size.width);
    const height = Math.max(1, Math.round((size.height * width) / size.width));
    const node = await store.node<TiltRefs>(`crease ${asset}`, async () => {
      const plate = (await plateNode(asset, wholeRegion(width, height), signal)).refs;
      const count = width * height;
      return planes({ right: count, up: count }, signal, (out) =>
        pool.run({ type: 'crease', plate, width, height, out }, signal),
      );
    });
    return { ...node.refs, width, height };
  }

  /** The standees of a request's ground plan with their coverage of its region, and their form. */
  async function standeesOf(request: FrameRequest, camera: Camera, signal: AbortSignal) {
    const standees: SurfaceRefs['standees'] = [];
    for (const standee of request.scene.plan.standees) {
      const { roundness, crease, sheen, roughness } = standee;
      const matte = matteOf(request.scene, standee.matte);
      standees.push({
        ahead: standsAhead(camera, standee),
        coverage: await matteNode(request, matte, signal),
        ...{ roundness, creased: crease, sheen, roughness },
        round: roundness > 0 ? await roundNode(request, matte, signal) : undefined,
      });
    }
    return standees;
  }

  /** Coverages by the mattes at which walls end. */
  async function endsOf(request: FrameRequest, signal: AbortSignal): Promise<Record<string, PlaneRef>> {
    const ends: Record<string, PlaneRef> = {};
    for (const { until } of request.scene.plan.walls) {
      if (until) ends[until] ??= await matteNode(request, matteOf(request.scene, until), signal);
    }
    return ends;
  }

  const reliefNode = (request: FrameRequest, camera: Camera, signal: AbortSignal) =>
    store.node<ReliefRefs>(reliefKey(request), async () => {
      const { scene, region } = request;
      const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
      const survey = (await surveyNode(request, signal)).refs;
      const { ground, walls, decks } = scene.plan;
      const standees = await standeesOf(request, camera, signal);
      const ends = await endsOf(request, signal);
      const wet =
        ground.wet === undefined ? undefined : await matteNode(request, matteOf(scene, ground.wet), signal);
      const isFolded = [ground, ...walls, ...decks, ...scene.plan.standees].some(({ crease }) => crease > 0);
      const folds = isFolded ? await creaseNode(request, signal) : undefined;
      const surfaces = { ground, wet, folds, walls: wallPieces(camera, walls), decks, standees, ends };
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
    const { plan } = request.scene;
    const small = smallOf(request);
    const seen = async (matte: string): Promise<SeenCoverageRefs> => ({
      width: small.region.width,
      height: small.region.height,
      ...(await softNode(small, matte, signal)).refs,
    });
    const standees: OccluderRefs['standees'] = [];
    for (const standee of plan.standees) {
      standees.push({ ahead: standsAhead(camera, standee), ...(await seen(standee.matte)) });
    }
    const ends: OccluderRefs['ends'] = {};
    for (const { until } of plan.walls) if (until) ends[until] ??= await seen(until);
    const decks = levelPieces(camera, plan.decks).filter(({ height }) => height > 0);
    return { walls: wallPieces(camera, plan.walls), decks, standees, ends };
  }

  return { reliefNode, occludersOf };
}

export type ReliefNodes = ReturnType<typeof createReliefNodes>;
