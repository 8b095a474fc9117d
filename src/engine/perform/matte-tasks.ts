import { findArea } from '@/core/matte/find-area';
import { findColor } from '@/core/matte/find-color';
import { matteCoverage } from '@/core/matte/matte-coverage';
import { findEdge, followEdge } from '@/core/matte/refine-edge';
import { showCoverage } from '@/core/matte/show-coverage';
import { edgeMargin, soften as softenEdge, withMargin } from '@/core/matte/soften';
import { bilinearRow } from '@/core/plane/bilinear-row';
import type { ColorLineRefs, TaskOf } from '../task';
import type { Views } from './memory-views';

/** Tasks on coverages. */
export function createMatteTasks({ memory, floats, plateAt, lineAt, band }: Views) {
  function find({ plate: refs, width, height, pass, out }: TaskOf<'find'>): void {
    const plate = plateAt(refs, width, height);
    const found = pass.kind === 'area' ? findArea(plate, pass) : findColor(plate, pass);
    floats(out.slope, found.slope.length).set(found.slope);
    floats(out.offset, found.offset.length).set(found.offset);
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

  function refine({ plate, coverage, width, height, window, out }: TaskOf<'refine'>): void {
    const guide = plateAt(plate, width, height);
    findEdge(colorLineAt(out, width, height), guide, floats(coverage, width * height), window);
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
    const area = withMargin(part, edgeMargin(work));
    const own = new Float32Array(area.width * area.height);
    for (let y = 0; y < area.height; y++) {
      const at = (area.top - from.top + y) * from.width + area.left - from.left;
      own.set(floats(coverage, area.width, at), y * area.width);
    }
    softenEdge(own, area, work);
    const target = floats(out, count, first);
    for (let y = 0; y < part.height; y++) {
      const at = (part.top - area.top + y) * area.width + part.left - area.left;
      target.set(own.subarray(at, at + part.width), y * part.width);
    }
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

  return { find, matte, refine, follow, soften, enlarge, show };
}
