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
  addPointLight: (...args: number[]) => void;
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
  addPointLight: (
    out: LayerRefs,
    relief: ReliefRefs,
    camera: Camera,
    region: Region,
    rows: Rows,
    light: PointLight,
    /** Must fit, as `fitsOccluders` says. */
    occluders: OccluderRefs,
  ) => void;
}

/** Bytes of the scratch for tables and parameters; what casts shadows lies behind them. */
const TABLES = 65536;

/** Bytes of shared memory that one worker's kernels need. */
export const KERNEL_SCRATCH = TABLES + OCCLUDER_BYTES;

/* Layout of the tables: display codes, parameters, four pixels, then a row of LAYER_BYTES a layer. */
const PARAMS = DISPLAY_CODE_STEPS;
const PIXELS = PARAMS + 256;
const LAYERS = PIXELS + 64;
const LAYER_BYTES = 72;

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
    addPointLight(out, relief, camera, region, rows, light, occluders) {
      const sight = sightOf(camera, region, light);
      params.set([
        ...sight,
        light.spillCandela,
        light.focus === undefined ? light.airCandela / (4 * Math.PI) : 0,
        light.radius * light.radius,
        light.radius,
        ...(light.facing ?? [0, 0, 0]),
        light.facing ? (light.even ?? 0) : 1,
        light.focus ?? 0,
        light.cutoff ?? NO_CUTOFF,
      ]);
      const block = writeOccluders(memory, scratch + TABLES, occluders, camera, light);
      exports.addPointLight(
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
        block,
        region.width,
        rows.from,
        rows.to,
      );
      const { facing, focus, airCandela, radius, cutoff = NO_CUTOFF } = light;
      if (focus === undefined || !facing || airCandela === 0) return;
      const { weight, narrow, least } = beamShape(airCandela, focus);
      params.set([...sight, ...facing, weight, narrow, radius * radius, focus, cutoff, least]);
      exports.addBeamAir(out.air, relief.reach, scratch + PARAMS, region.width, rows.from, rows.to);
    },
  };
}

/** View rays at a region's first pixel and from pixel to pixel, and a light's place from the eye. */
function sightOf(
  { corner, across, down, eyeHeight }: Camera,
  region: Region,
  { place }: PointLight,
): number[] {
  const u = (region.left + 0.5) / region.fullWidth;
  const v = (region.top + 0.5) / region.fullHeight;
  const axes = [0, 1, 2] as const;
  return [
    ...axes.map((c) => corner[c] + u * across[c] + v * down[c]),
    ...axes.map((c) => across[c] / region.fullWidth),
    ...axes.map((c) => down[c] / region.fullHeight),
    place[0],
    place[1],
    place[2] - eyeHeight,
  ];
}
