import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { expose } from 'comlink';
import { DetectService } from './detect-service';
import { ThingNetwork, type NetworkFiles } from './network';

// The worker is asked for by the address of its build; so are its files.
const at = (name: string) => `/${name}${self.location.search}`;

async function fileOf(name: string): Promise<Response> {
  const response = await fetch(at(name));
  if (!response.ok) throw new Error(`The part that sees things could not load ${name}. Try again.`);
  return response;
}

async function load(): Promise<ThingNetwork> {
  // It wants to know of all its files. Where the kernels run there is SIMD, and it runs on one thread.
  const files = ['tfjs-backend-wasm', 'tfjs-backend-wasm-simd', 'tfjs-backend-wasm-threaded-simd'];
  setWasmPaths(Object.fromEntries(files.map((name) => [`${name}.wasm`, at('things.wasm')])));
  const [model, weights] = await Promise.all([fileOf('things.json'), fileOf('things.bin')]);
  return ThingNetwork.load({
    model: (await model.json()) as NetworkFiles['model'],
    weights: await weights.arrayBuffer(),
  });
}

expose(new DetectService(load()));
