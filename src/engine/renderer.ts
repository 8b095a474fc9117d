import type { ToneRange } from '@/core/grade/grade';
import { cameraOf } from '@/core/picture/camera-of';
import { burns, layersOf, type Layer } from '@/core/picture/layers';
import { luminance } from '@/core/color/luminance';
import { ambientLux } from '@/core/night/hour';
import { addCircuitLight, type LightParts } from '@/core/picture/circuit-light';
import type { PlatePoint } from '@/core/plan/camera';
import type { RgbPlanes } from '@/core/plane/plane';
import { tonesUnder } from '@/core/picture/tones-under';
import { faderGain, lightPerLux, pictureWeights } from '@/core/picture/weights';
import { wholeRegion } from '@/core/plane/region';
import { PLAIN_GRIP } from '@/core/scene/new-scene';
import { RANGES } from '@/core/scene/ranges';
import type { Matte, Scene } from '@/core/scene/schema';
import type { Arena } from './arena';
import { allOf } from './all-of';
import { withinLimits } from './frame-limit';
import type { FrameRequest } from './frame-request';
import { createEvenNodes } from './even-nodes';
import { createGraph } from './graph';
import { createLayerNodes } from './layer-nodes';
import { createMatteNodes } from './matte-nodes';
import { createNightNodes } from './night-nodes';
import { evenKey, layerKey, matteKey, matteOf, moonKey, reliefKey, surveyKey } from './node-keys';
import { createNodeStore } from './node-store';
import { createPlateNodes } from './plate-nodes';
import { createViews } from './perform/memory-views';
import type { Pool } from './pool';
import type { CoveragePicture, RenderAssets } from './render-assets';
import { createReliefNodes } from './relief-nodes';
import { createTurnQueue, type Turn } from './turn-queue';
import { surveySize } from './sizes';
import type { LayerRefs } from './task';

/** Pixels of a finished frame: RGBA, 8 bits. Valid only until the callback that gets them returns. */
export type Consume<T> = (pixels: Uint8ClampedArray) => T;

/** The lie of the land on the small copy of a plate. */
export interface LandPicture {
  width: number;
  height: number;
  /** How far along each pixel's view ray its surface lies, in the ray's own lengths. */
  reach: Float32Array;
  /** Coverage by land, and by what lies level, 0 to 1. */
  land: Float32Array;
  level: Float32Array;
}

export interface Renderer {
  /**
   * Makes a frame. Frames are made one after the other; an aborted one rejects with an AbortError, and one that takes too long or too
   * much memory with a FrameLimitError.
   */
  frame: <T>(request: FrameRequest, signal: AbortSignal, consume: Consume<T>) => Promise<T>;
  /** The tones that a scene's night occupies before it is refitted. */
  toneRange: (scene: Scene, signal: AbortSignal) => Promise<ToneRange>;
  /** The light that falls on a place of the scene: ambient light and the spill of all that burns, lux. */
  lux: (scene: Scene, at: PlatePoint, signal: AbortSignal) => Promise<number>;
  /** The linear light of one circuit alone, whether it burns or not; valid for as long as the caller keeps it. */
  circuit: (
    request: FrameRequest,
    circuit: string,
    parts: LightParts,
    signal: AbortSignal,
  ) => Promise<RgbPlanes>;
  /** The lie of the land on the small copy. */
  land: (scene: Scene, signal: AbortSignal) => Promise<LandPicture>;
  /** The tones of the day on which a circuit's spill lands, as shares of it. */
  beneath: (scene: Scene, circuit: string, signal: AbortSignal) => Promise<Float32Array>;
  /** A matte's coverage on the small copy, 8 bits. */
  coverage: (scene: Scene, matte: string, signal: AbortSignal) => Promise<CoveragePicture>;
  /** Whether a frame needs nothing but its night and its mix, which are quick. */
  isReady: (request: FrameRequest) => boolean;
  close: () => void;
}

/** Seconds that one frame may take: a limit of patience, far above what any scene needs. */
const FRAME_SECONDS = 240;

