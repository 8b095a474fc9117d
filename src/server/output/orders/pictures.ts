import { open, rm } from 'node:fs/promises';
import { ZipFile } from 'yazl';
import { OUTPUT_FORMATS } from '@/core/output/output-formats';
import type { OutputOrders } from '@/core/output/output-order';
import { isAbort } from '@/engine/aborted';
import { diskFull } from '../../http/app-error';
import { fileStem, numbered } from '../file-names';
import { writeZip } from '../write-zip';
import type { OrderKind } from './order-kind';
import { writeScene } from './picture';

/** Share of the work that packing takes. */
const PACKING = 0.05;

/** Pictures of several scenes in one ZIP. One that cannot be made is missing, and the others go out all the same. */
export const pictures: OrderKind<OutputOrders['pictures']> = {
  file: ({ scenes }) => ({ name: `${scenes.length}-nights.zip`, mime: 'application/zip' }),
  async write(file, { scenes, choice }, means) {
    const { signal, onProgress, temporary } = means;
    const stems = scenes.map(({ title }) => fileStem(title));
    const names = numbered(stems, OUTPUT_FORMATS[choice.format].ending);
    const zip = new ZipFile();
    const made: string[] = [];
    const missing: string[] = [];
    try {
      for (const [k, scene] of scenes.entries()) {
        const path = `${temporary}-${k}`;
        const own = (done: number) => onProgress(((k + done) / scenes.length) * (1 - PACKING));
        const one = await open(path, 'w');
        made.push(path);
        try {
          await writeScene(one, scene, choice, { ...means, onProgress: own });
          zip.addFile(path, names[k], { compress: false });
        } catch (error) {
          if (isAbort(error) || diskFull(error)) throw error;
          missing.push(`${scene.title} (${(error as Error).message})`);
        } finally {
          await one.close();
        }
      }
      if (missing.length === scenes.length) throw new Error(missing.join('; '));
      await writeZip(file, zip, signal);
    } finally {
      await Promise.all(made.map((path) => rm(path, { force: true })));
    }
    return missing.length > 0 ? `Missing: ${missing.join('; ')}` : undefined;
  },
};
