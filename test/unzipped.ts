import { promisify } from 'node:util';
import { buffer } from 'node:stream/consumers';
import { open, type Entry, type ZipFile } from 'yauzl';

/** All parts of a ZIP by their names, in their order. */
export async function unzipped(path: string): Promise<Map<string, Buffer>> {
  const zip = await promisify<string, { lazyEntries: boolean }, ZipFile>(open as never)(path, {
    lazyEntries: true,
  });
  const parts = new Map<string, Buffer>();
  const stream = promisify(
    zip.openReadStream.bind(zip) as (
      entry: Entry,
      then: (error: Error | null, from: NodeJS.ReadableStream) => void,
    ) => void,
  );
  await new Promise<void>((resolve, reject) => {
    zip.on('error', reject).on('end', resolve);
    zip.on('entry', (entry: Entry) => {
      stream(entry)
        .then((from) => buffer(from as never))
        .then((bytes) => {
          parts.set(entry.fileName, bytes);
          zip.readEntry();
        })
        .catch(reject);
    });
    zip.readEntry();
  });
  return parts;
}
