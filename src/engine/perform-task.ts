import { addPointAir } from '@/core/air/add-point-air';
import { srgb } from '@/core/color/srgb';
import { createDisplayCodes } from '@/core/film/display-codes';
import { addGlobeSource } from '@/core/fixture/add-globe-source';
import { mixPicture } from '@/core/picture/mix-picture';
import { reliefOf, type Relief } from '@/core/plan/relief';
import { surveyPlate } from '@/core/plan/survey';
import { evenOut, shadingOf } from '@/core/plan/even-out';
import { nightBase, type GradeKit } from '@/core/night/night-base';
import { surroundings } from '@/core/night/surroundings';
import { toneRange } from '@/core/night/tone-range';
import { GRADE_TABLES } from '@/core/grade/grade';
import { rowsOf, type Region } from '@/core/plane/region';
import { addPointSpill } from '@/core/spill/add-point-spill';
import type { Kernels } from './kernels';
import type { CubeLut } from '@/core/grade/cube-lut';
import { LUT_STRIDE } from './task';
import { findArea } from '@/core/matte/find-area';
import { findColor } from '@/core/matte/find-color';
import { matteCoverage } from '@/core/matte/matte-coverage';
import { showCoverage } from '@/core/matte/show-coverage';
import { bilinearRow } from '@/core/plane/bilinear-row';
import { createBoxBlur } from '@/core/plane/box-blur';
import type {
  GradeRefs,
  LineRefs,
  LutRefs,
  PlaneRef,
  PlateRefs,
  ReliefRefs,
  Rows,
  SurveyRefs,
  Task,
} from './task';

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
    distance: floats(refs.distance, count, first),
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

  function shading({ plate: refs, width, height, out }: TaskOf<'shading'>): void {
    const { line } = shadingOf(plateAt(refs, width, height));
    floats(out.slope, line.slope.length).set(line.slope);
    floats(out.offset, line.offset.length).set(line.offset);
  }

  function even(task: TaskOf<'even'>): void {
    const { region, rows, surveySize } = task;
    const { part, first } = band(region, rows);
    const { sky, middle } = surveyAt(task.survey, surveySize);
    const small = surveySize.width * surveySize.height;
    const line = lineAt(task.shading, small);
    evenOut(
      plateAt(task.out, part.width, part.height, first),
      plateAt(task.plate, part.width, part.height, first),
      { ...surveySize, line },
      sky,
      part,
      task.amount,
      middle,
    );
  }

  const lineAt = ({ slope, offset }: LineRefs, count: number) => ({
    slope: floats(slope, count),
    offset: floats(offset, count),
  });

  function find({ plate: refs, width, height, pass, out }: TaskOf<'find'>): void {
    const plate = plateAt(refs, width, height);
    const found = pass.kind === 'area' ? findArea(plate, pass) : findColor(plate, pass);
    floats(out.slope, found.slope.length).set(found.slope);
    floats(out.offset, found.offset.length).set(found.offset);
  }

  function matte(task: TaskOf<'matte'>): void {
    const { region, rows, foundSize, passes, invert } = task;
    const { part, first, count } = band(region, rows);
    const small = foundSize.width * foundSize.height;
    const lines = new Map(Object.entries(task.found).map(([id, refs]) => [id, lineAt(refs, small)]));
    const coverage = floats(task.out, count, first);
    const plate = plateAt(task.plate, part.width, part.height, first);
    matteCoverage(coverage, passes, plate, { ...foundSize, lines }, part);
    if (invert) for (let i = 0; i < count; i++) coverage[i] = 1 - coverage[i];
  }

  function feather({ coverage, width, height, radius, out }: TaskOf<'feather'>): void {
    const blur = createBoxBlur(width, height, radius);
    const soft = floats(out, width * height);
    blur(soft, floats(coverage, width * height));
    // Three boxes come near a Gaussian.
    blur(soft, soft);
    blur(soft, soft);
  }

  function enlarge({ coverage, size, region, rows, out }: TaskOf<'enlarge'>): void {
    const { part, first } = band(region, rows);
    const data = floats(coverage, size.width * size.height);
    for (let y = 0; y < part.height; y++) {
      bilinearRow(floats(out, part.width, first + y * part.width), { ...size, data }, part, y);
    }
  }

  function place({ coverage, outside, stops, region, rows, out }: TaskOf<'place'>): void {
    const { first, count } = band(region, rows);
    const share = floats(coverage, count, first);
    const factors = floats(out, count, first);
    for (let i = 0; i < count; i++) factors[i] *= 2 ** (stops * (outside ? 1 - share[i] : share[i]));
  }

  function show({ coverage, view, region, rows, out }: TaskOf<'show'>): void {
    const { first, count } = band(region, rows);
    const rgba = new Uint8ClampedArray(memory.buffer, out + 4 * first, 4 * count);
    showCoverage(rgba, floats(coverage, count, first), view);
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
      },
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
      case 'find':
        return find(task);
      case 'matte':
        return matte(task);
      case 'feather':
        return feather(task);
      case 'enlarge':
        return enlarge(task);
      case 'place':
        return place(task);
      case 'show':
        return show(task);
      case 'plate':
        return plate(task);
      case 'survey':
        return survey(task);
      case 'shading':
        return shading(task);
      case 'even':
        return even(task);
      case 'surround':
        return surround(task);
      case 'range':
        return range(task);
      case 'night':
        return night(task);
      case 'relief':
        return relief(task);
      case 'layer':
        return layer(task);
      case 'mix':
        return mix(task);
    }
  };
}
