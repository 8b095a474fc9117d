import { addPointAir } from '@/core/air/add-point-air';
import { srgb } from '@/core/color/srgb';
import { createDisplayCodes } from '@/core/film/display-codes';
import { addGlobeSource } from '@/core/fixture/add-globe-source';
import { mixPicture } from '@/core/picture/mix-picture';
import { reliefOf, type Relief } from '@/core/plan/relief';
import { surveyPlate } from '@/core/plan/survey';
import { rowsOf, type Region } from '@/core/plane/region';
import { addPointSpill } from '@/core/spill/add-point-spill';
import type { Kernels } from './kernels';
import type { PlaneRef, PlateRefs, ReliefRefs, Rows, SurveyRefs, Task } from './task';

type TaskOf<T extends Task['type']> = Extract<Task, { type: T }>;

/** Kernels work on four pixels at a time; narrower pictures go by their twins. */
const KERNEL_WIDTH = 4;

/** Does tasks on one shared memory, with kernels or with their twins in the core. Tables are made once. */
export function createPerformer(memory: WebAssembly.Memory, kernels?: Kernels): (task: Task) => void {
  const codes = createDisplayCodes(255);
  const decoded = Float32Array.from({ length: 65536 }, (_, code) => srgb.decode(code / 65535));

  const floats = (at: PlaneRef, count: number, first = 0) =>
    new Float32Array(memory.buffer, at + 4 * first, count);
  const plateAt = (refs: PlateRefs, width: number, height: number, first = 0) => ({
    width,
    height,
    r: floats(refs.r, width * height, first),
    g: floats(refs.g, width * height, first),
    b: floats(refs.b, width * height, first),
  });
  const reliefAt = (refs: ReliefRefs, count: number, first: number): Relief => ({
    reach: floats(refs.reach, count, first),
    normalX: floats(refs.normalX, count, first),
    normalY: floats(refs.normalY, count, first),
    normalZ: floats(refs.normalZ, count, first),
    unturned: floats(refs.unturned, count, first),
    land: floats(refs.land, count, first),
  });
  const band = (region: Region, rows: Rows) => {
    const part = rowsOf(region, rows.from, rows.to - rows.from);
    return { part, first: rows.from * region.width, count: part.width * part.height };
  };

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

  function relief({
    plate: refs,
    survey: from,
    surveySize,
    camera,
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
    );
  }

  function layer({ relief: refs, camera, region, rows, base, lights, sources, out }: TaskOf<'layer'>): void {
    const { part, first, count } = band(region, rows);
    const spill = floats(out.spill, count, first);
    const air = floats(out.air, count, first);
    if (base) {
      spill.set(floats(base.spill, count, first));
      air.set(floats(base.air, count, first));
    } else {
      spill.fill(0);
      air.fill(0);
    }
    for (const light of lights) {
      if (kernels && region.width >= KERNEL_WIDTH) {
        kernels.addPointLight(out, refs, camera, region, rows, light);
      } else {
        const land = reliefAt(refs, count, first);
        addPointSpill(spill, land, camera, part, light);
        addPointAir(air, land.reach, camera, part, light);
      }
    }
    const from = Math.max(rows.from, out.sourceRows.from);
    const to = Math.min(rows.to, out.sourceRows.to);
    if (from >= to) return;
    const lampRows = rowsOf(region, from, to - from);
    const lampFirst = (from - out.sourceRows.from) * region.width;
    const source = floats(out.source, lampRows.width * lampRows.height, lampFirst).fill(0);
    for (const globe of sources) addGlobeSource(source, lampRows, globe);
  }

  function mix({ plate: refs, layers, weights, region, rows, out }: TaskOf<'mix'>): void {
    if (kernels && region.width >= KERNEL_WIDTH && layers.length <= kernels.mostLayers) {
      kernels.mixRows(out, refs, layers, weights, region.width, rows);
      return;
    }
    const count = region.width * region.height;
    mixPicture(
      new Uint8ClampedArray(memory.buffer, out, 4 * count),
      plateAt(refs, region.width, region.height),
      layers.map(({ spill, air, source, sourceRows }) => ({
        spill: floats(spill, count),
        air: floats(air, count),
        source: floats(source, region.width * (sourceRows.to - sourceRows.from)),
        sourceRows,
      })),
      weights,
      codes,
      rows,
    );
  }

  return (task) => {
    switch (task.type) {
      case 'plate':
        return plate(task);
      case 'survey':
        return survey(task);
      case 'relief':
        return relief(task);
      case 'layer':
        return layer(task);
      case 'mix':
        return mix(task);
    }
  };
}
