import { framedSize } from '@/core/frame/frame';
import { outputSize } from '@/core/output/output-formats';
import {
  cubeText,
  nightTable,
  notInTable,
  tableOff,
  type TableOff,
  type TableSide,
} from '@/core/output/night-table';
import { withBurning } from '@/core/picture/layers';
import { RANGES } from '@/core/fields/ranges';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { measuredNight } from '@/engine/readouts/measured-night';
import { loadLut } from '../assets/lut-store';
import type { Workspace } from '../assets/workspace';
import { dayRgb } from './day-picture';
import { renderRgb } from './render-picture';

/** Longer side of the picture that a table is measured on, pixels. */
const MEASURED = 480;

/** A scene's night without lamps, moon, touches and lens. */
function unlit(scene: Scene): Scene {
  const { min } = RANGES.level;
  const desk = { ...scene.desk, moon: min, spikes: min, veil: min };
  return {
    ...withBurning(scene, () => false),
    desk,
    lens: { ...scene.lens, grain: { ...scene.lens.grain, iso: 0 } },
  };
}

/** A night as a table, as the text of a `.cube` file, and how far it is off on the scene's own photo. */
export async function writeTable(
  { dataDir, plates }: Pick<Workspace, 'dataDir' | 'plates'>,
  renderer: Renderer,
  scene: Scene,
  side: TableSide,
  signal: AbortSignal,
): Promise<{ text: string; off: TableOff; missing: string[] }> {
  const { lut: own } = scene.night;
  const measured = await renderer.read(measuredNight(scene), signal);
  const lut = own && own.strength > 0 ? await loadLut(dataDir, own.asset) : undefined;
  const table = nightTable(scene, side, { ...measured, lut });
  const size = outputSize(framedSize(scene.plate, scene.frame), MEASURED);
  const day = await dayRgb(plates, scene, size, signal);
  const night = await renderRgb(renderer, unlit(scene), size, signal);
  const off = tableOff(table, day, night);
  const missing = notInTable(scene);
  const remarks = [
    'sRGB in, sRGB out. The night under its ambient light alone, as it is metered on its own photo.',
    `On that photo it is off by ${off.mean.toFixed(2)} of 255 on average, 95 of 100 by less than ${off.most.toFixed(1)}.`,
    ...(missing.length > 0 ? [`Not in it, since it goes by place: ${missing.join(', ')}.`] : []),
  ];
  return { text: cubeText(table, remarks), off, missing };
}
