import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { dispose, env, ready, setBackend, tensor, type Tensor } from '@tensorflow/tfjs-core';
import '@tensorflow/tfjs-backend-wasm';
import { kindOfClass } from './class-kinds';
import type { SeenThing } from './seen-things';

/** Side of the squares that the network looks at, pixels. */
export const SIDE = 512;

/** The name of its result: a row a thing of left, top, right and bottom in pixels, how sure, and the number of its class. */
const RESULT = 'tower_0/detections';

/** How sure the network must be, 0 to 1: at this most of what it sees does stand there, whatever it takes it for. */
const LEAST = 0.2;

/** The files of the network: how it is built, and its weights. */
export interface NetworkFiles {
  model: {
    modelTopology: object;
    format: string;
    weightsManifest: { weights: NonNullable<ModelArtifacts['weightSpecs']> }[];
  };
  weights: ArrayBuffer;
}

type ModelArtifacts = Awaited<
  ReturnType<NonNullable<Exclude<Parameters<typeof loadGraphModel>[0], string>['load']>>
>;

/**
 * A small trained network that sees things of 80 everyday classes (centre points of their boxes: Zhou, Wang and Krähenbühl, "Objects as
 * Points", 2019), as the package @vladmandic/human brings it, run by TensorFlow.js in WebAssembly on one thread.
 */
export class ThingNetwork {
  private constructor(private readonly model: GraphModel) {}

  static async load({ model, weights }: NetworkFiles): Promise<ThingNetwork> {
    // Other threads have a picture to make.
    env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
    await setBackend('wasm');
    await ready();
    const artifacts: ModelArtifacts = {
      modelTopology: model.modelTopology,
      format: model.format,
      weightSpecs: model.weightsManifest.flatMap((group) => group.weights),
      weightData: weights,
    };
    return new ThingNetwork(await loadGraphModel({ load: () => Promise.resolve(artifacts) }));
  }

  /** The things that are seen in a square of SIDE pixels of interleaved 8-bit sRGB codes. */
  async see(square: Float32Array): Promise<SeenThing[]> {
    const input = tensor(square, [1, SIDE, SIDE, 3]);
    const result = this.model.execute(input, RESULT) as Tensor;
    const rows = await result.data();
    dispose([input, result]);
    return Array.from({ length: rows.length / 6 }, (_, k) => rows.subarray(6 * k, 6 * k + 6)).flatMap(
      ([left, top, right, bottom, sure, number]) => {
        const is = sure >= LEAST && kindOfClass(number, sure);
        if (!is) return [];
        const within = (pixels: number) => Math.min(1, Math.max(0, pixels / SIDE));
        return [
          { is, sure, left: within(left), top: within(top), right: within(right), bottom: within(bottom) },
        ];
      },
    );
  }
}
