import type { FileHandle } from 'node:fs/promises';
import { OUTPUT_FORMATS, type OutputChoice } from '@/core/output/output-formats';
import { toldFacts } from '@/core/output/photo-facts';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import type { Size } from '@/engine/sizes';
import { assetPath, writeWhole } from '../assets/asset-store';
import type { Workspace } from '../assets/workspace';
import { encodePicture } from './encode-picture';
import { readPhotoFacts } from './read-photo-facts';
import { renderRgb } from './render-picture';
import { writeExr } from './write-exr';
import { writeOra } from './write-ora';

/** What an output is made with. */
export interface OutputWork {
  renderer: Renderer;
  space: Pick<Workspace, 'dataDir' | 'plates'>;
  scene: Scene;
  /** Of the picture, pixels. */
  size: Size;
  signal: AbortSignal;
  /** Gets 0 to 1. */
  onProgress: (done: number) => void;
}

/** Share of the work that encoding a picture takes. */
const ENCODING = 0.1;

async function writePicture(file: FileHandle, work: OutputWork, choice: OutputChoice): Promise<void> {
  const { renderer, space, scene, size, signal, onProgress } = work;
  const rendering = (done: number) => onProgress(done * (1 - ENCODING));
  const { bits } = OUTPUT_FORMATS[choice.format];
  const { facts = 'placeless' } = choice;
  const photo = facts === 'none' ? {} : await readPhotoFacts(assetPath(space.dataDir, scene.plate.asset));
  const told = toldFacts(scene, photo, facts);
  const rgb = await renderRgb(renderer, scene, size, signal, rendering, 'later', bits);
  const data = await encodePicture(rgb, size, choice, told);
  signal.throwIfAborted();
  await writeWhole(file, data);
}

/** Writes a scene in a format to a file that is open and empty. The server's jobs and the command line come here. */
export async function writeOutput(file: FileHandle, work: OutputWork, choice: OutputChoice): Promise<void> {
  work.signal.throwIfAborted();
  switch (choice.format) {
    case 'exr':
      return writeExr(file, work);
    case 'ora':
      return writeOra(file, work);
    default:
      return writePicture(file, work, choice);
  }
}
