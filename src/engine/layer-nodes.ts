import { fixtureLights } from '@/core/fixture/fixture-lights';
import { sourceBounds } from '@/core/fixture/shapes';
import { visibleSources } from '@/core/fixture/visible-source';
import type { Camera } from '@/core/plan/camera';
import { wallPieces } from '@/core/plan/wall-pieces';
import { regionKey, wholeRegion } from '@/core/plane/region';
import { moonLight } from '@/core/night/moon-light';
import { isPlainGrip } from '@/core/picture/grip';
import type { Layer } from '@/core/picture/layers';
import type { Fixture, GroundPlan, Moon } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { holdKey, layerKey, matteOf, moonKey } from './node-keys';
import type { Node } from './node-store';
import { createViews } from './perform/memory-views';
import type { PlateNodes } from './plate-nodes';
import type { ReliefNodes } from './relief-nodes';
import { surveySize } from './sizes';
import type { HeldLayer, LayerRefs, PictureRef, PlaneRef, Rows } from './task';
import { unionRows } from './union-rows';

/** How finely light that surfaces give on is found: every so many pixels of the small copy, from so many blocks of it. */
const BOUNCE = { every: 4, blocks: { columns: 20, rows: 13 } } as const;

/** Whether any surface of a plan shines. */
const isShiny = ({ ground, walls, standees, decks }: GroundPlan) =>
  [ground, ...walls, ...standees, ...decks].some(({ sheen }) => sheen > 0);

/** A fixture that nothing holds back. */
const free = (fixture: Fixture): Fixture => ({ ...fixture, behind: undefined, only: undefined });

