import { srgb } from '@/core/color/srgb';
import { evenOut, levelling as findLevelling, shadingOf } from '@/core/plan/even-out';
import { reliefOf } from '@/core/plan/relief';
import { surveyPlate } from '@/core/plan/survey';
import type { PlaneRef, PlateRefs, SurveyRefs, TaskOf, TiltPicture } from '../task';
import type { Views } from './memory-views';

/** Tasks on the plate and its ground plan. */
export function createPlateTasks({ memory, floats, plateAt, lineAt, reliefAt, band }: Views) {
  const decoded = Float32Array.from({ length: 65536 }, (_, code) => srgb.decode(code / 65535));

  function plate({ codes: at, region, rows, out }: TaskOf<'plate'>): void {
    const { first, count } = band(region, rows);
    const source = new Uint16Array(memory.buffer, at + 6 * first, 3 * count);
    const { r, g, b } = plateAt(out, region.width, rows.to - rows.from, first);
    for (let i = 0, from = 0; i < count; i++, from += 3) {
      r[i] = decoded[source[from]];
      g[i] = decoded[source[from + 1]];
      b[i] = decoded[source[from + 2]];
    }
  }

  function survey({ plate: refs, width, height, horizon, out }: TaskOf<'survey'>): void {
    const found = surveyPlate(plateAt(refs, width, height), horizon);
    const put = (at: PlaneRef, data: Float32Array) => floats(at, data.length).set(data);
    put(out.groundSlope, found.ground.slope);
    put(out.groundOffset, found.ground.offset);
    put(out.skySlope, found.sky.slope);
    put(out.skyOffset, found.sky.offset);
    put(out.feet, found.feet);
    floats(out.middle, 1)[0] = found.middle;
  }

  const surveyAt = (refs: SurveyRefs, { width, height }: { width: number; height: number }) => ({
    width,
    height,
    ground: {
      slope: floats(refs.groundSlope, width * height),
      offset: floats(refs.groundOffset, width * height),
    },
    sky: { slope: floats(refs.skySlope, width * height), offset: floats(refs.skyOffset, width * height) },
    feet: floats(refs.feet, width * height),
    middle: floats(refs.middle, 1)[0],
  });

  function shading({ plate: refs, width, height, out }: TaskOf<'shading'>): void {
    const { line } = shadingOf(plateAt(refs, width, height));
    floats(out.slope, line.slope.length).set(line.slope);
    floats(out.offset, line.offset.length).set(line.offset);
  }

  function levelling(task: TaskOf<'levelling'>): void {
    const { region, rows, surveySize } = task;
    const { part, first, count } = band(region, rows);
    const { sky, middle } = surveyAt(task.survey, surveySize);
    const line = lineAt(task.shading, surveySize.width * surveySize.height);
    const plate = plateAt(task.plate, part.width, part.height, first);
    findLevelling(floats(task.out, count, first), plate, { ...surveySize, line }, sky, part, middle);
  }

  function even({ plate, shift, amount, region, rows, out }: TaskOf<'even'>): void {
    const { part, first, count } = band(region, rows);
    const at = (refs: PlateRefs) => plateAt(refs, part.width, part.height, first);
    evenOut(at(out), at(plate), floats(shift, count, first), amount);
  }

  const tiltsAt = (tilts?: TiltPicture) =>
    tilts && {
      ...tilts,
      right: floats(tilts.right, tilts.width * tilts.height),
      up: floats(tilts.up, tilts.width * tilts.height),
    };

  function relief({
    plate: refs,
    survey: from,
    surveySize,
    camera,
    surfaces,
    region,
    rows,
    out,
  }: TaskOf<'relief'>): void {
    const { part, first, count } = band(region, rows);
    reliefOf(
      reliefAt(out, count, first),
      plateAt(refs, part.width, part.height, first),
      surveyAt(from, surveySize),
      camera,
      part,
      {
        ...surfaces,
        wet: surfaces.wet === undefined ? undefined : floats(surfaces.wet, count, first),
        folds: tiltsAt(surfaces.folds),
        standees: surfaces.standees.map((standee) => ({
          ...standee,
          coverage: floats(standee.coverage, count, first),
          round: tiltsAt(standee.round),
        })),
        ends: Object.fromEntries(
          Object.entries(surfaces.ends).map(([id, at]) => [id, floats(at, count, first)]),
        ),
      },
    );
  }

  return { plate, survey, shading, levelling, even, relief };
}
