import type { FileHandle } from 'node:fs/promises';
import { framedSize } from '@/core/frame/frame';
import { OUTPUT_FORMATS, outputSize, type OutputChoice } from '@/core/output/output-formats';
import type { OutputOrders } from '@/core/output/output-order';
import type { Scene } from '@/core/scene/schema';
import { fileStem } from '../file-names';
import { writeOutput } from '../write-output';
import type { OrderKind, OrderMeans } from './order-kind';

/** Writes one scene's picture. */
export async function writeScene(
  file: FileHandle,
  scene: Scene,
  choice: OutputChoice,
  means: OrderMeans,
): Promise<void> {
  const size = outputSize(framedSize(scene.plate, scene.frame), choice.long);
  await writeOutput(file, { ...means, scene, size }, choice);
}

export const picture: OrderKind<OutputOrders['picture']> = {
  file({ scene, choice }) {
    const { ending, mime } = OUTPUT_FORMATS[choice.format];
    return { name: `${fileStem(scene.title)}.${ending}`, mime };
  },
  async write(file, { scene, choice }, means) {
    await writeScene(file, scene, choice, means);
    return undefined;
  },
};
