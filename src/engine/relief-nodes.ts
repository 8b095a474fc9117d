import type { Camera } from '@/core/plan/camera';
import { RELIEF_PLANES } from '@/core/plan/relief';
import { levelPieces, standsAhead } from '@/core/plan/surfaces';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wholeRegion } from '@/core/plane/region';
import type { GroundPlan, Matte } from '@/core/scene/schema';
import { boundsOf, type Bounds } from '@/core/spill/occlusion';
import { SOFT_LEVELS } from '@/core/spill/soft-coverage';
import { allOf } from './all-of';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { matteKey, matteOf, reliefKey } from './node-keys';
import { createViews } from './perform/memory-views';
import type { PlateNodes } from './plate-nodes';
import { creaseSize, surveySize } from './sizes';
import type {
  OccluderRefs,
  PlaneRef,
  ReliefRefs,
  SeenCoverageRefs,
  SurfaceRefs,
  TiltPicture,
  TiltRefs,
} from './task';

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
    const { asset } = scene.plate;
    const { width, height } = creaseSize(scene.plate);
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
  const standeesOf = (request: FrameRequest, camera: Camera, signal: AbortSignal) => {
    const { standees, decks } = request.scene.plan;
    return allOf(
      standees.map(async (standee): Promise<SurfaceRefs['standees'][number]> => {
        const { roundness, crease, sheen, roughness } = standee;
        const matte = matteOf(request.scene, standee.matte);
        const [coverage, round] = await allOf([
          matteNode(request, matte, signal),
          roundness > 0 ? roundNode(request, matte, signal) : undefined,
        ]);
        const form = { roundness, creased: crease, sheen, roughness, round };
        return { ahead: standsAhead(camera, standee, decks), coverage, ...form };
      }),
    );
  };

  /** Something of each matte at which walls end, by its id. */
  async function endsOf<T>(
    walls: GroundPlan['walls'],
    of: (matte: string) => Promise<T>,
  ): Promise<Record<string, T>> {
    const ids = [...new Set(walls.flatMap(({ until }) => until ?? []))];
    return Object.fromEntries(await allOf(ids.map(async (id) => [id, await of(id)] as const)));
  }

  const reliefNode = (request: FrameRequest, camera: Camera, signal: AbortSignal) =>
    store.node<ReliefRefs>(reliefKey(request), async () => {
      const { scene, region } = request;
      const { ground, walls, decks, standees: drawn } = scene.plan;
      const coverageBy = (id: string) => matteNode(request, matteOf(scene, id), signal);
      const isFolded = [ground, ...walls, ...decks, ...drawn].some(({ crease }) => crease > 0);
      const [{ refs: plate }, { refs: survey }, standees, ends, wet, folds] = await allOf([
        plateNode(scene.plate.asset, region, signal),
        surveyNode(request, signal),
        standeesOf(request, camera, signal),
        endsOf(walls, coverageBy),
        ground.wet === undefined ? undefined : coverageBy(ground.wet),
        isFolded ? creaseNode(request, signal) : undefined,
      ] as const);
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
    const [standees, ends] = await allOf([
      allOf(
        plan.standees.map(async (standee) => ({
          ahead: standsAhead(camera, standee, plan.decks),
          ...(await seen(standee.matte)),
        })),
      ),
      endsOf(plan.walls, seen),
    ] as const);
    const decks = levelPieces(camera, plan.decks).filter(({ height }) => height > 0);
    return { walls: wallPieces(camera, plan.walls), decks, standees, ends };
  }

  return { reliefNode, occludersOf };
}

export type ReliefNodes = ReturnType<typeof createReliefNodes>;
