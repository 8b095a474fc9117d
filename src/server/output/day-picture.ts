import type { Scene } from '@/core/scene/schema';
import type { Size } from '@/engine/sizes';
import type { PlateReader } from '../plates/plate-codes';
import { regionFor, straightened, type RgbCodes } from './render-picture';

/** The day as the frame shows it, raw RGB codes of `size`. */
export async function dayRgb(
  plates: PlateReader,
  scene: Scene,
  size: Size,
  signal: AbortSignal,
): Promise<RgbCodes> {
  const region = regionFor(scene, size);
  const codes = await plates.read(scene.plate.asset, region, signal);
  const rgb = Uint8Array.from(codes, (code) => code >> 8);
  return straightened(rgb, region, scene, size, signal);
}