/** A renderer over one arena and its workers. `budgetBytes` bounds what is kept between frames, `frameSeconds` each of them. */
export function createRenderer(
  arena: Arena,
  pool: Pool,
  assets: RenderAssets,
  budgetBytes: number,
  frameSeconds = FRAME_SECONDS,
): Renderer {
  const store = createNodeStore(arena, budgetBytes);
  const graph = createGraph({ arena, pool, store, assets });
  const plates = createPlateNodes(graph);
  const { surveyNode } = plates;
  const mattes = createMatteNodes(graph, plates);
  const reliefs = createReliefNodes(graph, plates, mattes);
  const { reliefNode } = reliefs;
  const evens = createEvenNodes(graph, plates, mattes);
  const { evenNode } = evens;
  const { nightNode, rangeOf } = createNightNodes(graph, evens, mattes);
  const { grippedNode } = createLayerNodes(graph, plates, mattes, reliefs);
  const views = createViews(arena.memory);
  const takeTurn = createTurnQueue();

  async function render<T>(request: FrameRequest, signal: AbortSignal, consume: Consume<T>): Promise<T> {
    const { scene, region } = request;
    const camera = cameraOf(scene);
    const nightOf = async () => {
      const plate = (await evenNode(request, signal)).refs;
      return { plate, night: (await nightNode(request, plate, signal)).refs };
    };
    const [survey, nightly, relief] = await allOf([
      surveyNode(request, signal),
      nightOf(),
      reliefNode(request, camera, signal),
    ] as const);
    const { distance, land } = relief.refs;
    const base = { ...nightly, distance, land };
    const lit = litLayers(scene);
    const layers: LayerRefs[] = [];
    for (const layer of lit) layers.push(await grippedNode(request, camera, layer, signal));
    const [middle] = views.floats(survey.refs.middle, 1);
    const weights = pictureWeights(scene, lit, middle);
    const count = region.width * region.height;
    const matte = scene.mattes.find(({ id }) => id === request.show?.matte);
    const shown = matte && (await mattes.matteNode(request, matte, signal));
    const picture = await graph.planes({ rgba: count }, signal, ({ rgba: out }) =>
      graph.inBands(
        region,
        signal,
        (rows) => ({ type: 'mix', base, layers, weights, region, rows, out }),
        'quick',
      ),
    );
    if (shown) {
      const out = picture.refs.rgba;
      const task = { type: 'show', coverage: shown, view: request.show!.view, region, out } as const;
      await graph.inBands(region, signal, (rows) => ({ ...task, rows }), 'quick');
    }
    try {
      const pixels = new Uint8ClampedArray(graph.arena.memory.buffer, picture.refs.rgba, 4 * count);
      return consume(pixels);
    } finally {
      picture.blocks.forEach(graph.arena.release);
    }
  }

  /** Read off the small picture, whose layers are there already or soon made. */
  async function luxAt(scene: Scene, { u, v }: PlatePoint, signal: AbortSignal): Promise<number> {
    const { width, height } = surveySize(scene.plate);
    const request = { scene, region: wholeRegion(width, height) };
    const lit = litLayers(scene);
    const { layers } = pictureWeights(scene, lit, 1);
    const cell = (part: number, size: number) => Math.min(size - 1, Math.max(0, Math.floor(part * size)));
    const pixel = cell(v, height) * width + cell(u, width);
    let spilt = 0;
    for (const [k, layer] of lit.entries()) {
      const { spill } = await grippedNode(request, cameraOf(scene), layer, signal);
      spilt += luminance(layers[k].spill) * new Float32Array(arena.memory.buffer, spill + 4 * pixel, 1)[0];
    }
    const { night, desk } = scene;
    return ambientLux(night.hour) * faderGain(desk.ambient) + spilt / lightPerLux(night);
  }

  async function circuitLight(
    request: FrameRequest,
    id: string,
    parts: LightParts,
    signal: AbortSignal,
  ): Promise<RgbPlanes> {
    const { width, height } = request.region;
    const count = width * height;
    const alone = request.scene.circuits.map((circuit) => ({
      ...circuit,
      solo: circuit.id === id,
      muted: circuit.id !== id,
    }));
    const desk = { ...request.scene.desk, moon: RANGES.level.min };
    const scene = { ...request.scene, circuits: alone, desk };
    const lit = litLayers(scene);
    const survey = (await surveyNode(request, signal)).refs;
    const { layers } = pictureWeights(scene, lit, views.floats(survey.middle, 1)[0]);
    const plate = views.plateAt((await evenNode(request, signal)).refs, width, height);
    const planes = () => new Float32Array(count);
    const out = { width, height, r: planes(), g: planes(), b: planes() };
    for (const [k, own] of lit.entries()) {
      const refs = await grippedNode({ ...request, scene }, cameraOf(scene), own, signal);
      const rows = refs.sourceRows.to - refs.sourceRows.from;
      const layer = {
        spill: views.floats(refs.spill, count),
        shine: refs.shine === undefined ? undefined : views.floats(refs.shine, count),
        air: views.floats(refs.air, count),
        source: views.floats(refs.source, width * rows),
        sourceRows: refs.sourceRows,
      };
      addCircuitLight(out, plate, layer, layers[k], parts);
    }
    return out;
  }

  async function smallCoverage(scene: Scene, id: string, signal: AbortSignal): Promise<CoveragePicture> {
    const { width, height } = surveySize(scene.plate);
    const request = { scene, region: wholeRegion(width, height) };
    const coverage = await mattes.matteNode(request, matteOf(scene, id), signal);
    const shares = new Float32Array(arena.memory.buffer, coverage, width * height);
    return { width, height, data: Uint8Array.from(shares, (share) => Math.round(255 * share)) };
  }

  async function smallLand(scene: Scene, signal: AbortSignal): Promise<LandPicture> {
    const { width, height } = surveySize(scene.plate);
    const request = { scene, region: wholeRegion(width, height) };
    const { refs } = await reliefNode(request, cameraOf(scene), signal);
    const plane = (at: number) => views.floats(at, width * height).slice();
    return { width, height, reach: plane(refs.reach), land: plane(refs.land), level: plane(refs.normalZ) };
  }

  async function tonesBeneath(scene: Scene, id: string, signal: AbortSignal): Promise<Float32Array> {
    const { width, height } = surveySize(scene.plate);
    const region = wholeRegion(width, height);
    const count = width * height;
    const plain = scene.circuits.map((circuit) => ({ ...circuit, grip: PLAIN_GRIP }));
    const even = { ...scene, circuits: plain };
    const spill = new Float32Array(count);
    for (const layer of layersOf(even).filter(({ circuit }) => circuit.id === id)) {
      const refs = await grippedNode({ scene: even, region }, cameraOf(scene), layer, signal);
      views.floats(refs.spill, count).forEach((value, i) => (spill[i] += value));
    }
    const { refs } = await plates.plateNode(scene.plate.asset, region, signal);
    return tonesUnder(views.plateAt(refs, width, height), spill);
  }

  /** Does some work on the nodes when its turn comes. */
  function inTurn<T>(
    signal: AbortSignal,
    work: (signal: AbortSignal) => Promise<T>,
    turn: Turn = 'soon',
  ): Promise<T> {
    return takeTurn(turn, async () => {
      signal.throwIfAborted();
      store.beginFrame();
      try {
        return await withinLimits(store, frameSeconds, signal, work);
      } finally {
        store.endFrame();
      }
    });
  }

  return {
    frame: (request, signal, consume) =>
      inTurn(signal, (until) => render(request, until, consume), request.turn),
    toneRange: (scene, signal) => {
      const { width, height } = surveySize(scene.plate);
      return inTurn(signal, (until) => rangeOf({ scene, region: wholeRegion(width, height) }, until));
    },
    circuit: (request, id, parts, signal) =>
      inTurn(signal, (until) => circuitLight(request, id, parts, until)),
    land: (scene, signal) => inTurn(signal, (until) => smallLand(scene, until)),
    beneath: (scene, circuit, signal) => inTurn(signal, (until) => tonesBeneath(scene, circuit, until)),
    coverage: (scene, matte, signal) => inTurn(signal, (until) => smallCoverage(scene, matte, until)),
    lux: (scene, at, signal) => inTurn(signal, (until) => luxAt(scene, at, until)),
    isReady: (request) =>
      store.has(evenKey(request)) &&
      store.has(surveyKey(request)) &&
      store.has(reliefKey(request)) &&
      mattesIn(request).every((matte) => store.has(matteKey(request, matte))) &&
      litLayers(request.scene).every(({ fixtures, moon }) =>
        store.has(moon ? moonKey(request, moon) : layerKey(request, fixtures)),
      ),
    close() {
      pool.close();
      store.clear();
    },
  };
}

function litLayers(scene: Scene): Layer[] {
  return layersOf(scene).filter(({ circuit }) => burns(circuit, scene));
}

/** The mattes that a frame needs. */
function mattesIn({ scene, show }: FrameRequest): Matte[] {
  const used = new Set(scene.places.filter(({ stops }) => stops !== 0).map(({ matte }) => matte));
  if (show) used.add(show.matte);
  return scene.mattes.filter(({ id }) => used.has(id));
}
