import { globeBounds } from '@/core/fixture/add-globe-source';
import { globeLight, globeLuminance } from '@/core/fixture/globe-light';
import { placeFixture } from '@/core/fixture/place-fixture';
import { burns, layersOf, type Layer } from '@/core/picture/layers';
import { pictureWeights } from '@/core/picture/weights';
import { cameraOf } from '@/core/picture/camera-of';
import type { Camera } from '@/core/plan/camera';
import { RELIEF_PLANES } from '@/core/plan/relief';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Fixture, Scene } from '@/core/scene/schema';
import type { Arena, Block } from './arena';
import { layerKey, plateKey, reliefKey, surveyHorizon, surveyKey } from './node-keys';
import type { FrameRequest } from './frame-request';
import { createNodeStore, type Node } from './node-store';
import type { Pool } from './pool';
import { surveySize } from './sizes';
import { unionRows } from './union-rows';
import type { LayerRefs, PlateRefs, ReliefRefs, Rows, SurveyRefs, Task } from './task';

/**
 * Gives a region of a plate: interleaved RGB, 16-bit sRGB codes, 3 * width * height. The renderer asks again for what its
 * memory has let go.
 */
export type LoadCodes = (asset: string, region: Region, signal: AbortSignal) => Promise<Uint16Array>;

/** Pixels of a finished frame: RGBA, 8 bits. Valid only until the callback that gets them returns. */
export type Consume<T> = (pixels: Uint8ClampedArray) => T;

export interface Renderer {
  /** Makes a frame. Frames are made one after the other; an aborted one rejects with an AbortError. */
  frame: <T>(request: FrameRequest, signal: AbortSignal, consume: Consume<T>) => Promise<T>;
  /** Whether a frame needs nothing but its mix. */
  isReady: (request: FrameRequest) => boolean;
  close: () => void;
}

/** Pixels of a heavy task: few enough that an outdated frame is soon given up. */
const BAND_PIXELS = 80_000;

/** Tasks a worker that a mix is cut into: it is quick and never given up. */
const MIX_BANDS = 2;

/** A renderer over one arena and its workers. `budgetBytes` bounds what is kept between frames. */
export function createRenderer(arena: Arena, pool: Pool, load: LoadCodes, budgetBytes: number): Renderer {
  const store = createNodeStore(arena, budgetBytes);
  let last: Promise<unknown> = Promise.resolve();

  /** Runs a task per band, on all workers; waits for every band even when one fails. */
  async function inBands(
    region: Region,
    signal: AbortSignal,
    task: (rows: Rows) => Task,
    bands = Math.max(pool.size, Math.ceil((region.width * region.height) / BAND_PIXELS)),
  ): Promise<void> {
    const step = Math.max(1, Math.ceil(region.height / bands));
    const running: Promise<void>[] = [];
    for (let from = 0; from < region.height; from += step) {
      running.push(pool.run(task({ from, to: Math.min(region.height, from + step) }), signal));
    }
    const failed = (await Promise.allSettled(running)).find((result) => result.status === 'rejected');
    if (failed) throw failed.reason;
  }

  /** Makes a node of planes with the given names and sizes, in floats. */
  async function planes<Name extends string>(
    sizes: Record<Name, number>,
    signal: AbortSignal,
    fill: (refs: Record<Name, number>) => Promise<void>,
  ): Promise<Node<Record<Name, number>>> {
    signal.throwIfAborted();
    const blocks: Block[] = [];
    try {
      const refs = {} as Record<Name, number>;
      for (const name of Object.keys(sizes) as Name[]) {
        const block = store.allocate(4 * sizes[name]);
        blocks.push(block);
        refs[name] = block.offset;
      }
      await fill(refs);
      return { blocks, refs };
    } catch (error) {
      blocks.forEach(arena.release);
      throw error;
    }
  }

  const plateNode = (asset: string, region: Region, signal: AbortSignal) =>
    store.node<PlateRefs>(plateKey(asset, region), async () => {
      const codes = await load(asset, region, signal);
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

  const reliefNode = (request: FrameRequest, camera: Camera, signal: AbortSignal) =>
    store.node<ReliefRefs>(reliefKey(request), async () => {
      const { scene, region } = request;
      const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
      const survey = (await surveyNode(request, signal)).refs;
      const count = region.width * region.height;
      const sizes = Object.fromEntries(RELIEF_PLANES.map((name) => [name, count])) as ReliefRefs;
      return planes(sizes, signal, (out) =>
        inBands(region, signal, (rows) => ({
          type: 'relief',
          plate,
          survey,
          surveySize: surveySize(scene.plate),
          camera,
          region,
          rows,
          out,
        })),
      );
    });

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

  async function render<T>(request: FrameRequest, signal: AbortSignal, consume: Consume<T>): Promise<T> {
    const { scene, region } = request;
    const camera = cameraOf(scene);
    const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
    const survey = (await surveyNode(request, signal)).refs;
    const lit = litLayers(scene);
    const layers: LayerRefs[] = [];
    for (const { fixtures } of lit) layers.push((await layerNode(request, camera, fixtures, signal)).refs);
    const middle = new Float32Array(arena.memory.buffer, survey.middle, 1)[0];
    const weights = pictureWeights(scene, lit, middle);
    const count = region.width * region.height;
    const picture = await planes({ rgba: count }, signal, ({ rgba: out }) =>
      inBands(
        region,
        signal,
        (rows) => ({ type: 'mix', plate, layers, weights, region, rows, out }),
        MIX_BANDS * pool.size,
      ),
    );
    try {
      const pixels = new Uint8ClampedArray(arena.memory.buffer, picture.refs.rgba, 4 * count);
      return consume(pixels);
    } finally {
      picture.blocks.forEach(arena.release);
    }
  }

  return {
    frame(request, signal, consume) {
      const turn = last.then(async () => {
        signal.throwIfAborted();
        store.beginFrame();
        try {
          return await render(request, signal, consume);
        } finally {
          store.endFrame();
        }
      });
      last = turn.catch(() => {});
      return turn;
    },
    isReady: (request) =>
      store.has(plateKey(request.scene.plate.asset, request.region)) &&
      store.has(surveyKey(request)) &&
      litLayers(request.scene).every(({ fixtures }) => store.has(layerKey(request, fixtures))),
    close() {
      pool.close();
      store.clear();
    },
  };
}

function litLayers(scene: Scene): Layer[] {
  return layersOf(scene).filter(({ circuit }) => burns(circuit, scene));
}
