import sharp from 'sharp';
import { receiveBytes } from '@/server/assets/asset-store';
import { renderRgb } from '@/server/output/render-picture';
import { takePlate } from '@/server/scenes/intake';
import { dataDir, LAMPS as FEW, litScene, never, plate, PLATE, renderer, show, space, walled } from './kit';
import { writeGrowthPlot, type Growth } from './growth-plot';
import { once, report } from './time';

const MEGAPIXELS = [1, 4, 16, 64];
const LAMPS = [1, 10, 100, 500];

/** How what a picture takes grows with its pixels. */
async function alongPixels(): Promise<Growth> {
  console.log('\nOutput of growing size, 8 lamps on 2 circuits, from layers to codes\n');
  const sizes = MEGAPIXELS.map((megapixels) => {
    const wide = Math.round(Math.sqrt(megapixels * 1.5e6));
    return { megapixels, width: wide, height: Math.round(wide / 1.5) };
  });
  const { width, height } = sizes[sizes.length - 1];
  const photo = await sharp(PLATE).resize(width, height, { fit: 'fill' }).jpeg({ quality: 92 }).toBuffer();
  const received = await receiveBytes(dataDir, photo);
  await takePlate(space, received);
  const scene = litScene({ asset: received.hash, width, height }, FEW);
  // What is the same at every size is found first.
  await renderRgb(renderer, scene, { width: 600, height: 400 }, never);
  const points: { x: number; y: number }[] = [];
  let first: number | undefined;
  for (const { megapixels, ...size } of sizes) {
    const took = await once(() => renderRgb(renderer, scene, size, never));
    first ??= took;
    const memory = `${(process.memoryUsage.rss() / 2 ** 20).toFixed(0)} MiB resident`;
    points.push({ x: megapixels, y: took / first });
    report(`${megapixels} megapixels, ${memory}`, took, { to: 'one megapixel', of: first });
  }
  return { along: 'megapixels', points };
}

/** And with its lamps. */
async function alongLamps(): Promise<Growth> {
  console.log(
    '\nLamps of a growing number, everything they do computed anew, 1600 x 1067 before two walls\n',
  );
  const points: { x: number; y: number }[] = [];
  let single: number | undefined;
  await show(walled);
  for (const lamps of LAMPS) {
    const many = { ...litScene(plate, lamps), plan: walled.plan };
    const took = await once(() => show(many));
    single ??= took;
    points.push({ x: lamps, y: took / single });
    report(`${lamps} lamps`, took, { to: 'one lamp', of: single });
  }
  return { along: 'lamps', points };
}

/** How what a picture takes grows, told and drawn. */
export async function benchGrowth(): Promise<void> {
  writeGrowthPlot('docs/growth.svg', [await alongPixels(), await alongLamps()]);
}
