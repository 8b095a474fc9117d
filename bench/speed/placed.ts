import sharp from 'sharp';
import { wholeRegion } from '@/core/plane/region';
import { FIRST_PLACED } from '@/core/placed/placed-schema';
import { runCommand } from '@/core/scene/command';
import { setPlaced } from '@/core/scene/placed-commands';
import type { Placed, Scene } from '@/core/scene/schema';
import { surveySize } from '@/engine/sizes';
import { receiveBytes } from '@/server/assets/asset-store';
import { takePlaced } from '@/server/scenes/take-placed';
import { copied, litScene, plate, region, RUNS, show, space } from './kit';
import { medianTime, once, report } from './time';

/** A picture of 24 megapixels that is clear in part. */
const SIZE = { width: 4000, height: 6000 };

export async function clearPicture(): Promise<Buffer> {
  const data = new Uint8Array(4 * SIZE.width * SIZE.height);
  for (let y = 0, i = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++, i += 4) {
      const there = Math.hypot(x / 2000 - 1, y / 3000 - 1) < 0.95;
      if (!there) continue;
      data.fill(110 + 60 * Math.sin(i / 999) + ((i * 2654435761) % 29), i, i + 3);
      data[i + 3] = 255;
    }
  }
  return sharp(data, { raw: { ...SIZE, channels: 4 } })
    .png({ compressionLevel: 6 })
    .toBuffer();
}

/** Pictures that are placed: one of 24 megapixels taken in and first seen, then moved and set at preview size. */
export async function benchPlaced(): Promise<void> {
  console.log('\nA placed picture of 24 megapixels, clear in part\n');
  const bytes = await clearPicture();
  const bare = await medianTime(3, () => sharp(bytes).raw().toBuffer());
  report('libvips’ bare decode of the PNG', bare);
  let taken: Awaited<ReturnType<typeof takePlaced>> | undefined;
  const took = await once(async () => {
    taken = await takePlaced(space, await receiveBytes(space.dataDir, bytes));
  });
  report('taken in', took, { to: 'the decode', of: bare });
  const placed: Placed = {
    ...FIRST_PLACED,
    ...{ id: 'p', name: 'P', cut: undefined, foot: { u: 0.5, v: 0.85 }, tall: 1.6 },
    ...taken!,
  };
  const scene: Scene = { ...litScene(plate, 2), placed: [] };
  await show(scene);
  const { width, height } = surveySize(scene.plate);
  const small = wholeRegion(width, height);
  const first = await once(() => show({ ...scene, placed: [placed] }, small));
  report('first seen, coarse', first, { to: 'the decode', of: bare });
  const fine = await once(() => show({ ...scene, placed: [placed] }));
  report('first seen, fine', fine, { to: 'the decode', of: bare });
  let step = 0;
  const again = (values: (k: number) => Partial<Placed>) =>
    medianTime(RUNS, () => {
      const command = setPlaced('Set', 'p', values(++step));
      return show(runCommand({ ...scene, placed: [placed] }, command).scene, small);
    });
  report('moved, coarse', await again((k) => ({ foot: { u: 0.4 + k / 200, v: 0.85 } })), copied);
  report('exposed, coarse', await again((k) => ({ exposure: k / 50 })), copied);
  const matched = await medianTime(RUNS, () =>
    show(runCommand({ ...scene, placed: [placed] }, setPlaced('Set', 'p', { exposure: ++step / 50 })).scene),
  );
  report(`exposed, fine at ${region.width} x ${region.height}`, matched, copied);
}
