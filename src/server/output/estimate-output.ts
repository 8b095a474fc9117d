import { framedSize } from '@/core/frame/frame';
import { OUTPUT_FORMATS, outputSize, type OutputChoice } from '@/core/output/output-formats';
import type { Region } from '@/core/plane/region';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Renderer } from '@/engine/renderer';
import type { Size } from '@/engine/sizes';
import { encodePicture } from './encode-picture';
import { regionFor, takeRgb } from './render-picture';

/** What is written for an estimate: strips of the picture at its own size, one below the other, pixels. */
const STRIPS = { count: 4, width: 512, height: 64 } as const;

/** Side of the picture that tells what a file takes that holds next to nothing, pixels. */
const EMPTY = 16;

/** Samples that are remembered, the newest. */
const MOST = 4;

/** Tells how large outputs will be. */
export interface Estimator {
  /** Bytes; undefined for layers, whose number decides. */
  bytes: (open: OpenScene, choice: OutputChoice, signal: AbortSignal) => Promise<number | undefined>;
}

interface Sample {
  size: Size;
  codes: Uint16Array;
}

/** Strips of a region, evenly spread from its top to its bottom, in its middle. */
function stripsOf(region: Region): Region[] {
  const width = Math.min(STRIPS.width, region.width);
  const height = Math.min(STRIPS.height, Math.max(1, Math.floor(region.height / STRIPS.count)));
  const left = region.left + Math.floor((region.width - width) / 2);
  return Array.from({ length: STRIPS.count }, (_, k) => {
    const middle = ((k + 0.5) / STRIPS.count) * region.height;
    return { ...region, left, width, height, top: region.top + Math.max(0, Math.floor(middle - height / 2)) };
  });
}

/** What its strips take is taken for what all of the picture takes. */
export function createEstimator(renderer: Renderer): Estimator {
  const known = new Map<string, Sample>();

  async function rendered({ scene }: OpenScene, size: Size, signal: AbortSignal): Promise<Sample> {
    const strips = stripsOf(regionFor(scene, size));
    const [{ width, height }] = strips;
    const codes = new Uint16Array(3 * width * height * strips.length);
    for (const [k, region] of strips.entries()) {
      await renderer.deepFrame({ scene, region }, signal, (pixels) =>
        takeRgb(codes, 3 * width * height * k, pixels),
      );
    }
    return { size: { width, height: height * strips.length }, codes };
  }

  async function sampleOf(open: OpenScene, size: Size, signal: AbortSignal): Promise<Sample> {
    const key = `${open.id} ${open.revision} ${size.width}`;
    const sample = known.get(key) ?? (await rendered(open, size, signal));
    known.delete(key);
    known.set(key, sample);
    for (const old of [...known.keys()].slice(0, -MOST)) known.delete(old);
    return sample;
  }

  async function written({ codes, size }: Sample, choice: OutputChoice): Promise<number> {
    const isDeep = OUTPUT_FORMATS[choice.format].bits === 16;
    const rgb = isDeep ? codes.slice() : Uint8Array.from(codes, (code) => code >> 8);
    return (await encodePicture(rgb, size, choice)).byteLength;
  }

  return {
    async bytes(open, choice, signal) {
      if ('hasLayers' in OUTPUT_FORMATS[choice.format]) return undefined;
      const size = outputSize(framedSize(open.scene.plate, open.scene.frame), choice.long);
      const sample = await sampleOf(open, size, signal);
      const empty = { size: { width: EMPTY, height: EMPTY }, codes: new Uint16Array(3 * EMPTY * EMPTY) };
      const [bytes, header] = [await written(sample, choice), await written(empty, choice)];
      const share = (size.width * size.height) / (sample.size.width * sample.size.height);
      return Math.round(header + share * Math.max(0, bytes - header));
    },
  };
}
