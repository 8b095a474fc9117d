import { execFile } from 'node:child_process';
import { mkdtemp, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { copyOf, openEditor, openStep, toneAt } from './support/editor';
import { unzipped } from '../test/unzipped';

test.use({ deviceScaleFactor: 1 });

test('a PNG, the scene as a file, and the command line all give the same picture', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Output/ }).click();
  await page.getByText('PNG', { exact: true }).click();
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Send out/ }).click(),
  ]);
  await expect(page.getByText(/^Sent out/)).toBeVisible();
  const [sceneFile] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the scene as a file' }).click(),
  ]);
  expect(sceneFile.suggestedFilename()).toMatch(/\.sundew$/);
  const folder = await mkdtemp(join(tmpdir(), 'sundew-cli-'));
  const [from, to] = [join(folder, 'scene.sundew'), join(folder, 'night.png')];
  await sceneFile.saveAs(from);
  await promisify(execFile)(process.execPath, ['dist/render.mjs', from, '--out', to]);
  const raw = async (file: string) =>
    sharp(await readFile(file))
      .raw()
      .toBuffer();
  const [there, here] = await Promise.all([raw(await png.path()), raw(to)]);
  expect(there.length).toBe(3 * 750 * 500);
  expect(there.equals(here)).toBe(true);

  // The scene file can be dropped in again.
  const again = await request.post('/api/scenes?name=scene.sundew', { data: await readFile(from) });
  expect(again.status()).toBe(201);
});

test('a smaller TIFF of 16 bits goes out, and the next output begins with the last choice', async ({
  page,
  request,
}) => {
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  await openStep(page, /^Output/);
  await page.getByRole('radio', { name: 'TIFF, 16 bit' }).check();
  await expect(page.getByLabel('Quality, value')).toHaveCount(0);
  await page.getByLabel('Long side, value').fill('300');
  await page.keyboard.press('Enter');
  const [tiff] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Send out 300 × 200' }).click(),
  ]);
  expect(tiff.suggestedFilename()).toMatch(/\.tif$/);
  const picture = sharp(await readFile(await tiff.path()));
  expect(await picture.metadata()).toMatchObject({
    format: 'tiff',
    width: 300,
    height: 200,
    depth: 'ushort',
  });
  // The same tones as on the screen.
  const { r, g, b } = await toneAt(page, 0.4, 0.9, 0.03);
  const part = { left: 111, top: 171, width: 18, height: 18 };
  const bytes = await picture.extract(part).toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer();
  const codes = new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
  [r, g, b].forEach((tone, c) => {
    const channel = codes.filter((_, i) => i % 3 === c);
    const mean = channel.reduce((sum, code) => sum + code, 0) / channel.length / 257;
    expect(Math.abs(mean - tone)).toBeLessThan(4);
  });
  await page.reload();
  await openStep(page, /^Output/);
  await expect(page.getByRole('radio', { name: 'TIFF, 16 bit' })).toBeChecked();
  await expect(page.getByRole('button', { name: 'Send out 300 × 200' })).toBeVisible();
});

test('an output can be cancelled, and a failing one says why', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Output/ }).click();
  let state = 'running';
  const job = { id: 'job', fileName: 'x.jpg', progress: 0.3 };
  await page.route('**/outputs', (route) =>
    route.fulfill({ status: 202, json: { ...job, state: 'running' } }),
  );
  await page.route('**/outputs/job', (route) => {
    if (route.request().method() === 'DELETE') state = 'cancelled';
    return route.fulfill({ json: { ...job, state, reason: 'The disk is full.' } });
  });
  await page.getByRole('button', { name: /^Send out/ }).click();
  await expect(page.getByRole('progressbar')).toHaveAttribute('aria-valuenow', '30');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Cancelled. Nothing was written.')).toBeVisible();
  state = 'failed';
  await page.getByRole('button', { name: /^Send out/ }).click();
  await expect(page.locator('aside [role=alert]')).toHaveText('The disk is full.');
});

test('a scene goes out as layers whose merged picture is that of the screen', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  await openStep(page, /^Output/);
  await page.getByRole('radio', { name: 'OpenRaster, layers' }).check();
  await expect(page.getByText('Circuits keep the names')).toBeVisible();
  await page.getByLabel('Long side, value').fill('300');
  await page.keyboard.press('Enter');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Send out 300 × 200' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.ora$/);
  const parts = await unzipped(await file.path());
  const merged = sharp(parts.get('mergedimage.png'));
  expect(await merged.metadata()).toMatchObject({ width: 300, height: 200 });
  const { r, g, b } = await toneAt(page, 0.4, 0.9, 0.03);
  const part = { left: 111, top: 171, width: 18, height: 18 };
  const { channels } = await sharp(await merged.extract(part).png().toBuffer()).stats();
  [r, g, b].forEach((tone, c) => expect(Math.abs(channels[c].mean - tone)).toBeLessThan(4));
  expect(parts.get('stack.xml')!.toString()).toContain('name="Night"');
});
