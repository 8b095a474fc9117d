import { createDisplayCodes, DISPLAY_CODE_STEPS } from '@/core/film/display-codes';
import { levelOf, type evenOut, type levelling } from '@/core/day/even-out';
import { BRIGHTEST, FILM } from '@/core/film/film-response';
import { ceilingBend, ceilingKnee } from '@/core/grade/ceiling';
import { DARKEST } from '@/core/grade/grade-color';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { Grade } from '@/core/grade/grade';
import type { AmbientLight } from '@/core/night/ambient-light';
import type { BasePlanes, LayerPlanes } from '@/core/picture/mix-picture';
import type { Weights } from '@/core/picture/weights';
import type { Relief } from '@/core/relief/relief-planes';
import type { Plane, RgbPlanes } from '@/core/plane/plane';
import type { LightPlanes } from '@/core/light/add-lights';
import { grainStrength } from '@/core/lens/grain';
import { SPIKE_STRIDE, STEPS, type AddSpikes } from '@/core/lens/add-spikes';
import type { LensSettings } from '@/core/lens/lens-schema';
import type { Occluders } from '@/core/light/occlusion';
import { placeDab, type LayDabs } from '@/core/matte/paint-coverage';
import type { JoinSky } from '@/core/sky/behind-skyline';
import type { skyLight } from '@/core/sky/sky-light';
import type { Camera } from '@/core/geometry/camera';
import type { Region } from '@/core/plane/region';
import { beamShape } from '@/core/light/add-beam-air';
import { NO_CUTOFF, type PointLight } from '@/core/light/point-light';
import { LATTICE_BYTES, LAYER, LIGHT, LIT, linesOf, NIGHT_PARAMS, SKY, SMALL, SPIKE, TILE_BYTES } from './layout';
import { OCCLUDER_BYTES, writeOccluders } from './occluder-block';
import type { PlaneRef, Rows } from '../graph/task';
import type { Size } from '../sizes';
import { fromEye, lightFloats, raysOf } from './light-floats';

/** What `kernels/` exports. All arguments are numbers: byte offsets into the shared memory, and counts. */
interface KernelExports {
  mixRows: (...args: number[]) => void;
  develop: (...args: number[]) => void;
  addPointLights: (...args: number[]) => void;
  addBeamAir: (...args: number[]) => void;
  nightBase: (...args: number[]) => void;
  enlargeRows: (...args: number[]) => void;
  layDab: (...args: number[]) => void;
  addSpikes: (...args: number[]) => void;
  addGrain: (...args: number[]) => void;
  joinSky: (...args: number[]) => void;
  skyLight: (...args: number[]) => void;
  levelling: (...args: number[]) => void;
  evenOut: (...args: number[]) => void;
}

/** Floats an entry of a look-up table: one load a corner. */
export const LUT_STRIDE = 4;

/** A grade with its tables; the look-up table's entries take LUT_STRIDE floats each. */
export interface KernelGrade {
  grade: Grade;
  tables: Float32Array;
  lut?: Omit<CubeLut, 'title'>;
}

/**
 * The hot loops as SIMD. All planes lie in the memory that the kernels are bound to; those of a region are whole, and the region is at
 * least LEAST_SIDE pixels wide. What they do is what the functions of the core do that stand in for them without kernels: the tests'
 * oracle.
 */
