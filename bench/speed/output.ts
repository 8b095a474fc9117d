import sharp from 'sharp';
import { receiveBytes } from '@/server/assets/asset-store';
import { beginScene } from '@/server/scenes/intake';
import { openScene } from '@/server/scenes/scene-repository';
import { encodePicture } from '@/server/output/encode-picture';
import { renderRgb } from '@/server/output/render-picture';
import {
  photo,
  LAMPS,
  PLATE,
  PREVIEW,
  dataDir,
  height,
  never,
  renderer,
  scene,
  show,
  space,
  width,
} from './kit';
import { medianTime, report } from './time';

/** A picture sent out, and a photo opened. */
export async function benchOutput(): Promise<void> {
  let turn = 0;
  const size = { width, height };
  const choice = { format: 'jpeg', quality: 92 } as const;
  const output = await medianTime(3, async () => {
    // Another haze each time would only change the mix; another lens makes everything anew.
    const fresh = { ...scene, plan: { ...scene.plan, lens: 28 + ++turn / 100 } };
    const rgb = await renderRgb(renderer, fresh, size, never);
    await encodePicture(rgb, size, choice);
  });
  const bare = await medianTime(3, () =>
    sharp(PLATE).jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
  );
  console.log(`\nOutput ${width} x ${height}, ${LAMPS} lamps\n`);
  report('libvips: decode and encode alone', bare);
  report('whole output, everything computed anew', output, { to: 'libvips', of: bare });

  const bareOpen = await medianTime(3, () => sharp(photo).resize(PREVIEW).raw().toBuffer());
  let photos = 0;
  const open = await medianTime(3, async () => {
    // A byte after the end makes it another file, with the same picture in it.
    const file = Buffer.concat([photo, Buffer.from([++photos])]);
    const { id } = await beginScene(space, await receiveBytes(dataDir, file), 'photo.jpg');
    await show(openScene(space, id).scene);
  });
  console.log('\nOpening a JPEG of 6000 x 4000, from its bytes to the first frame of 1600 x 1067\n');
  report('libvips: decode and resize alone', bareOpen);
  report('take in, decode, shrink, survey, first frame', open, { to: 'libvips', of: bareOpen });
}
