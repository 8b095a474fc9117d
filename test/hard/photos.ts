import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { OwnServer } from '../../e2e/support/server';
import { COLORANTS, matrixProfile } from '../icc';
import { ask, openScene, save, sendOut, upload, watchWaits } from './client';
import type { Figures } from './figures';
import { forgetPeak, peakMemory } from './memory';

const SIDES: Record<number, [width: number, height: number]> = {
  2: [1800, 1200],
  24: [6000, 4000],
  48: [8000, 6000],
  100: [11547, 8660],
};

export const COLORS = ['sRGB', 'wide red', 'wide green', 'grey'] as const;
type Color = (typeof COLORS)[number];

/** Longest wait of another request that is told as good, milliseconds. */
const WAIT = 200;

/** A photo of some megapixels: a ramp with some texture, in codes of a profile, 8 bits as JPEG or 16 as TIFF. */
async function photoOf(megapixels: number, color: Color, deep: boolean, folder: string): Promise<Buffer> {
  const [width, height] = SIDES[megapixels];
  const tile = Uint8Array.from({ length: 3 * 250 * 200 }, (_, i) => 60 + ((i * 7 + (i >> 5) * 3) % 120));
  const small = await sharp(tile, { raw: { width: 250, height: 200, channels: 3 } })
    .png()
    .toBuffer();
  const large = sharp(small).resize(width, height, { kernel: 'linear', fit: 'fill' });
  if (color === 'grey') large.toColourspace(deep ? 'grey16' : 'b-w');
  else if (deep) large.toColourspace('rgb16');
  if (color === 'wide red' || color === 'wide green') {
    const profile = join(folder, `${color}.icc`);
    await writeFile(profile, matrixProfile(color, COLORANTS[color], 2.2));
    large.withIccProfile(profile);
  }
  return deep
    ? large.tiff({ compression: 'deflate', predictor: 'horizontal' }).toBuffer()
    : large.jpeg({ quality: 90 }).toBuffer();
}

/** Takes a photo in, lights a lamp in it, and sends it out. Gives the steps that did not go well. */
async function through(url: string, bytes: Buffer): Promise<{ faults: string[]; takenIn: number }> {
  const begun = await upload(`${url}/api/scenes?name=photo.jpg`, bytes);
  if (begun.status !== 201) return { faults: [begun.text], takenIn: begun.milliseconds };
  const { id } = JSON.parse(begun.text) as { id: string };
  const { scene } = await openScene(url, id);
  const patches = [{ op: 'replace' as const, path: ['night', 'exposure'], value: -3 }];
  const entry = { id: crypto.randomUUID(), kind: 'do' as const, label: 'Exposure', patches };
  const inverse = [{ ...patches[0], value: scene.night.exposure }];
  const saved = await save(url, id, 0, [{ ...entry, inverse }]);
  const shown = await ask(`${url}/api/scenes/${id}/thumbnail?of=night`);
  const out = await sendOut(url, id, 'jpeg');
  await ask(`${url}/api/scenes/${id}`, { method: 'DELETE' });
  return {
    takenIn: begun.milliseconds,
    faults: [saved.status === 200, shown.status === 200, out === 'done'].flatMap((well, i) =>
      well ? [] : [['not saved', 'not shown', `not sent out: ${out}`][i]],
    ),
  };
}

/** Takes in, lights and sends out photos of many sizes and kinds in one server, without a restart. */
export async function photoTest(
  server: OwnServer,
  megapixels: number[],
  colors: readonly Color[],
  figures: Figures,
): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'sundew-photos-'));
  await server.start();
  const pid = server.pid();
  let faults = 0;
  for (const size of megapixels) {
    for (const deep of [false, true]) {
      for (const color of colors) {
        const bytes = await photoOf(size, color, deep, folder);
        await forgetPeak(pid);
        const stopWatching = watchWaits(server.url);
        const went = await through(server.url, bytes);
        const waited = await stopWatching();
        faults += went.faults.length;
        const name = `${size} MP, ${color}, ${deep ? 16 : 8} bits`;
        const peak = Math.round(await peakMemory(pid));
        const parts = [
          `taken in ${Math.round(went.takenIn)} ms`,
          `peak ${peak} MiB`,
          `wait ${Math.round(waited)} ms`,
        ];
        figures.note(
          `${name}: ${parts.join(', ')}${waited > WAIT ? ' (!)' : ''}`,
          went.faults.join('; ') || 'well',
        );
      }
    }
  }
  figures.none('photos that did not go all the way', faults);
  await server.kill();
  await rm(folder, { recursive: true, force: true });
}
