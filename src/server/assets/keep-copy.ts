import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/** Keeps something that can be made again, whole or not at all. A full disk only costs the copy. */
export async function keepCopy(path: string, data: Uint8Array): Promise<void> {
  const folder = dirname(path);
  mkdirSync(folder, { recursive: true });
  const temporary = join(folder, randomUUID());
  await writeFile(temporary, data).then(
    () => rename(temporary, path),
    () => rm(temporary, { force: true }),
  );
}
