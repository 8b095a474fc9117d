import { createDisplayCodes, DISPLAY_CODE_STEPS } from '@/core/film/display-codes';
import { BRIGHTEST, FILM } from '@/core/film/film-response';
import { ceilingBend, ceilingKnee } from '@/core/grade/ceiling';
import { DARKEST } from '@/core/grade/grade-color';
import type { AmbientLight } from '@/core/night/ambient-light';
import { HOLD_MIDDLE } from '@/core/night/highlight-hold';
import type { Weights } from '@/core/picture/weights';
import type { Camera } from '@/core/plan/camera';
import type { Region } from '@/core/plane/region';
import { beamShape } from '@/core/air/add-beam-air';
import { NO_CUTOFF, type PointLight } from '@/core/spill/point-light';
import { OCCLUDER_BYTES, writeOccluders } from './occluder-block';
import type {
  BaseRefs,
  GradeRefs,
  LayerRefs,
  OccluderRefs,
  PlaneRef,
  PlateRefs,
  ReliefRefs,
  Rows,
} from './task';

/** What `kernels/` exports. All arguments are numbers: byte offsets into the shared memory, and counts. */
interface KernelExports {
  mixRows: (...args: number[]) => void;
  addPointLights: (...args: number[]) => void;
  addBeamAir: (...args: number[]) => void;
  nightBase: (...args: number[]) => void;
}

/** The hot loops as SIMD, on the planes of a shared memory. */
export interface Kernels {
  mostLayers: number;
  mixRows: (
    out: PlaneRef,
    base: BaseRefs,
    layers: LayerRefs[],
    weights: Weights,
    width: number,
    rows: Rows,
  ) => void;
  /** `first` and `count`: which pixels of the planes, at least four. */
  nightBase: (
    out: PlateRefs,
    plate: PlateRefs,
    light: AmbientLight,
    open: PlaneRef | undefined,
    grade: GradeRefs | undefined,
    first: number,
    count: number,
  ) => void;
  addPointLights: (
    out: LayerRefs,
    relief: ReliefRefs,
    camera: Camera,
    region: Region,
    rows: Rows,
    lights: readonly PointLight[],
    /** Must fit, as `fitsOccluders` says. */
    occluders: OccluderRefs,
  ) => void;
}

/** Bytes of the scratch for tables and parameters; what casts shadows lies behind them. */
const TABLES = 65536;

/** Bytes for a tile and a list of what casts shadows on it: a word each, of which none takes less than 16 bytes of the block. */
const TILE_BYTES = 20480 + OCCLUDER_BYTES / 4;

/** Bytes of shared memory that one worker's kernels need. */
export const KERNEL_SCRATCH = TABLES + OCCLUDER_BYTES + TILE_BYTES;

/* Layout of the tables: display codes, parameters, four pixels, then a row of LAYER_BYTES a layer. */
const PARAMS = DISPLAY_CODE_STEPS;
const PIXELS = PARAMS + 256;
const LAYERS = PIXELS + 64;
const LAYER_BYTES = 72;

