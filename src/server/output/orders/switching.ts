import sharp from 'sharp';
import { ZipFile } from 'yazl';
import type { OutputOrders } from '@/core/output/output-order';
import {
  readySwitching,
  SWITCHING_FORMS,
  switchedAt,
  switchingExtent,
  type Switching,
} from '@/core/output/switching';
import type { Scene } from '@/core/scene/schema';
import type { Size } from '@/engine/sizes';
import { writeWhole } from '../../assets/asset-store';
import { fileStem } from '../file-names';
import { renderFrames } from '../render-frames';
import { writeZip } from '../write-zip';
import type { OrderKind, OrderMeans } from './order-kind';

/** Share of the work that encoding takes. */
const ENCODING = 0.4;

/** All pictures of a switching-on below one another: interleaved RGB. */
interface Film {
  rgb: Uint8Array;
  size: Size;
  frames: number;
}

/** How long each picture stands, milliseconds: their sum is right, though each is whole. */
function delays(frames: number, { fps, hold }: Switching): number[] {
  const at = (k: number) => Math.round((1000 * k) / fps);
  const all = Array.from({ length: frames }, (_, k) => at(k + 1) - at(k));
  all[frames - 1] += Math.round(1000 * hold);
  return all;
}

async function animated({ rgb, size, frames }: Film, switching: Switching): Promise<Uint8Array> {
  const { width, height } = size;
  const raw = { width, height: height * frames, channels: 3, pageHeight: height } as const;
  const delay = delays(frames, switching);
  return sharp(rgb, { raw, limitInputPixels: false })
    .withIccProfile('srgb')
    .webp({ quality: switching.quality, delay, loop: 0, effort: 3 })
    .toBuffer();
}

/** Pictures numbered from 1, each once. */
async function numbered({ rgb, size, frames }: Film, stem: string, means: OrderMeans): Promise<ZipFile> {
  const zip = new ZipFile();
  const bytes = 3 * size.width * size.height;
  for (let k = 0; k < frames; k++) {
    means.signal.throwIfAborted();
    const one = rgb.subarray(k * bytes, (k + 1) * bytes);
    const png = await sharp(one, { raw: { ...size, channels: 3 } })
      .withIccProfile('srgb')
      .png({ compressionLevel: 6 })
      .toBuffer();
    zip.addBuffer(png, `${stem}-${String(k + 1).padStart(4, '0')}.png`, { compress: false });
    means.onProgress(1 - ENCODING + (ENCODING * (k + 1)) / frames);
  }
  return zip;
}

async function filmOf(scene: Scene, switching: Switching, means: OrderMeans): Promise<Film> {
  const ready = readySwitching(scene, switching);
  const { frames, size } = switchingExtent(scene, switching);
  const rgb = await renderFrames(
    means.renderer,
    { size, frames, at: (k) => switchedAt(ready, k) },
    means.signal,
    (done) => means.onProgress(done * (1 - ENCODING)),
  );
  return { rgb, size, frames };
}

export const switching: OrderKind<OutputOrders['switching']> = {
  file({ scene, switching: { form } }) {
    const { ending, mime } = SWITCHING_FORMS[form];
    return { name: `${fileStem(scene.title)}-on.${ending}`, mime };
  },
  async write(file, { scene, switching }, means) {
    const film = await filmOf(scene, switching, means);
    if (switching.form === 'pngs') {
      await writeZip(file, await numbered(film, fileStem(scene.title), means), means.signal);
      return undefined;
    }
    const data = await animated(film, switching);
    means.signal.throwIfAborted();
    await writeWhole(file, data);
    return undefined;
  },
};
