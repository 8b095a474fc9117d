import { createDisplayCodes, DISPLAY_CODE_STEPS } from '@/core/film/display-codes';
import type { Plane, RgbPlanes } from '@/core/plane/plane';
import type { Region } from '@/core/plane/region';
import type { PlaneRef } from '../graph/task';
import type { Size } from '../sizes';
import { LATTICE_BYTES, linesOf, SMALL, TILE_BYTES, TOLD } from './layout';
import { OCCLUDER_BYTES } from './occluder-block';

/** What `kernels/` exports. All arguments are numbers: byte offsets into the shared memory, and counts. */
interface KernelExports {
  mixRows: (...args: number[]) => void;
  develop: (...args: number[]) => void;
  addPointLights: (...args: number[]) => void;
  addBeamAir: (...args: number[]) => void;
  nightBase: (...args: number[]) => void;
  enlargeRows: (...args: number[]) => void;
  layDab: (...args: number[]) => void;
  followEdge: (...args: number[]) => void;
  layGround: (...args: number[]) => void;
  throughHaze: (...args: number[]) => void;
  addSpikes: (...args: number[]) => void;
  addGrain: (...args: number[]) => void;
  joinSky: (...args: number[]) => void;
  skyLight: (...args: number[]) => void;
  freeLand: (...args: number[]) => void;
  levelling: (...args: number[]) => void;
  evenOut: (...args: number[]) => void;
  mirrorImage: (...args: number[]) => void;
  addMirrors: (...args: number[]) => void;
  fillPyramid: (...args: number[]) => void;
  boxBlur: (...args: number[]) => void;
  holdBack: (...args: number[]) => void;
  mixThrough: (...args: number[]) => void;
  addWeighted: (...args: number[]) => void;
  addCovered: (...args: number[]) => void;
  lightOfCodes: (...args: number[]) => void;
}

/** Where a plane lies; 0 where there is none. */
export const offset = (plane?: Float32Array): PlaneRef => (plane && plane.length > 0 ? plane.byteOffset : 0);

/** Bytes of the scratch for tables and parameters; what casts shadows lies behind them. */
export const TABLES = 65536;

/** Bytes for a tile, its lattice and a list of what casts shadows on it: a word each, of which none takes less than 16 bytes of the block. */
const TILE_ROOM = TILE_BYTES + LATTICE_BYTES + OCCLUDER_BYTES / 4;

/** Small pictures that a kernel looks at, at most. */
const MOST_SMALLS = TOLD.COUNT;

/** Where the light of each code of 16 bits lies. */
export const LIGHTS = TABLES + OCCLUDER_BYTES + Math.max(TILE_ROOM, linesOf(MOST_SMALLS));

/** Bytes of shared memory that one worker's kernels need. */
export const KERNEL_SCRATCH = LIGHTS + 4 * 65536;

/* Layout of the tables: display codes, parameters, four pixels, then a row of LAYER.BYTES a layer. */
export const PARAMS = DISPLAY_CODE_STEPS;
export const LIT_PLANES = PARAMS + 192;
export const PIXELS = PARAMS + 256;
export const LAYERS = PIXELS + 64;

/** Kernels that are bound to a memory, and what their callers write for them. */
export type Bound = ReturnType<typeof bindKernels>;

/** Binds a compiled module to a memory. `scratch` is a block of KERNEL_SCRATCH bytes that is this worker's alone. */
export function bindKernels(module: WebAssembly.Module, memory: WebAssembly.Memory, scratch: PlaneRef) {
  const env = { memory, abort: () => {} };
  const exports = new WebAssembly.Instance(module, { env }).exports as unknown as KernelExports;
  new Uint8Array(memory.buffer, scratch, DISPLAY_CODE_STEPS).set(createDisplayCodes(255));
  const params = new Float32Array(memory.buffer, scratch + PARAMS, 48);
  /** Where lines of small pictures are drawn, or what is known of a tile. */
  const room = scratch + TABLES + OCCLUDER_BYTES;

  /** Where a region lies on a small picture: its first pixel, and the way from one to the next. */
  function placeOn(small: Size, { left, top, fullWidth, fullHeight }: Region): number[] {
    const [stepX, stepY] = [small.width / fullWidth, small.height / fullHeight];
    return [(left + 0.5) * stepX - 0.5, stepX, (top + 0.5) * stepY - 0.5, stepY];
  }

  /** Notes small pictures that a kernel looks at over a region, behind its list of planes. */
  function writeSmalls(smalls: readonly Plane[], region: Region): PlaneRef {
    smalls.forEach((small, k) => {
      const at = scratch + LAYERS + (k + 1) * SMALL.BYTES;
      new Uint32Array(memory.buffer, at, 3).set([small.data.byteOffset, small.width, small.height]);
      new Float32Array(memory.buffer, at + SMALL.PLACE, 4).set(placeOn(small, region));
    });
    return scratch + LAYERS + SMALL.BYTES;
  }

  /** Notes where planes lie. */
  function writePlanes(planes: readonly PlaneRef[]): PlaneRef {
    new Uint32Array(memory.buffer, scratch + LAYERS, planes.length).set(planes);
    return scratch + LAYERS;
  }

  /** Looks at a small picture over a region: see `kernels/enlarge.ts`. */
  function enlarge(out: Float32Array, own: Float32Array, small: Plane, share: number, region: Region): void {
    const at = writeSmalls([small], region);
    exports.enlargeRows(out.byteOffset, own.byteOffset, at, share, region.width, region.height, room);
  }

  return { exports, memory, scratch, params, room, placeOn, writePlanes, writeSmalls, enlarge };
}

/** Where three planes lie, from one of their pixels on. */
export const channels = ({ r, g, b }: RgbPlanes, first = 0) =>
  [r, g, b].map((plane) => plane.byteOffset + 4 * first);
