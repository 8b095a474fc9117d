import type { Rgb } from '../color/rgb';
import { srgb } from '../color/srgb';
import { createDisplayCodes } from '../film/display-codes';
import { developLight } from '../film/develop-light';
import { applyLut } from '../grade/apply-lut';
import type { CubeLut } from '../grade/cube-lut';
import { gradeOf, gradeTables, GRADE_TABLES, isPlain, type ToneRange } from '../grade/grade';
import { ambientLight } from '../night/ambient-light';
import { nightBase } from '../night/night-base';
import { faderGain } from '../fields/fader-gain';
import type { Scene } from '../scene/schema';

/** Sides of tables that others read. */
export const TABLE_SIDES = [17, 33, 65] as const;
export type TableSide = (typeof TABLE_SIDES)[number];

/** What was measured on a scene's own photo, as its night stands. */
export interface Measured {
  /** What the photo is multiplied by, as it is metered. */
  gain: number;
  /** The tones that are refitted; none where they are not measured. */
  range?: ToneRange;
  /** The night's own look-up table, where it has one. */
  lut?: CubeLut;
}

const FULL = 65535;

/** Plates of one side's chart: every entry of a table, red fastest, as linear light. */
function chart(side: number) {
  const level = Float32Array.from({ length: side }, (_, i) => srgb.decode(i / (side - 1)));
  const of = (stride: number) =>
    Float32Array.from({ length: side ** 3 }, (_, i) => level[Math.floor(i / stride) % side]);
  return { r: of(1), g: of(side), b: of(side * side), width: side * side, height: side };
}

/**
 * A night as a look-up table: sRGB codes of the day to those of the night under ambient light alone, both 0 to 1. It is the same computation
 * as the picture's, colour by colour.
 */
export function nightTable(
  { night, desk, title }: Pick<Scene, 'night' | 'desk' | 'title'>,
  side: TableSide,
  { gain, range, lut }: Measured,
): CubeLut {
  const plate = chart(side);
  const tables = new Float32Array(GRADE_TABLES.length);
  gradeTables(tables, { shape: night.shape, byTone: { stops: night.byTone.stops, strength: 1 } });
  const kit = isPlain(night) ? undefined : { grade: gradeOf(night, range), tables, lut };
  nightBase(plate, plate, ambientLight(night, gain), undefined, kit);
  const ambient = faderGain(desk.ambient);
  for (const plane of [plate.r, plate.g, plate.b]) for (let i = 0; i < plane.length; i++) plane[i] *= ambient;
  const codes = new Uint16Array(4 * side ** 3);
  developLight(codes, plate, createDisplayCodes(FULL));
  const data = new Float32Array(3 * side ** 3);
  for (let i = 0; i < data.length; i++) data[i] = codes[4 * Math.floor(i / 3) + (i % 3)] / FULL;
  return { dimensions: 3, size: side, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data, title };
}

/** How far a table is off, in codes of 8 bits: on average, and what 95 of 100 channels keep below. */
export interface TableOff {
  mean: number;
  most: number;
}

/**
 * Measures a table against the night that it stands for.
 *
 * @param day interleaved RGB codes, 8 bits
 * @param night the same pixels by night, without lamps
 */
export function tableOff(table: CubeLut, day: ArrayLike<number>, night: ArrayLike<number>): TableOff {
  const off = new Float32Array(day.length);
  for (let i = 0; i < day.length; i += 3) {
    const shown = applyLut(table, [day[i] / 255, day[i + 1] / 255, day[i + 2] / 255] as Rgb);
    shown.forEach((value, c) => (off[i + c] = Math.abs(255 * value - night[i + c])));
  }
  const mean = off.reduce((sum, value) => sum + value, 0) / off.length;
  return { mean, most: off.sort()[Math.floor(0.95 * (off.length - 1))] };
}

/** What of a scene's night goes by place, and so is in no table. */
export function notInTable(scene: Pick<Scene, 'night' | 'desk' | 'places' | 'sky'>): string[] {
  const { night, places, sky } = scene;
  const parts: [boolean, string][] = [
    [sky.from !== 'plate', 'the sky'],
    [night.haze > 0, 'haze'],
    [night.evenOut > 0, 'the evening out of the day'],
    [night.surround.stops !== 0, 'the surroundings'],
    [places.some(({ stops }) => stops !== 0), 'what is set by mattes'],
  ];
  return parts.filter(([is]) => is).map(([, what]) => what);
}

/** Text of a `.cube` file (Cube LUT Specification 1.0). `remarks` come first, a line each. */
export function cubeText({ size, title, data }: CubeLut, remarks: readonly string[] = []): string {
  const lines = remarks.map((remark) => `# ${remark.replace(/[^\x20-\x7e]/g, '?')}`);
  lines.push(`TITLE "${title.replace(/[^\x20-\x7e]|"/g, '?')}"`, `LUT_3D_SIZE ${size}`);
  for (let i = 0; i < data.length; i += 3) {
    lines.push([data[i], data[i + 1], data[i + 2]].map((value) => value.toFixed(6)).join(' '));
  }
  return `${lines.join('\n')}\n`;
}
