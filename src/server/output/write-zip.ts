import type { FileHandle } from 'node:fs/promises';
import type { ZipFile } from 'yazl';
import { writeWhole } from '../assets/asset-store';

/** Writes a ZIP to which nothing more is added. */
export async function writeZip(file: FileHandle, zip: ZipFile, signal: AbortSignal): Promise<void> {
  zip.end();
  for await (const chunk of zip.outputStream) {
    signal.throwIfAborted();
    await writeWhole(file, chunk as Uint8Array);
  }
}
