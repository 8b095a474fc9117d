import { renderRgb } from '@/server/output/render-picture';
import { litScene, never, plate, renderer, scene, show, walled } from './kit';
import { report } from './time';

const MEGAPIXELS = [1, 4, 16, 64];
const LAMPS = [1, 10, 100, 500];

/** Milliseconds of a task that is done once. */
async function once(task: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await task();
  return performance.now() - start;
}

/** How what a picture takes grows with its pixels and its lamps. */
export async function benchGrowth(): Promise<void> {
  console.log('\nOutput of growing size, 8 lamps on 2 circuits, from layers to codes\n');
  let first: number | undefined;
  for (const megapixels of MEGAPIXELS) {
    const wide = Math.round(Math.sqrt(megapixels * 1.5e6));
    const size = { width: wide, height: Math.round(wide / 1.5) };
    const took = await once(() => renderRgb(renderer, scene, size, never));
    first ??= took;
    const memory = `${(process.memoryUsage.rss() / 2 ** 20).toFixed(0)} MiB resident`;
    report(`${megapixels} megapixels, ${memory}`, took, { to: 'one megapixel', of: first });
  }
  console.log(
    '\nLamps of a growing number, everything they do computed anew, 1600 x 1067 before two walls\n',
  );
  let single: number | undefined;
  await show(walled);
  for (const lamps of LAMPS) {
    const many = { ...litScene(plate, lamps), plan: walled.plan };
    const took = await once(() => show(many));
    single ??= took;
    report(`${lamps} lamps`, took, { to: 'one lamp', of: single });
  }
}
