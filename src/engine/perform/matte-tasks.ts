import { LUMINANCE } from '@/core/color/luminance';
import { followEdges } from '@/core/matte/follow-edges';
import { findCastShadow } from '@/core/matte/find-cast-shadow';
import { liftShadow, shadowGains as gainsOfShadow } from '@/core/plan/lift-shadow';
import { firm } from '@/core/plan/firm';
import { creaseTilts, roundTilts, type Tilts } from '@/core/plan/standee-form';
import type { RgbPlanes } from '@/core/plane/plane';
import { findArea } from '@/core/matte/find-area';
import { findColor } from '@/core/matte/find-color';
import { matteCoverage } from '@/core/matte/matte-coverage';
import { findEdge, followEdge } from '@/core/matte/refine-edge';
import { showCoverage } from '@/core/matte/show-coverage';
import { softenPart } from '@/core/matte/soften';
import { bilinearRow } from '@/core/plane/bilinear-row';
import type { ColorLineRefs, PlateRefs, SurveyRefs, TaskOf, TiltRefs } from '../task';
import type { Views } from './memory-views';

/** Tasks on coverages. */
export function createMatteTasks({ memory, floats, plateAt, lineAt, band }: Views) {
  function find({ plate: refs, width, height, pass, survey, out }: TaskOf<'find'>): void {
    const plate = plateAt(refs, width, height);
    const found =
      pass.kind === 'area'
        ? findArea(plate, pass)
        : pass.kind === 'colour'
          ? findColor(plate, pass)
          : followEdges(plate, findCastShadow(plate, groundOf(plate, survey)));
    floats(out.slope, found.slope.length).set(found.slope);
    floats(out.offset, found.offset.length).set(found.offset);
  }

  /** Coverage of a small copy by ground. */
  function groundOf(plate: RgbPlanes, survey?: SurveyRefs): Float32Array {
    const { width, height } = plate;
    const count = width * height;
    if (!survey) return new Float32Array(count);
    const [slope, offset] = [floats(survey.groundSlope, count), floats(survey.groundOffset, count)];
    return Float32Array.from(plate.r, (red, i) => {
      const light = LUMINANCE[0] * red + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i];
      return firm(slope[i] * Math.cbrt(light) + offset[i]);
    });
  }

  function shadowGains(task: TaskOf<'shadowGains'>): void {
    const { width, height, out } = task;
    const plate = plateAt(task.plate, width, height);
    const coverage = floats(task.coverage, width * height);
    gainsOfShadow(plateAt(out, width, height), plate, coverage, groundOf(plate, task.survey));
  }

  function lift({ plate, coverage, gains, gainsSize, amount, region, rows, out }: TaskOf<'lift'>): void {
    const { part, first, count } = band(region, rows);
    const at = (refs: PlateRefs) => plateAt(refs, part.width, part.height, first);
    const small = plateAt(gains, gainsSize.width, gainsSize.height);
    liftShadow(at(out), at(plate), floats(coverage, count, first), small, part, amount);
  }

  function round({ coverage, width, height, out }: TaskOf<'round'>): void {
    putTilts(out, roundTilts(floats(coverage, width * height), width, height));
  }

  function crease({ plate, width, height, out }: TaskOf<'crease'>): void {
    putTilts(out, creaseTilts(plateAt(plate, width, height)));
  }

  function putTilts(out: TiltRefs, { right, up }: Tilts): void {
    floats(out.right, right.length).set(right);
    floats(out.up, up.length).set(up);
  }

  function matte(task: TaskOf<'matte'>): void {
    const { region, rows, foundSize, passes } = task;
    const { part, first, count } = band(region, rows);
    const small = foundSize.width * foundSize.height;
    const lines = new Map(Object.entries(task.found).map(([id, refs]) => [id, lineAt(refs, small)]));
    const brushed = new Map(
      Object.entries(task.brushed).map(([id, { width, height, data }]) => [
        id,
        { width, height, data: floats(data, width * height) },
      ]),
    );
    const mattes = new Map(Object.entries(task.mattes).map(([id, at]) => [id, floats(at, count, first)]));
    const plate = plateAt(task.plate, part.width, part.height, first);
    const inputs = { found: { ...foundSize, lines }, brushed, mattes };
    matteCoverage(floats(task.out, count, first), passes, plate, inputs, part);
  }

  const colorLineAt = (refs: ColorLineRefs, width: number, height: number) => ({
    ...plateAt(refs, width, height),
    offset: floats(refs.offset, width * height),
  });

  function refine({ plate, coverage, region, window, rows, out }: TaskOf<'refine'>): void {
    const { width, height } = region;
    const guide = plateAt(plate, width, height);
    findEdge(colorLineAt(out, width, height), guide, floats(coverage, width * height), window, rows);
  }

  function follow({ lines, linesSize, plate, region, rows, out }: TaskOf<'follow'>): void {
    const { part, first, count } = band(region, rows);
    followEdge(
      floats(out, count, first),
      colorLineAt(lines, linesSize.width, linesSize.height),
      linesSize,
      plateAt(plate, part.width, part.height, first),
      part,
    );
  }

  function soften({ coverage, from, work, invert, region, rows, out }: TaskOf<'soften'>): void {
    const { part, first, count } = band(region, rows);
    const target = floats(out, count, first);
    softenPart(target, part, floats(coverage, from.width * from.height), from, work);
    if (invert) for (let i = 0; i < count; i++) target[i] = 1 - target[i];
  }

  function enlarge({ coverage, size, region, rows, out }: TaskOf<'enlarge'>): void {
    const { part, first } = band(region, rows);
    const data = floats(coverage, size.width * size.height);
    for (let y = 0; y < part.height; y++) {
      bilinearRow(floats(out, part.width, first + y * part.width), { ...size, data }, part, y);
    }
  }

  function show({ coverage, view, region, rows, out }: TaskOf<'show'>): void {
    const { first, count } = band(region, rows);
    const rgba = new Uint8ClampedArray(memory.buffer, out + 4 * first, 4 * count);
    showCoverage(rgba, floats(coverage, count, first), view);
  }

  return { find, shadowGains, lift, round, crease, matte, refine, follow, soften, enlarge, show };
}