export interface Kernels {
  mixRows: (
    out: RgbPlanes,
    base: BasePlanes,
    layers: readonly LayerPlanes[],
    weights: Weights,
    rows: Rows,
  ) => void;
  /** `first` and `count`: which pixels of the planes, at least four. `out`: RGBA bytes. */
  develop: (out: Float32Array, light: RgbPlanes, first: number, count: number) => void;
  nightBase: (
    out: RgbPlanes,
    plate: RgbPlanes,
    light: AmbientLight,
    open: Float32Array | undefined,
    grade: KernelGrade | undefined,
    first: number,
    count: number,
  ) => void;
  /** As `spreadLight` of the core. */
  spreadLight: (out: RgbPlanes, light: RgbPlanes, veil: RgbPlanes, share: number, region: Region) => void;
  /** As `addEnlarged` of the core. */
  addEnlarged: (out: Float32Array, small: Plane, by: Float32Array, region: Region) => void;
  /** As `layDabs` of the core. */
  layDabs: LayDabs;
  /** As those of the core. */
  levelling: typeof levelling;
  evenOut: typeof evenOut;
  /** As `skyLight` of the core, where no picture is laid. */
  skyLight: typeof skyLight;
  /** As `joinSky` of the core. */
  joinSky: JoinSky;
  /** As the core draws spikes. */
  addSpikes: AddSpikes;
  /** As `addGrain` of the core. */
  addGrain: (
    light: RgbPlanes,
    settings: LensSettings['grain'],
    deviates: Float32Array,
    region: Region,
  ) => void;
  addLights: (
    out: LightPlanes,
    relief: Relief,
    camera: Camera,
    region: Region,
    rows: Rows,
    lights: readonly PointLight[],
    shades: Occluders | undefined,
    /** Whether light is found on a lattice where it is smooth, within a three-hundredth of what it is. */
    thinned?: boolean,
  ) => void;
}

/** Where a plane lies; 0 where there is none. */
const offset = (plane?: Float32Array): PlaneRef => (plane && plane.length > 0 ? plane.byteOffset : 0);

/** Bytes of the scratch for tables and parameters; what casts shadows lies behind them. */
const TABLES = 65536;

/** Bytes for a tile, its lattice and a list of what casts shadows on it: a word each, of which none takes less than 16 bytes of the block. */
const TILE_ROOM = TILE_BYTES + LATTICE_BYTES + OCCLUDER_BYTES / 4;

/** Small pictures that a sky is made of. */
const SKY_SMALLS = 8;

/** Bytes of shared memory that one worker's kernels need. */
export const KERNEL_SCRATCH = TABLES + OCCLUDER_BYTES + Math.max(TILE_ROOM, linesOf(SKY_SMALLS));

/* Layout of the tables: display codes, parameters, four pixels, then a row of LAYER.BYTES a layer. */
const PARAMS = DISPLAY_CODE_STEPS;
const LIT_PLANES = PARAMS + 192;
const PIXELS = PARAMS + 256;
const LAYERS = PIXELS + 64;

/** How many layers find room: more than a scene has fixtures. */
const MOST_LAYERS = Math.floor((TABLES - LAYERS) / LAYER.BYTES);

/** Says that a small picture is to be added. */
const ADDS = -1;

/** How many lights find room where else the layers lie. */
const MOST_LIGHTS = Math.floor((TABLES - LAYERS) / LIGHT.BYTES);

