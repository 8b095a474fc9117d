import { addBeamAir } from '@/core/air/add-beam-air';
import { addPointAir } from '@/core/air/add-point-air';
import { createDisplayCodes } from '@/core/film/display-codes';
import { addVisibleSource } from '@/core/fixture/shapes';
import { applyGrip } from '@/core/picture/grip';
import { addHeld } from '@/core/picture/add-held';
import { mixPicture } from '@/core/picture/mix-picture';
import { RELIEF_PLANES, type Relief } from '@/core/plan/relief';
import { bilinearRow } from '@/core/plane/bilinear-row';
import { rowsOf } from '@/core/plane/region';
import { addPointSpill } from '@/core/spill/add-point-spill';
import { BOUNCE_STRIDE, bounceLights, gatherBounce } from '@/core/spill/bounce';
import { occlude, type Occluders } from '@/core/spill/occlusion';
import { SOFT_LEVELS, softenCoverage } from '@/core/spill/soft-coverage';
import type { Kernels } from '../kernels';
import { fitsOccluders } from '../occluder-block';
import type { OccluderRefs, SeenCoverageRefs, TaskOf } from '../task';
import { KERNEL_WIDTH } from './kernel-width';
import type { Views } from './memory-views';

/** Tasks of what lamps do, and of the sum. */
export function createLayerTasks({ memory, floats, plateAt, reliefAt, band }: Views, kernels?: Kernels) {
  const codes = createDisplayCodes(255);

  /** What casts shadows; undefined where nothing does. */
  function shadesAt({ walls, decks, standees, ends }: OccluderRefs): Occluders | undefined {
    if (walls.length + decks.length + standees.length === 0) return undefined;
    const opened = <T extends SeenCoverageRefs>(refs: T) => ({
      ...refs,
      levels: floats(refs.levels, SOFT_LEVELS * refs.width * refs.height),
    });
    const endings = Object.entries(ends).map(([matte, refs]) => [matte, opened(refs)] as const);
    return { walls, decks, standees: standees.map(opened), ends: Object.fromEntries(endings) };
  }

  function prefilter({ coverage, width, height, out }: TaskOf<'prefilter'>): void {
    const count = width * height;
    softenCoverage(floats(out, SOFT_LEVELS * count), { width, height, data: floats(coverage, count) });
  }

  function layer(task: TaskOf<'layer'>): void {
    const { relief: refs, camera, region, rows, base, occluders, bounce, lights, sources, plate, out } = task;
    const { part, first, count } = band(region, rows);
    const spill = floats(out.spill, count, first);
    const air = floats(out.air, count, first);
    const shine = out.shine === undefined ? undefined : floats(out.shine, count, first);
    if (base) {
      spill.set(floats(base.spill, count, first));
      air.set(floats(base.air, count, first));
      if (shine && base.shine !== undefined) shine.set(floats(base.shine, count, first));
    } else {
      spill.fill(0);
      air.fill(0);
      shine?.fill(0);
    }
    const land = reliefAt(refs, count, first);
    const shades = shadesAt(occluders);
    const quick = region.width >= KERNEL_WIDTH && fitsOccluders(occluders) ? kernels : undefined;
    quick?.addPointLights(out, refs, camera, region, rows, lights, occluders);
    for (const light of quick ? [] : lights) {
      addPointAir(air, land.reach, camera, part, light);
      addBeamAir(air, land.reach, camera, part, light);
      if (!shades) {
        addPointSpill(spill, land, camera, part, light, shine);
        continue;
      }
      const [lit, shone] = [new Float32Array(count), shine && new Float32Array(count)];
      addPointSpill(lit, land, camera, part, light, shone);
      const seen = Float32Array.from(lit, (value, i) => (value > 0 || (shone && shone[i] > 0) ? 1 : 0));
      occlude(seen, land, camera, part, light, shades);
      for (let i = 0; i < count; i++) spill[i] += lit[i] * seen[i];
      if (shine && shone) for (let i = 0; i < count; i++) shine[i] += shone[i] * seen[i];
    }
    if (bounce) {
      const { width, height } = bounce;
      const row = new Float32Array(part.width);
      for (let y = 0, i = 0; y < part.height; y++) {
        bilinearRow(row, { width, height, data: floats(bounce.data, width * height) }, part, y);
        for (let x = 0; x < part.width; x++, i++) spill[i] += land.land[i] * row[x];
      }
    }
    const from = Math.max(rows.from, out.sourceRows.from);
    const to = Math.min(rows.to, out.sourceRows.to);
    if (from >= to) return;
    const lampRows = rowsOf(region, from, to - from);
    const lampFirst = (from - out.sourceRows.from) * region.width;
    const source = floats(out.source, lampRows.width * lampRows.height, lampFirst).fill(0);
    const beneath = plateAt(plate, lampRows.width, lampRows.height, from * region.width);
    for (const seen of sources) addVisibleSource(source, lampRows, seen, beneath);
  }

  function bounce(task: TaskOf<'bounce'>): void {
    const { size, camera, blocks, every, region } = task;
    const count = size.width * size.height;
    const relief = reliefAt(task.relief, count, 0);
    const plate = plateAt(task.plate, size.width, size.height);
    const { columns, rows: lines } = blocks;
    const lights = new Float32Array(BOUNCE_STRIDE * columns * lines);
    const spill = floats(task.spill, count);
    const used = bounceLights(lights, relief, plate, spill, camera, task.middle, columns, lines);
    const own = region.width * region.height;
    // What is lit is looked at in the middle of each square of pixels.
    const middle = (cell: number, side: number) => Math.min(side - 1, cell * every + (every >> 1));
    const at = Int32Array.from(
      { length: own },
      (_, i) =>
        middle(Math.floor(i / region.width), size.height) * size.width + middle(i % region.width, size.width),
    );
    const picked = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, Float32Array.from(at, (from) => relief[name][from])]),
    ) as unknown as Relief;
    gatherBounce(floats(task.out, own), lights, used, picked, camera, region);
  }

  function grip({ spill, plate, grip: taken, region, rows, out }: TaskOf<'grip'>): void {
    const { part, first, count } = band(region, rows);
    const beneath = plateAt(plate, part.width, part.height, first);
    applyGrip(floats(out, count, first), floats(spill, count, first), beneath, taken);
  }

  function hold({ parts, region, rows, out }: TaskOf<'hold'>): void {
    const { width } = region;
    const { first, count } = band(region, rows);
    const [spill, air] = [floats(out.spill, count, first).fill(0), floats(out.air, count, first).fill(0)];
    const shine = out.shine === undefined ? undefined : floats(out.shine, count, first).fill(0);
    const from = Math.max(rows.from, out.sourceRows.from);
    const to = Math.min(rows.to, out.sourceRows.to);
    const rowsAt = (at: number, top: number, a: number, b: number) =>
      floats(at, Math.max(0, b - a) * width, (a - top) * width);
    if (from < to) rowsAt(out.source, out.sourceRows.from, from, to).fill(0);
    for (const { layer: part, behind, only } of parts) {
      const share = only && floats(only.coverage, count, first);
      addHeld(spill, floats(part.spill, count, first), share, only?.outside);
      if (shine && part.shine !== undefined)
        addHeld(shine, floats(part.shine, count, first), share, only?.outside);
      addHeld(
        air,
        floats(part.air, count, first),
        behind === undefined ? undefined : floats(behind, count, first),
        true,
      );
      const a = Math.max(from, part.sourceRows.from);
      const b = Math.min(to, part.sourceRows.to);
      if (a >= b) continue;
      addHeld(
        rowsAt(out.source, out.sourceRows.from, a, b),
        rowsAt(part.source, part.sourceRows.from, a, b),
        behind === undefined ? undefined : rowsAt(behind, 0, a, b),
        true,
      );
    }
  }

  function mix({ base, layers, weights, region, rows, out }: TaskOf<'mix'>): void {
    if (kernels && region.width >= KERNEL_WIDTH && layers.length <= kernels.mostLayers) {
      kernels.mixRows(out, base, layers, weights, region.width, rows);
      return;
    }
    const count = region.width * region.height;
    mixPicture(
      new Uint8ClampedArray(memory.buffer, out, 4 * count),
      {
        plate: plateAt(base.plate, region.width, region.height),
        night: plateAt(base.night, region.width, region.height),
        distance: floats(base.distance, count),
        land: floats(base.land, count),
      },
      layers.map(({ spill, shine, air, source, sourceRows }) => ({
        spill: floats(spill, count),
        shine: shine === undefined ? undefined : floats(shine, count),
        air: floats(air, count),
        source: floats(source, region.width * (sourceRows.to - sourceRows.from)),
        sourceRows,
      })),
      weights,
      codes,
      rows,
    );
  }

  return { layer, bounce, prefilter, grip, hold, mix };
}