/** Nodes of what lamps do: one a layer. */
export function createLayerNodes(
  { arena, pool, store, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
  { matteNode }: MatteNodes,
  { reliefNode, occludersOf }: ReliefNodes,
) {
  const views = createViews(arena.memory);

  /** Makes a layer's planes; the visible lamps need only some rows. */
  async function layerPlanes(
    { region, scene }: FrameRequest,
    sourceRows: Rows,
    signal: AbortSignal,
    fill: (out: LayerRefs) => Promise<void>,
  ): Promise<Node<LayerRefs>> {
    const count = region.width * region.height;
    const source = region.width * (sourceRows.to - sourceRows.from);
    const shines = isShiny(scene.plan);
    const sizes = { spill: count, air: count, source, shine: shines ? count : 0 };
    const layer = (out: Record<keyof typeof sizes, PlaneRef>): LayerRefs => ({
      ...out,
      sourceRows,
      shine: shines ? out.shine : undefined,
    });
    const { blocks, refs } = await planes(sizes, signal, (out) => fill(layer(out)));
    return { blocks, refs: layer(refs) };
  }

  /** How fixtures look, where they are seen; measured against the small copy of the plate. */
  async function sourcesOf(request: FrameRequest, camera: Camera, fixtures: Fixture[], signal: AbortSignal) {
    const { plate, plan } = request.scene;
    const { width, height } = surveySize(plate);
    const { refs } = await plateNode(plate.asset, wholeRegion(width, height), signal);
    const small = views.plateAt(refs, width, height);
    const walls = wallPieces(camera, plan.walls);
    return fixtures.flatMap((fixture) => visibleSources(camera, walls, fixture, small));
  }

  /** What the surfaces that fixtures light give on, found on the small copy. */
  async function bounceOf(
    request: FrameRequest,
    camera: Camera,
    fixtures: Fixture[],
    signal: AbortSignal,
  ): Promise<PictureRef> {
    const { scene } = request;
    const { every, blocks } = BOUNCE;
    const size = surveySize(scene.plate);
    const small: FrameRequest = {
      ...request,
      region: wholeRegion(size.width, size.height),
      moving: undefined,
    };
    const region = wholeRegion(Math.ceil(size.width / every), Math.ceil(size.height / every));
    const node = await store.node<{ bounce: PlaneRef }>(`bounce ${layerKey(small, fixtures)}`, async () => {
      const relief = (await reliefNode(small, camera, signal)).refs;
      const plate = (await plateNode(scene.plate.asset, small.region, signal)).refs;
      const survey = (await surveyNode(small, signal)).refs;
      const occluders = await occludersOf(small, camera, signal);
      const lights = fixtureLights(camera, wallPieces(camera, request.scene.plan.walls), fixtures);
      const common = { relief, camera, plate } as const;
      const direct = await layerPlanes(small, { from: 0, to: 0 }, signal, (out) =>
        inBands(small.region, signal, (rows) => ({
          ...{ type: 'layer', ...common, occluders, lights, sources: [] },
          ...{ region: small.region, rows, out },
        })),
      );
      try {
        const [middle] = views.floats(survey.middle, 1);
        const task = {
          type: 'bounce',
          ...common,
          spill: direct.refs.spill,
          size,
          middle,
          every,
          region,
        } as const;
        return await planes({ bounce: region.width * region.height }, signal, ({ bounce: out }) =>
          pool.run({ ...task, blocks, out }, signal),
        );
      } finally {
        direct.blocks.forEach(arena.release);
      }
    });
    return { width: region.width, height: region.height, data: node.refs.bounce };
  }

  /** The light of fixtures that nothing holds back. */
  async function freeNode(
    request: FrameRequest,
    camera: Camera,
    fixtures: Fixture[],
    signal: AbortSignal,
  ): Promise<Node<LayerRefs>> {
    const { region, scene, moving } = request;
    const relief = (await reliefNode(request, camera, signal)).refs;
    const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
    const still = fixtures.filter(({ id }) => id !== moving?.id);
    const split = still.length > 0 && still.length < fixtures.length;
    const alone = { ...request, moving: undefined };
    const base = split ? (await layerNode(alone, camera, still, signal)).refs : undefined;
    const fresh = base ? fixtures.filter(({ id }) => id === moving?.id) : fixtures;
    const sources = await sourcesOf(request, camera, fixtures, signal);
    const sourceRows = unionRows(
      sources.map((source) => sourceBounds(source, region)),
      region,
    );
    const occluders = await occludersOf(request, camera, signal);
    const lights = fixtureLights(camera, wallPieces(camera, request.scene.plan.walls), fresh);
    const resting = fresh.map((fixture) => (fixture.id === moving?.id ? free(moving) : fixture));
    const bounce = await bounceOf(request, camera, resting, signal);
    const task = {
      type: 'layer',
      occluders,
      bounce,
      relief,
      camera,
      region,
      base,
      lights,
      sources,
      plate,
    } as const;
    return layerPlanes(request, sourceRows, signal, (out) =>
      inBands(region, signal, (rows) => ({ ...task, rows, out })),
    );
  }

  /** The light of fixtures some of which mattes hold back: each group that the same mattes hold apart. */
  async function heldNode(
    request: FrameRequest,
    camera: Camera,
    fixtures: Fixture[],
    signal: AbortSignal,
  ): Promise<Node<LayerRefs>> {
    const { region, scene } = request;
    const groups = new Map<string, Fixture[]>();
    for (const fixture of fixtures) {
      const key = holdKey(request, fixture);
      groups.set(key, [...(groups.get(key) ?? []), fixture]);
    }
    const coverage = (id: string) => matteNode(request, matteOf(scene, id), signal);
    const parts: HeldLayer[] = [];
    for (const group of groups.values()) {
      const [{ behind, only }] = group;
      parts.push({
        layer: (await layerNode(request, camera, group.map(free), signal)).refs,
        behind: behind === undefined ? undefined : await coverage(behind),
        only: only && { coverage: await coverage(only.matte), outside: only.outside },
      });
    }
    const all = parts.map(({ layer: { sourceRows } }) => sourceRows).filter(({ from, to }) => from < to);
    const sourceRows = {
      from: Math.min(region.height, ...all.map(({ from }) => from)),
      to: Math.max(0, ...all.map(({ to }) => to)),
    };
    if (all.length === 0) sourceRows.from = sourceRows.to = 0;
    return layerPlanes(request, sourceRows, signal, (out) =>
      inBands(region, signal, (rows) => ({ type: 'hold', parts, region, rows, out }), 'quick'),
    );
  }

  const layerNode = (request: FrameRequest, camera: Camera, fixtures: Fixture[], signal: AbortSignal) =>
    store.node<LayerRefs>(layerKey(request, fixtures), () =>
      fixtures.some((fixture) => holdKey(request, fixture) !== '')
        ? heldNode(request, camera, fixtures, signal)
        : freeNode(request, camera, fixtures, signal),
    );

  /** The moon's light on a region. */
  const moonNode = (request: FrameRequest, camera: Camera, moon: Moon, signal: AbortSignal) =>
    store.node<LayerRefs>(
      moonKey(request, moon),
      async () => {
        const { region, scene } = request;
        const relief = (await reliefNode(request, camera, signal)).refs;
        const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
        const occluders = await occludersOf(request, camera, signal);
        const lights = [moonLight(moon)];
        const task = {
          type: 'layer',
          occluders,
          relief,
          camera,
          region,
          lights,
          plate,
        } as const;
        return layerPlanes(request, { from: 0, to: 0 }, signal, (out) =>
          inBands(region, signal, (rows) => ({ ...task, sources: [], rows, out })),
        );
      },
      `moon ${regionKey(request.region)}`,
    );

  /** A layer's light as what lies beneath takes it. */
  async function grippedNode(
    request: FrameRequest,
    camera: Camera,
    { circuit, gel, fixtures, moon }: Layer,
    signal: AbortSignal,
  ): Promise<LayerRefs> {
    if (moon) return (await moonNode(request, camera, moon, signal)).refs;
    const { refs } = await layerNode(request, camera, fixtures, signal);
    const { grip } = circuit;
    if (isPlainGrip(grip)) return refs;
    const { region, scene } = request;
    const node = await store.node<{ spill: PlaneRef }>(
      `grip ${JSON.stringify(grip)} ${layerKey(request, fixtures)}`,
      async () => {
        const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
        const task = { type: 'grip', spill: refs.spill, plate, grip, region } as const;
        return planes({ spill: region.width * region.height }, signal, ({ spill: out }) =>
          inBands(region, signal, (rows) => ({ ...task, rows, out }), 'quick'),
        );
      },
      `grip ${circuit.id} ${JSON.stringify(gel)} ${regionKey(region)}`,
    );
    return { ...refs, spill: node.refs.spill };
  }

  return { grippedNode };
}
