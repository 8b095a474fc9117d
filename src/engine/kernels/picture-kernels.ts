import { levelOf, type evenOut, type levelling } from '@/core/day/even-out';
import { DISPLAY_CODE_STEPS } from '@/core/film/display-codes';
import { BRIGHTEST, FILM } from '@/core/film/film-response';
import { ceilingBend, ceilingKnee } from '@/core/grade/ceiling';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { Grade } from '@/core/grade/grade';
import { DARKEST } from '@/core/grade/grade-color';
import { placeDab, type LayDabs } from '@/core/matte/paint-coverage';
import type { AmbientLight } from '@/core/night/ambient-light';
import type { BasePlanes, LayerPlanes } from '@/core/picture/mix-picture';
import type { Weights } from '@/core/picture/weights';
import type { Plane, RgbPlanes } from '@/core/plane/plane';
import type { Region } from '@/core/plane/region';
import type { Rows } from '../graph/task';
import { channels, LAYERS, offset, PARAMS, PIXELS, TABLES, type Bound } from './bound';
import { LAYER, NIGHT_PARAMS } from './layout';

/** Floats an entry of a look-up table: one load a corner. */
export const LUT_STRIDE = 4;

/** A grade with its tables; the look-up table's entries take LUT_STRIDE floats each. */
export interface KernelGrade {
  grade: Grade;
  tables: Float32Array;
  lut?: Omit<CubeLut, 'title'>;
}

/** Kernels of the plate, the night and the sum. */
export interface PictureKernels {
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
  /** As `addEnlarged` of the core. */
  addEnlarged: (out: Float32Array, small: Plane, by: Float32Array, region: Region) => void;
  /** As `layDabs` of the core. */
  layDabs: LayDabs;
  /** As those of the core. */
  levelling: typeof levelling;
  evenOut: typeof evenOut;
}

/** How many layers find room: more than a scene has fixtures. */
const MOST_LAYERS = Math.floor((TABLES - LAYERS) / LAYER.BYTES);

/** Says that a small picture is to be added. */
const ADDS = -1;

export function pictureKernels({
  exports,
  memory,
  scratch,
  params,
  room,
  writePlanes,
  writeSmalls,
  enlarge,
}: Bound): PictureKernels {
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
    levelling(out, plate, { width, height, line }, sky, region, medianLuminance) {
      const smalls = [line.slope, line.offset, sky.slope, sky.offset].map((data) => ({ width, height, data }));
      exports.levelling(
        ...[writePlanes([out.byteOffset, ...channels(plate)]), writeSmalls(smalls, region)],
        ...[levelOf(medianLuminance), room, region.width, region.height],
      );
    },
    evenOut(out, plate, shift, amount) {
      const planes = writePlanes([...channels(out), ...channels(plate), shift.byteOffset]);
      exports.evenOut(planes, amount * Math.LN2, shift.length);
    },
  };
}
