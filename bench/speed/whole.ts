import { spawn, spawnSync } from 'node:child_process';
import { readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createWriteStream } from 'node:fs';
import sharp from 'sharp';
import type { Scene } from '@/core/scene/schema';
import { receiveBytes } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { writeSceneFile } from '@/server/scenes/scene-file';
import { dataDir, litScene, PLATE, space } from './kit';
import { medianTime, report } from './time';

/** Fixtures of the scene that goes out. */
const FIXTURES = 20;

/** Sizes of photos that go out, pixels. */
const SIZES = [
  { width: 6000, height: 4000 },
  { width: 12000, height: 8333 },
];

/** Milliseconds between looks at how much memory a process has taken. */
const LOOK = 50;

interface Spent {
  ms: number;
  mebibytes: number;
}

/** Runs the command line to its end: how long it takes, and how much memory at most. */
async function rendered(args: string[]): Promise<Spent> {
  const began = performance.now();
  const child = spawn(process.execPath, ['dist/render.mjs', ...args], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  let most = 0;
  const look = setInterval(() => {
    void readFile(`/proc/${child.pid}/status`, 'utf8')
      .then((status) => (most = Math.max(most, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0))))
      .catch(() => {});
  }, LOOK);
  const code = await new Promise<number | null>((resolve) => child.on('close', resolve));
  clearInterval(look);
  if (code !== 0) throw new Error(`The command line ended with ${code}.`);
  return { ms: performance.now() - began, mebibytes: most / 1024 };
}

/** How long Debian's `oiiotool` takes to read and write the same layers; undefined where it is not there. */
function rewritten(path: string): number | undefined {
  const began = performance.now();
  const args = [path, '--compression', 'zip', '-o', join(dataDir, 'again.exr')];
  const { error, status } = spawnSync('oiiotool', args);
  if (error || status !== 0) return undefined;
  const ms = performance.now() - began;
  report('oiiotool: the same layers, read and written', ms);
  return ms;
}

async function sceneFile(photo: Buffer, name: string): Promise<string> {
  const received = await receiveBytes(dataDir, photo);
  const { width, height } = await takePlate(space, received);
  const scene: Scene = litScene({ asset: received.hash, width, height }, FIXTURES);
  const path = join(dataDir, `${name}.sundew`);
  await pipeline(writeSceneFile(dataDir, scene), createWriteStream(path));
  return path;
}

/** Whole outputs of large photos by the command line: a process of its own, from a scene file to a picture. */
export async function benchWhole(): Promise<void> {
  for (const size of SIZES) {
    console.log(
      `\nA whole output of ${size.width} x ${size.height} with ${FIXTURES} fixtures, a process of its own\n`,
    );
    const photo = await sharp(PLATE)
      .resize({ ...size, fit: 'fill' })
      .jpeg({ quality: 92 })
      .toBuffer();
    const plainly = async () => {
      const picture = sharp(photo, { limitInputPixels: false }).blur(2);
      await writeFile(join(dataDir, 'plain.jpg'), await picture.jpeg({ quality: 92 }).toBuffer());
    };
    const plain = await medianTime(3, plainly);
    report('libvips: decode, blur and encode', plain);
    const from = await sceneFile(photo, `whole-${size.width}`);
    for (const ending of ['jpg', 'exr']) {
      const to = join(dataDir, `whole.${ending}`);
      const { ms, mebibytes } = await rendered([from, '--out', to]);
      const again = ending === 'exr' ? rewritten(to) : undefined;
      const beside = again === undefined ? { to: 'libvips', of: plain } : { to: 'oiiotool', of: again };
      report(`to .${ending}, ${Math.round((await stat(to)).size / 1e6)} MB`, ms, beside);
      console.log(`  memory at most ${mebibytes.toFixed(0)} MiB`);
    }
  }
}
