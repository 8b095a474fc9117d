import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addMatte } from '@/core/scene/matte-commands';
import { runCommand } from '@/core/scene/command';
import { takeCoverage } from '@/server/assets/coverage-store';
import { openScene } from '@/server/scenes/scene-repository';
import { renderRgb } from '@/server/output/render-picture';
import { createServerRenderer } from '@/server/output/render-service';
import type { Workspace } from '@/server/assets/workspace';
import { half } from '../test/spy-renderer';
import { streetLamp, testCircuit } from '../test/street';
import {
  begunScene,
  pictureBytes,
  receiveBytes,
  sceneFileBytes,
  temporaryWorkspace,
} from '../test/workspace';

let space: Workspace;
let remove: () => Promise<void>;
let folder: string;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  folder = await mkdtemp(join(tmpdir(), 'sundew-cli-'));
});
afterAll(async () => {
  await remove();
  await rm(folder, { recursive: true });
});

/** Runs the command to its end: what it printed, and its exit code. */
function render(...args: string[]): Promise<{ code: number | null; out: string; err: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, ['dist/render.mjs', ...args]);
    const text = { out: '', err: '' };
    child.stdout.on('data', (data) => (text.out += String(data)));
    child.stderr.on('data', (data) => (text.err += String(data)));
    child.on('exit', (code) => resolve({ code, ...text }));
  });
}

const lines = (err: string) => err.split('\n').filter((line) => line !== '');

it('renders a scene with all that it holds, what an edge brush found too', async () => {
  const pixels = Uint8Array.from({ length: 96 * 64 }, (_, i) => (i % 96 < 48 ? 255 : 0));
  const png = await sharp(pixels, { raw: { width: 96, height: 64, channels: 1 } })
    .png()
    .toBuffer();
  const { asset } = await takeCoverage(space, await receiveBytes(space, png));
  const { scene: bare } = openScene(space, await begunScene(space));
  const passes = [{ id: 'p', join: 'add' as const, kind: 'edge' as const, strokes: [], asset }];
  const matted = runCommand(bare, addMatte({ ...half, passes })).scene;
  const scene = { ...matted, places: [{ matte: half.id, outside: false, stops: -4 }] };
  const file = join(folder, 'scene.sundew');
  await writeFile(file, await sceneFileBytes(space, scene));
  const out = join(folder, 'night.png');
  expect(await render(file, '--out', out)).toMatchObject({ code: 0, out: `${out}: 96 x 64\n` });
  const renderer = createServerRenderer(space);
  const size = { width: 96, height: 64 };
  const rgb = await renderRgb(renderer, scene, size, new AbortController().signal);
  renderer.close();
  expect(
    Buffer.compare(
      await sharp(await readFile(out))
        .raw()
        .toBuffer(),
      Buffer.from(rgb),
    ),
  ).toBe(0);
});

it('writes each circuit alone beside the picture, in the colours and depth that are asked for', async () => {
  const { scene: bare } = openScene(space, await begunScene(space, await pictureBytes(240, 160)));
  const lamps = [streetLamp('1', 0.3, { circuit: 'a' }), streetLamp('2', 0.7, { circuit: 'b' })];
  const circuits = [
    testCircuit('a', { name: 'Quay' }),
    testCircuit('b', { name: 'Quay' }),
    testCircuit('c', { muted: true }),
  ];
  const scene = { ...bare, circuits, fixtures: lamps };
  const file = join(folder, 'circuits.sundew');
  await writeFile(file, await sceneFileBytes(space, scene));
  const out = join(folder, 'whole.png');
  const own = join(folder, 'own', 'circuits');
  const args = ['--deep', '--colours', 'p3', '--width', '120', '--facts', 'none', '--circuits', own];
  const { code, out: told } = await render(file, '--out', out, ...args);
  expect(code).toBe(0);
  const names = ['night.png', 'quay.png', 'quay-2.png'];
  expect(lines(told)).toEqual(
    [out, ...names.map((name) => join(own, name))].map((path) => `${path}: 120 x 80`),
  );
  const means = await Promise.all(
    [out, ...names.map((name) => join(own, name))].map(async (path) => {
      const { depth, icc, exif } = await sharp(path).metadata();
      expect([depth, exif]).toEqual(['ushort', undefined]);
      expect(icc!.toString('latin1').replaceAll('\0', '')).toContain('sP3C');
      return (await sharp(path).stats()).channels[0].mean;
    }),
  );
  const [whole, night, ...alone] = means;
  for (const mean of alone) {
    expect(mean).toBeGreaterThan(night * 1.01);
    expect(mean).toBeLessThan(whole);
  }
});

it.each([
  ['no file', [], 2, /^Usage:/],
  ['an ending that is no picture’s', ['a.sundew', '--out', 'a.gif'], 2, /^Usage:/],
  ['a width that is none', ['a.sundew', '--out', 'a.png', '--width', 'wide'], 2, /^Usage:/],
  ['a quality that is none', ['a.sundew', '--out', 'a.jpg', '--quality', '0'], 2, /^Usage:/],
  ['16 bits of a format that has none', ['a.sundew', '--out', 'a.jpg', '--deep'], 2, /^Usage:/],
  ['floats of a format that has none', ['a.sundew', '--out', 'a.png', '--float'], 2, /^Usage:/],
  ['colours that are none', ['a.sundew', '--out', 'a.png', '--colours', 'cmyk'], 2, /^Usage:/],
  ['sharpening that is none', ['a.sundew', '--out', 'a.png', '--sharpen', ''], 2, /^Usage:/],
  ['circuits of a file that holds them all', ['a.sundew', '--out', 'a.exr', '--circuits', 'x'], 2, /^Usage:/],
  ['an option that is none', ['a.sundew', '--out', 'a.png', '--fast'], 2, /^Usage:/],
  ['a file that is not there', ['none.sundew', '--out', 'a.png'], 1, /none\.sundew/],
  ['a file that is no scene', ['package.json', '--out', 'a.png'], 1, /damaged/],
] as const)('ends by itself for %s, with one line that says why', async (_name, args, code, reason) => {
  const ended = await render(...args);
  expect(ended.code).toBe(code);
  expect(ended.out).toBe('');
  expect(lines(ended.err)).toEqual([expect.stringMatching(reason)]);
});
