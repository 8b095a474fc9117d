import type { CubeLut } from '@/core/grade/cube-lut';
import { GRADE_TABLES } from '@/core/grade/grade';
import { nightBase, type GradeKit } from '@/core/night/night-base';
import { surroundings } from '@/core/night/surroundings';
import { toneRange } from '@/core/night/tone-range';
import type { Kernels } from '../kernels';
import { LUT_STRIDE, type GradeRefs, type LutRefs, type TaskOf } from '../task';
import { KERNEL_WIDTH } from './kernel-width';
import type { Views } from './memory-views';

/** Tasks of the night without its lamps. */
export function createNightTasks({ floats, plateAt, band }: Views, kernels?: Kernels) {
  function place({ coverage, outside, stops, region, rows, out }: TaskOf<'place'>): void {
    const { first, count } = band(region, rows);
    const share = floats(coverage, count, first);
    const factors = floats(out, count, first);
    for (let i = 0; i < count; i++) factors[i] *= 2 ** (stops * (outside ? 1 - share[i] : share[i]));
  }

  function surround({ surround: shape, region, rows, out }: TaskOf<'surround'>): void {
    const { part, first, count } = band(region, rows);
    const factors = floats(out, count, first);
    if (shape) surroundings(factors, part, shape);
    else factors.fill(1);
  }

  function lutAt({ data: at, ...lut }: LutRefs): CubeLut {
    const padded = floats(at, LUT_STRIDE * lut.size ** lut.dimensions);
    const data = padded.filter((_, i) => i % LUT_STRIDE < 3);
    return { ...lut, title: '', data };
  }

  const kitAt = ({ grade, tables, lut }: GradeRefs): GradeKit => ({
    grade,
    tables: floats(tables, GRADE_TABLES.length),
    lut: lut && lutAt(lut),
  });

  function range({ plate: refs, width, height, light, open, grade, out }: TaskOf<'range'>): void {
    const factors = open === undefined ? undefined : floats(open, width * height);
    const { low, high } = toneRange(plateAt(refs, width, height), light, kitAt(grade), factors);
    floats(out, 2).set([low, high]);
  }

  function night({ plate: refs, light, open, grade, region, rows, out }: TaskOf<'night'>): void {
    const { part, first, count } = band(region, rows);
    if (kernels && count >= KERNEL_WIDTH) {
      kernels.nightBase(out, refs, light, open, grade, first, count);
      return;
    }
    nightBase(
      plateAt(out, part.width, part.height, first),
      plateAt(refs, part.width, part.height, first),
      light,
      open === undefined ? undefined : floats(open, count, first),
      grade && kitAt(grade),
    );
  }

  return { place, surround, range, night };
}