/** Floats of a light, and how many find room where else the layers lie. */
const LIGHT = 16;
const MOST_LIGHTS = Math.floor((TABLES - LAYERS) / (4 * LIGHT));

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

  return {
    mostLayers: Math.floor((TABLES - LAYERS) / LAYER_BYTES),
    mixRows(
      out,
      { plate, night, distance, land },
      layers,
      { ambient, sky, mist, layers: weights },
      width,
      rows,
    ) {
      params.set([ambient, ...mist.color, FILM.toe, FILM.inset, mist.perMetre, sky]);
      layers.forEach(({ spill, shine, air, source, sourceRows }, k) => {
        const at = scratch + LAYERS + k * LAYER_BYTES;
        const refs = [spill, air, source, sourceRows.from, sourceRows.to, shine ?? 0];
        new Uint32Array(memory.buffer, at, refs.length).set(refs);
        const { spill: onPlate, air: inAir, source: onGlass, shine: mirrored } = weights[k];
        new Float32Array(memory.buffer, at + 24, 12).set([...onPlate, ...inAir, ...onGlass, ...mirrored]);
      });
      exports.mixRows(
        out,
        plate.r,
        plate.g,
        plate.b,
        night.r,
        night.g,
        night.b,
        distance,
        land,
        scratch + LAYERS,
        layers.length,
        scratch + PARAMS,
        scratch,
        DISPLAY_CODE_STEPS,
        width,
        rows.from,
        rows.to,
      );
    },
    nightBase(out, plate, { gains, saturation, grey, hold }, open, refs, first, count) {
      params.set([
        ...gains,
        saturation,
        ...grey,
        hold,
        HOLD_MIDDLE ** 2,
        FILM.toe,
        FILM.inset,
        BRIGHTEST,
        DARKEST,
      ]);
      if (refs) {
        const { grade, lut } = refs;
        const { onLuminance, byTone, low, stretch, ceiling } = grade;
        const held = ceiling < 1 ? [ceilingKnee(ceiling), ceilingBend(ceiling)] : [2, 0];
        params.set([onLuminance ? 1 : 0, byTone, low, stretch, ...held, lut ? grade.lut : 0], 13);
        if (lut) {
          const spans = lut.domainMax.map((max, c) => (lut.size - 1) / (max - lut.domainMin[c]));
          params.set([lut.dimensions, lut.size, ...lut.domainMin, ...spans], 20);
        }
      }
      const at = 4 * first;
      exports.nightBase(
        out.r + at,
        out.g + at,
        out.b + at,
        plate.r + at,
        plate.g + at,
        plate.b + at,
        open === undefined ? 0 : open + at,
        refs?.tables ?? 0,
        refs?.lut?.data ?? 0,
        scratch + PARAMS,
        scratch + PIXELS,
        count,
      );
    },
    addPointLights(out, relief, camera, region, rows, lights, occluders) {
      const rays = raysOf(camera, region);
      const block = writeOccluders(memory, scratch + TABLES, occluders, camera);
      const room = new Float32Array(memory.buffer, scratch + LAYERS, MOST_LIGHTS * LIGHT);
      for (let first = 0; first < lights.length; first += MOST_LIGHTS) {
        const some = lights.slice(first, first + MOST_LIGHTS);
        params.set(rays);
        some.forEach((light, k) => room.set(lightFloats(light, camera), k * LIGHT));
        exports.addPointLights(
          out.spill,
          out.air,
          out.shine ?? 0,
          relief.reach,
          relief.normalX,
          relief.normalY,
          relief.normalZ,
          relief.unturned,
          relief.land,
          relief.sheen,
          relief.alpha,
          scratch + PARAMS,
          scratch + LAYERS,
          some.length,
          block,
          scratch + TABLES + OCCLUDER_BYTES,
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
        exports.addBeamAir(out.air, relief.reach, scratch + PARAMS, region.width, rows.from, rows.to);
      }
    },
  };
}

/** Share of a beam's greatest intensity under which it has ended: what falls beside it is not looked at. */
const BEAM_END = 1e-7;

/** A light as `kernels/point-light.ts` reads it. */
function lightFloats(light: PointLight, camera: Camera): number[] {
  const { spillCandela, airCandela, radius, facing, even = 0, focus, cutoff = NO_CUTOFF } = light;
  return [
    ...fromEye(light, camera),
    spillCandela,
    focus === undefined ? airCandela / (4 * Math.PI) : 0,
    radius * radius,
    radius,
    ...(facing ?? [0, 0, 0]),
    facing ? even : 1,
    focus ?? 0,
    cutoff,
    facing ? 1 : 0,
    even > 0 ? 0 : BEAM_END ** (2 / 2 ** (focus ?? 0)),
  ];
}

const fromEye = ({ place: [x, y, z] }: PointLight, { eyeHeight }: Camera) => [x, y, z - eyeHeight];

/** View rays at a region's first pixel and from pixel to pixel. */
function raysOf({ corner, across, down }: Camera, region: Region): number[] {
  const u = (region.left + 0.5) / region.fullWidth;
  const v = (region.top + 0.5) / region.fullHeight;
  const axes = [0, 1, 2] as const;
  return [
    ...axes.map((c) => corner[c] + u * across[c] + v * down[c]),
    ...axes.map((c) => across[c] / region.fullWidth),
    ...axes.map((c) => down[c] / region.fullHeight),
  ];
}
