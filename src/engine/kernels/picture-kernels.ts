import { DISPLAY_CODE_STEPS } from '@/core/film/display-codes';
import { BRIGHTEST, FILM } from '@/core/film/film-response';
import { ceilingBend, ceilingKnee } from '@/core/grade/ceiling';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { Grade } from '@/core/grade/grade';
import { DARKEST } from '@/core/grade/grade-color';
import type { AmbientLight } from '@/core/night/ambient-light';
import type { BasePlanes, LayerPlanes } from '@/core/picture/mix-picture';
import type { Weights } from '@/core/picture/weights';
import type { RgbPlanes } from '@/core/plane/plane';
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

/** Kernels of the night, the sum and the film. */
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
}

/** How many layers find room: more than a scene has fixtures. */
const MOST_LAYERS = Math.floor((TABLES - LAYERS) / LAYER.BYTES);

export function pictureKernels({ exports, memory, scratch, params }: Bound): PictureKernels {
  return {
    mixRows(out, { plate, night, distance, land }, layers, { ambient, sky, mist, layers: weights }, rows) {
      if (layers.length > MOST_LAYERS) throw new Error(`A sum has at most ${MOST_LAYERS} layers.`);
      params.set([ambient, ...mist.color, mist.perMetre, sky]);
      layers.forEach((layer, k) => writeLayer(memory, scratch + LAYERS + k * LAYER.BYTES, layer, weights[k]));
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
      const held = [hold, holdMiddle ** 2];
      params.set([...gains, saturation, ...grey, ...held, FILM.toe, FILM.inset, BRIGHTEST, DARKEST]);
      if (kit) writeGrade(params, kit);
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
  };
}

/** Notes a layer of a sum: where its planes lie, and its weights. */
function writeLayer(
  { buffer }: WebAssembly.Memory,
  at: number,
  { spill, shine, air, source, sourceRows: { from, to } }: LayerPlanes,
  weights: Weights['layers'][number],
): void {
  const words = [offset(spill), offset(air), offset(source), from, to, offset(shine)];
  new Uint32Array(buffer, at, words.length).set(words);
  const { spill: onPlate, air: inAir, source: onGlass, shine: mirrored } = weights;
  const floats = [...onPlate, ...inAir, ...onGlass, ...mirrored];
  new Float32Array(buffer, at + LAYER.SPILL_WEIGHTS, floats.length).set(floats);
}

/** Notes a grade behind the parameters of the ambient light. */
function writeGrade(params: Float32Array, { grade, lut }: KernelGrade): void {
  const { onLuminance, byTone, low, stretch, ceiling } = grade;
  const held = ceiling < 1 ? [ceilingKnee(ceiling), ceilingBend(ceiling)] : [2, 0];
  const shape = [onLuminance ? 1 : 0, byTone, low, stretch, ...held, lut ? grade.lut : 0];
  params.set(shape, NIGHT_PARAMS.ON_LUMINANCE / 4);
  if (!lut) return;
  const spans = lut.domainMax.map((max, c) => (lut.size - 1) / (max - lut.domainMin[c]));
  params.set([lut.dimensions, lut.size, ...lut.domainMin, ...spans], NIGHT_PARAMS.LUT_DIMENSIONS / 4);
}
