import { setImmediate } from 'node:timers/promises';
import type { FileHandle } from 'node:fs/promises';
import { framePlane } from '@/core/frame/frame-plane';
import type { RgbPlanes } from '@/core/plane/plane';
import { lightLayers, type LightLayers } from '@/engine/readouts/light-layers';
import { BLOCK_ROWS, createExr, LONGEST_NAME } from './exr-file';
import { regionFor } from './render-picture';
import type { OutputWork } from './write-output';

/** Rows that are made at a time: whole blocks. */
const BAND_ROWS = 8 * BLOCK_ROWS;

/** Names of layers: each once, without what names of channels may not hold. */
export function layerNames(names: readonly string[], taken: readonly string[]): string[] {
  const used = new Set(taken);
  return names.map((name) => {
    const plain = name
      .normalize('NFKD')
      .replace(/[^\w]+/g, '_')
      .replace(/^_+|_+$/g, '')
      .toLowerCase();
    const stem = (plain || 'layer').slice(0, LONGEST_NAME - 6);
    let own = stem;
    for (let n = 2; used.has(own); n++) own = `${stem}_${n}`;
    used.add(own);
    return own;
  });
}

const FIXED = ['day', 'night', 'sky', 'depth', 'normal'];

/** The planes of a part, by the channels' names; `R`, `G` and `B` are the sum of night and circuits. */
function channelsOf(layers: LightLayers, circuits: readonly string[], mattes: readonly string[]) {
  const planes = new Map<string, Float32Array>();
  const put = (layer: string, { r, g, b }: RgbPlanes) => {
    planes.set(`${layer}R`, r).set(`${layer}G`, g).set(`${layer}B`, b);
  };
  const { day, night, sky } = layers;
  const sum = { ...night, r: night.r.slice(), g: night.g.slice(), b: night.b.slice() };
  for (const light of layers.circuits)
    for (const c of ['r', 'g', 'b'] as const) light[c].forEach((value, i) => (sum[c][i] += value));
  put('', sum);
  put('day.', day);
  put('night.', night);
  put('sky.', sky);
  layers.circuits.forEach((light, k) => put(`${circuits[k]}.`, light));
  planes.set('depth.Z', layers.depth);
  layers.normal.forEach((plane, c) => planes.set(`normal.${'XYZ'[c]}`, plane));
  layers.mattes.forEach((plane, k) => planes.set(`${mattes[k]}.A`, plane));
  return planes;
}

/** Writes a scene's light taken apart as OpenEXR: half floats, linear sRGB, before haze, lens and film. */
export async function writeExr(
  file: FileHandle,
  { renderer, scene, size, signal, onProgress }: OutputWork,
): Promise<void> {
  const circuits = layerNames(
    scene.circuits.map(({ name }) => name),
    FIXED,
  );
  const mattes = layerNames(
    scene.mattes.map(({ name }) => `matte_${name}`),
    [...FIXED, ...circuits],
  );
  const names = [
    ...['', 'day.', 'night.', 'sky.', ...circuits.map((name) => `${name}.`)].flatMap((layer) =>
      ['R', 'G', 'B'].map((channel) => layer + channel),
    ),
    ...['depth.Z', 'normal.X', 'normal.Y', 'normal.Z', ...mattes.map((name) => `${name}.A`)],
  ];
  const exr = await createExr(file, names, size.width, size.height);
  const aspect = scene.plate.width / scene.plate.height;
  for (let top = 0; top < size.height; top += BAND_ROWS) {
    const band = { from: top, to: Math.min(size.height, top + BAND_ROWS) };
    const part = { left: 0, top: top / size.height, width: 1, height: (band.to - top) / size.height };
    const region = regionFor(scene, size, part);
    const planes = channelsOf(await renderer.read(lightLayers({ scene, region }), signal), circuits, mattes);
    const framed = new Map(
      [...planes].map(
        ([name, plane]) => [name, framePlane(plane, region, scene.frame, aspect, size, band)] as const,
      ),
    );
    for (let from = band.from; from < band.to; from += BLOCK_ROWS) {
      await exr.writeBlock(framed, from - band.from);
      await setImmediate();
      signal.throwIfAborted();
    }
    onProgress(band.to / size.height);
  }
  await exr.finish();
}