/** Binds a compiled module to a memory. `scratch` is a block of KERNEL_SCRATCH bytes that is this worker's alone. */
export function createKernels(
  module: WebAssembly.Module,
  memory: WebAssembly.Memory,
  scratch: PlaneRef,
): Kernels {
  const env = { memory, abort: () => {} };
  const exports = new WebAssembly.Instance(module, { env }).exports as unknown as KernelExports;
  new Uint8Array(memory.buffer, scratch, DISPLAY_CODE_STEPS).set(createDisplayCodes(255));
  const params = new Float32Array(memory.buffer, scratch + PARAMS, 48);
  const lines = scratch + TABLES + OCCLUDER_BYTES;

  /** Notes where what is lit lies. */
  function writeLit({ spill, air, shine }: LightPlanes, relief: Relief): void {
    const { reach, normalX, normalY, normalZ, unknownFacing, land, sheen, alpha } = relief;
    const planes = [spill, air, shine, reach, normalX, normalY, normalZ, unknownFacing, land, sheen, alpha];
    new Uint32Array(memory.buffer, scratch + LIT_PLANES, LIT.BYTES / 4).set(planes.map(offset));
  }

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
    params.set(placeOn(small, region));
    exports.enlargeRows(
      ...[out.byteOffset, own.byteOffset, small.data.byteOffset, small.width, small.height],
      ...[scratch + PARAMS, share, region.width, region.height, scratch + LAYERS],
    );
  }

  return {
    mixRows(
      out,
      { plate, night, distance, land },
      layers,
      { ambient, sky, mist, layers: weights },
      rows,
    ) {
      if (layers.length > MOST_LAYERS) throw new Error(`A sum has at most ${MOST_LAYERS} layers.`);
      params.set([ambient, ...mist.color, mist.perMetre, sky]);
      layers.forEach(({ spill, shine, air, source, sourceRows }, k) => {
        const at = scratch + LAYERS + k * LAYER.BYTES;
        const { from, to } = sourceRows;
        const words = [offset(spill), offset(air), offset(source), from, to, offset(shine)];
        new Uint32Array(memory.buffer, at, words.length).set(words);
        const { spill: onPlate, air: inAir, source: onGlass, shine: mirrored } = weights[k];
        new Float32Array(memory.buffer, at + LAYER.SPILL_WEIGHTS, 12).set([...onPlate, ...inAir, ...onGlass, ...mirrored]);
      });
      exports.mixRows(
        ...channels(out),
        ...channels(plate),
        ...channels(night),
        offset(distance),
        offset(land),
        scratch + LAYERS,
        layers.length,
        scratch + PARAMS,
        out.width,
        rows.from,
        rows.to,
      );
    },
    develop(out, light, first, count) {
      params.set([FILM.toe, FILM.inset]);
      exports.develop(
        out.byteOffset + 4 * first,
        ...channels(light, first),
        scratch + PARAMS,
        scratch,
        DISPLAY_CODE_STEPS,
        count,
      );
    },
    nightBase(out, plate, { gains, saturation, grey, hold, holdMiddle }, open, kit, first, count) {
      params.set([
        ...gains,
        saturation,
        ...grey,
        hold,
        holdMiddle ** 2,
        FILM.toe,
        FILM.inset,
        BRIGHTEST,
        DARKEST,
      ]);
      if (kit) {
        const { grade, lut } = kit;
        const { onLuminance, byTone, low, stretch, ceiling } = grade;
        const held = ceiling < 1 ? [ceilingKnee(ceiling), ceilingBend(ceiling)] : [2, 0];
        params.set([onLuminance ? 1 : 0, byTone, low, stretch, ...held, lut ? grade.lut : 0], NIGHT_PARAMS.ON_LUMINANCE / 4);
        if (lut) {
          const spans = lut.domainMax.map((max, c) => (lut.size - 1) / (max - lut.domainMin[c]));
          params.set([lut.dimensions, lut.size, ...lut.domainMin, ...spans], NIGHT_PARAMS.LUT_DIMENSIONS / 4);
        }
      }
      exports.nightBase(
        ...channels(out, first),
        ...channels(plate, first),
        open ? open.byteOffset + 4 * first : 0,
        offset(kit?.tables),
        offset(kit?.lut?.data),
        scratch + PARAMS,
        scratch + PIXELS,
        count,
      );
    },
    spreadLight(out, light, veil, share, region) {
      for (const c of ['r', 'g', 'b'] as const) enlarge(out[c], light[c], { ...veil, data: veil[c] }, share, region);
    },
    addEnlarged: (out, small, by, region) => enlarge(out, by, small, ADDS, region),
    layDabs(out, dabs, soft, region, erase = false) {
      const { width, height } = region;
      for (const dab of dabs) {
        const { x, y, reach, inner, share } = placeDab(dab, soft, region);
        const [left, right] = [Math.max(0, Math.ceil(x - reach)), Math.min(width - 1, Math.floor(x + reach))];
        const [top, bottom] = [Math.max(0, Math.ceil(y - reach)), Math.min(height - 1, Math.floor(y + reach))];
        const box = [left, right, top, bottom];
        exports.layDab(out.byteOffset, width, ...box, x, y, reach, inner, share, erase ? 0 : 1);
      }
    },
    skyLight(out, plate, land, { twilight, town, above, broad, own, cloud }, region) {
      const planes = [...channels(out), offset(cloud && out.cloud), ...channels(plate), land.byteOffset];
      const smalls = [twilight, town].flatMap((dome) => dataOf(dome).map((data) => ({ ...dome, data })));
      params.set([...above, own]);
      exports.skyLight(
        ...[writePlanes(planes), writeSmalls([...smalls, broad, ...(cloud ? [cloud] : [])], region)],
        ...[scratch + PARAMS, lines, region.width, region.height],
      );
    },
    levelling(out, plate, { width, height, line }, sky, region, medianLuminance) {
      const smalls = [line.slope, line.offset, sky.slope, sky.offset].map((data) => ({ width, height, data }));
      exports.levelling(
        ...[writePlanes([out.byteOffset, ...channels(plate)]), writeSmalls(smalls, region)],
        ...[levelOf(medianLuminance), lines, region.width, region.height],
      );
    },
    evenOut(out, plate, shift, amount) {
      const planes = writePlanes([...channels(out), ...channels(plate), shift.byteOffset]);
      exports.evenOut(planes, amount * Math.LN2, shift.length);
    },
    joinSky(out, { night, land, sky }, { ambient, sky: perNit, under, mist, moon }, camera, region) {
      const planes = writePlanes([
        ...[out, night, sky].flatMap((one) => channels(one)),
        ...[land.byteOffset, offset(sky.cloud)],
      ]);
      params.set([...raysOf(camera, region), ambient, perNit, ...under, ...mist.color, mist.perMetre]);
      if (moon) params.set([...moon.toward, ...moon.light, moon.haze], SKY.MOON / 4);
      else params.fill(0, SKY.MOON / 4, SKY.HAZE / 4 + 1);
      exports.joinSky(planes, scratch + PARAMS, moon ? 1 : 0, region.width, region.height);
    },
    addSpikes(out, { left, top, width, height }, spikes, count, { reach, steps }) {
      const table = scratch + LAYERS;
      const room = table + steps.byteLength;
      const most = Math.floor((scratch + TABLES - room) / SPIKE.BYTES);
      new Float32Array(memory.buffer, table, steps.length).set(steps);
      for (let first = 0; first < count; first += most) {
        const some = Math.min(most, count - first);
        const floats = spikes.subarray(SPIKE_STRIDE * first, SPIKE_STRIDE * (first + some));
        new Float32Array(memory.buffer, room, floats.length).set(floats);
        exports.addSpikes(
          ...[out.byteOffset, left, top, width, height, room, some, STEPS / reach],
          ...[table, scratch + PIXELS],
        );
      }
    },
    addGrain(light, settings, deviates, { left, top, width, height, fullWidth }) {
      const { common, own, scale, perWhite, read, perPixel } = grainStrength(settings, fullWidth);
      params.set([common, own, scale, perWhite, read, perPixel]);
      exports.addGrain(
        ...channels(light),
        ...[deviates.byteOffset, scratch + PARAMS, settings.seed, left, top, width, height],
      );
    },
    addLights(out, relief, camera, region, rows, lights, shades, thinned = true) {
      const rays = raysOf(camera, region);
      const block = writeOccluders(memory, scratch + TABLES, shades, camera);
      const room = new Float32Array(memory.buffer, scratch + LAYERS, (MOST_LIGHTS * LIGHT.BYTES) / 4);
      for (let first = 0; first < lights.length; first += MOST_LIGHTS) {
        const some = lights.slice(first, first + MOST_LIGHTS);
        params.set(rays);
        writeLit(out, relief);
        some.forEach((light, k) => room.set(lightFloats(light, camera, region), (k * LIGHT.BYTES) / 4));
        exports.addPointLights(
          scratch + LIT_PLANES,
          scratch + PARAMS,
          scratch + LAYERS,
          some.length,
          block,
          scratch + TABLES + OCCLUDER_BYTES,
          thinned ? 1 : 0,
          region.width,
          rows.from,
          rows.to,
        );
      }
      for (const light of lights) {
        const { facing, focus, airCandela, radius, cutoff = NO_CUTOFF } = light;
        if (focus === undefined || !facing || airCandela === 0) continue;
        const { weight, narrow, least } = beamShape(airCandela, focus);
        const beam = [...facing, weight, narrow, radius * radius, focus, cutoff, least];
        params.set([...rays, ...fromEye(light, camera), ...beam]);
        exports.addBeamAir(offset(out.air), offset(relief.reach), scratch + PARAMS, region.width, rows.from, rows.to);
      }
    },
  };
}

const dataOf = ({ r, g, b }: RgbPlanes) => [r, g, b];

/** Where three planes lie, from one of their pixels on. */
const channels = ({ r, g, b }: RgbPlanes, first = 0) => [r, g, b].map((plane) => plane.byteOffset + 4 * first);
