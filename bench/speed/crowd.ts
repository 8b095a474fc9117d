import sharp from 'sharp';
import { receiveBytes } from '@/server/assets/asset-store';
import { renderRgb } from '@/server/output/render-picture';
import { takePlate } from '@/server/scenes/intake';
import { dataDir, litScene, never, PLATE, renderer, space } from './kit';
import { report } from './time';

const LAMPS = 500;
const SIZE = { width: 12_000, height: 8_333 };

/** Shares of the whole time after which it is cancelled: in what is found first, and in bands. */
const CANCELLED = [0.02, 0.2, 0.5] as const;

/** How long it goes on after it was told to stop, milliseconds. */
async function stopped(render: (signal: AbortSignal) => Promise<unknown>, after: number): Promise<number> {
  const control = new AbortController();
  let told = 0;
  const timer = setTimeout(() => {
    told = performance.now();
    control.abort();
  }, after);
  await render(control.signal).catch(() => {});
  clearTimeout(timer);
  return performance.now() - told;
}

/** More lamps than anyone lights, on a larger picture than most take: memory, progress, and how soon it is given up. */
export async function benchCrowd(): Promise<void> {
  console.log(`\n${LAMPS} lamps on ${SIZE.width} x ${SIZE.height}, from layers to codes\n`);
  const photo = await sharp(PLATE)
    .resize({ ...SIZE, fit: 'fill' })
    .jpeg({ quality: 92 })
    .toBuffer();
  const received = await receiveBytes(dataDir, photo);
  await takePlate(space, received);
  const scene = litScene({ asset: received.hash, ...SIZE }, LAMPS);
  const began = performance.now();
  const told: { done: number; at: number }[] = [];
  let most = 0;
  const look = setInterval(() => (most = Math.max(most, process.memoryUsage.rss())), 100);
  const tell = (done: number) => told.push({ done, at: performance.now() - began });
  await renderRgb(renderer, scene, SIZE, never, tell, 'later');
  clearInterval(look);
  const whole = performance.now() - began;
  report('the whole picture', whole);
  console.log(`  memory at most ${(most / 2 ** 20).toFixed(0)} MiB`);
  const off = Math.max(...told.map(({ done, at }) => Math.abs(done - at / whole)));
  console.log(
    `  progress off the truth by ${(100 * off).toFixed(0)} % at most, first told after ${Math.round(told[0].at)} ms`,
  );
  for (const share of CANCELLED) {
    // Another scene each time: what is already found would hide what finding it takes.
    const other = { ...scene, plan: { ...scene.plan, eyeHeight: scene.plan.eyeHeight + share } };
    const ms = await stopped(
      (signal) => renderRgb(renderer, other, SIZE, signal, () => {}, 'later'),
      share * whole,
    );
    report(`given up after ${Math.round(100 * share)} % of that, over after`, ms);
  }
}
