import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { ownServer } from '../../e2e/support/server';
import { ask, copyScene, dimTo, openScene, save, upload } from './client';
import type { Figures } from './figures';
import { createRandom } from './random';

/** A disk of so many MiB, where this machine allows one to be mounted. */
function smallDisk(mebibytes: number): { path: string; remove: () => void } | undefined {
  const path = mkdtempSync(join(tmpdir(), 'sundew-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${mebibytes}m`, 'tmpfs', path], { stdio: 'ignore' });
  } catch {
    return undefined;
  }
  return {
    path,
    remove() {
      execFileSync('umount', ['-l', path]);
      rmSync(path, { recursive: true, force: true });
    },
  };
}

/** A photo of about 1.5 MB, of its own. */
async function photo(seed: number): Promise<Buffer> {
  const random = createRandom(seed);
  const pixels = new Uint8Array(3 * 700 * 600).map(() => random.below(256));
  return sharp(pixels, { raw: { width: 700, height: 600, channels: 3 } })
    .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

/** Writes a file of so many MiB, or of all that is left. */
function fill(path: string, mebibytes?: number): void {
  const bytes = mebibytes === undefined ? 'cat /dev/zero' : `head -c ${mebibytes}M /dev/zero`;
  execFileSync('sh', ['-c', `${bytes} > ${path} 2>/dev/null || true`]);
}

/** Fills a server's disk with photos and saves, makes room, and goes on. */
export async function fullDiskTest(port: number, figures: Figures): Promise<void> {
  const disk = smallDisk(40);
  if (!disk) return figures.note('full disk: this machine mounts none', 'not run');
  const server = await ownServer(port, 'e2e', disk.path);
  const { url } = server;
  try {
    await server.start();
    const id = await copyScene(url, 'ferry-steps');
    const take = async (bytes: Uint8Array) => upload(`${url}/api/scenes?name=x.jpg`, bytes);
    const [spare, rest] = ['spare', 'rest'].map((name) => join(disk.path, name));
    fill(spare, 12);
    let seed = 0;
    let last = await photo(seed);
    while ((await take(last)).status === 201) last = await photo(++seed);
    const refused = await take(last);
    figures.note('photos taken before the disk was full', seed);
    figures.none('photo on a full disk not told of as that', refused.status === 507 ? 0 : 1);

    // What little is left goes too, so that nothing else finds room.
    fill(rest);
    const table = await upload(`${url}/api/scenes/${id}/luts`, Buffer.alloc(3e5, '# a comment\n'));
    figures.none('look-up table on a full disk not told of as that', table.status === 507 ? 0 : 1);
    let { revision } = await openScene(url, id);
    let status = 200;
    for (let n = 0; n < 400 && status === 200; n++) {
      const answer = await save(url, id, revision, [dimTo(-((n % 40) + 1) / 10)]);
      ({ status } = answer);
      if (status === 200) ({ revision } = JSON.parse(answer.text) as { revision: number });
    }
    figures.none('save on a full disk not told of as that', status === 507 ? 0 : 1);
    figures.none('acknowledged saves lost on it', revision - (await openScene(url, id)).revision);

    for (const path of [spare, rest]) rmSync(path);
    const again = await save(url, id, revision, [dimTo(-2)]);
    figures.none('save refused once there is room', again.status === 200 ? 0 : 1);
    const taken = await take(last);
    figures.none('the same photo refused once there is room', taken.status === 201 ? 0 : 1);
    const { id: begun } = JSON.parse(taken.text) as { id: string };
    const shown = await ask(`${url}/api/scenes/${begun}/thumbnail?of=day`);
    figures.none('that photo cut', shown.status === 200 ? 0 : 1);
  } finally {
    await server.kill();
    disk.remove();
  }
}
