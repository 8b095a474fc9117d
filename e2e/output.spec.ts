import { execFile } from 'node:child_process';
import { mkdtemp, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { applyLut } from '@/core/grade/apply-lut';
import { parseCube } from '@/core/grade/cube-lut';
import { brightness, copyOf, openEditor, openStep, saved, toneAt } from './support/editor';
import { test } from './support/kept-page';
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
  await expect(page.getByText(/^about [\d.]+ MB$/)).toBeVisible();
  await page.getByLabel('Long side, value').fill('300');
  await page.keyboard.press('Enter');
  const [tiff] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Send out 300 × 200' }).click(),
  ]);
  expect(tiff.suggestedFilename()).toMatch(/\.tif$/);
  // By its profile the package would turn 16 bits into Display P3.
  const picture = sharp(await readFile(await tiff.path()), { ignoreIcc: true });
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

test('a picture goes out in Display P3 with the photo’s facts but no place, and says what was lit', async ({
  page,
  request,
}) => {
  const rgb = { create: { width: 150, height: 100, channels: 3, background: '#978' } } as const;
  const gps = {
    GPSLatitudeRef: 'N',
    GPSLatitude: '12/1 30/1 0/1',
    GPSLongitudeRef: 'E',
    GPSLongitude: '7/1 0/1 0/1',
  };
  const photo = await sharp(rgb)
    .withExif({ IFD0: { Make: 'Larkfield' }, IFD3: gps })
    .jpeg()
    .toBuffer();
  const begun = (await (await request.post('/api/scenes?name=a.jpg', { data: photo })).json()) as {
    id: string;
  };
  await openEditor(page, begun.id);
  await openStep(page, /^Output/);
  const sendOut = async () => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: /^Send out \d+ ×/ }).click(),
    ]);
    return sharp(await readFile(await file.path())).metadata();
  };
  await page.getByLabel('Colours', { exact: true }).selectOption('p3');
  const { icc, exif, xmp } = await sendOut();
  expect(icc!.toString('latin1').replaceAll('\0', '')).toContain('sP3C');
  expect(exif!.toString('latin1')).toContain('Larkfield');
  expect(xmp!.toString()).toContain('A night without lamps.');
  expect(xmp!.toString()).not.toContain('GPS');
  await page.getByLabel('Facts that the file holds').selectOption('all');
  expect((await sendOut()).xmp!.toString()).toContain('exif:GPSLatitude="12,30.00000N"');
  await page.getByLabel('Facts that the file holds').selectOption('none');
  expect((await sendOut()).exif).toBeUndefined();
});

test('the lights come on in the picture and go out as a moving one', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openStep(page, /^Output/);
  const lit = async () => brightness(await toneAt(page, 0.47, 0.72));
  const whole = await lit();
  await page.getByRole('button', { name: /^Switching on/ }).click();
  await page.getByLabel('How Quay comes on').selectOption('atOnce');
  for (const [label, value] of [
    ['Takes', '20'],
    ['Then stands', '0'],
    ['Pictures/s', '5'],
  ]) {
    await page.getByLabel(`${label}, value`).fill(value);
    await page.keyboard.press('Enter');
  }
  // Played, it is dark at first; Escape ends it, and the picture is as it was.
  await page.getByRole('button', { name: 'Play it here' }).click();
  await expect.poll(lit).toBeLessThan(whole - 15);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Play it here' })).toBeVisible();
  await expect.poll(lit).toBeCloseTo(whole, 0);
  // Left alone, it ends by itself.
  await page.getByLabel('Takes, value').fill('0.5');
  await page.keyboard.press('Enter');
  await page.getByLabel('Long side, value').last().fill('150');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Play it here' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play it here' })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Send out \d+ pictures/ }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/-on\.webp$/);
  const film = await readFile(await file.path());
  const { pages, width, pageHeight } = await sharp(film, { animated: true }).metadata();
  expect([width, pageHeight]).toEqual([150, 100]);
  expect(pages).toBeGreaterThan(1);
  const part = { left: 64, top: 68, width: 12, height: 8 };
  const mean = async (page: number) => (await sharp(film, { page }).extract(part).stats()).channels[1].mean;
  expect(await mean(0)).toBeLessThan((await mean(pages! - 1)) - 15);

  // From a cue it fades instead.
  await page.getByRole('region', { name: 'Cues' }).getByRole('button', { name: 'keep this' }).click();
  await page.getByLabel('From', { exact: true }).selectOption({ label: 'Cue 1' });
  await expect(page.getByLabel('How Quay comes on')).toHaveCount(0);
  await expect(page.getByLabel('To', { exact: true })).toHaveValue('');
  await page.getByRole('button', { name: 'Play it here' }).click();
  await expect(page.getByRole('button', { name: 'Play it here' })).toBeVisible();
  await saved(page);
  await page.reload();
  await openStep(page, /^Output/);
  await expect(page.getByRole('button', { name: /^Switching on/ })).toContainText('0.5 s');
});

test('several scenes go out from the wall in one file, and a reload knows of them', async ({
  page,
  request,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Send out several' }).click();
  await expect(page.getByRole('button', { name: 'Send out…' })).toBeDisabled();
  await page.getByRole('link', { name: 'Open Ferry steps', exact: true }).click();
  await expect(page.getByLabel('Choose Ferry steps', { exact: true })).toBeChecked();
  await page.getByLabel('Choose Brickyard lane', { exact: true }).check();
  await page.getByRole('button', { name: 'Send out…' }).click();
  await page.getByRole('radio', { name: 'PNG', exact: true }).check();
  await page.getByLabel('Long side, value').fill('150');
  await page.keyboard.press('Enter');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Send out 2 scenes in one ZIP' }).click(),
  ]);
  const parts = await unzipped(await file.path());
  expect([...parts.keys()].sort()).toEqual(['brickyard-lane-night.png', 'ferry-steps-night.png']);
  for (const png of parts.values()) {
    const { width, height } = await sharp(png).metadata();
    expect(Math.max(width, height)).toBe(150);
  }
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Never mind' }).click();
  await expect(page.getByLabel('Choose Ferry steps', { exact: true })).toHaveCount(0);

  // What is on its way when the wall is opened is shown, and can be cancelled there.
  let state = 'running';
  const job = { id: 'job', fileName: '9-nights.zip', progress: 0.4 };
  await page.route('**/api/outputs', (route) => route.fulfill({ json: [{ ...job, state }] }));
  await page.route('**/api/outputs/job', (route) => {
    if (route.request().method() === 'DELETE') state = 'cancelled';
    return route.fulfill({ json: { ...job, state } });
  });
  await page.reload();
  await expect(page.getByRole('progressbar', { name: '9-nights.zip' })).toHaveAttribute(
    'aria-valuenow',
    '40',
  );
  await page.getByRole('list', { name: 'On the way out' }).getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('9-nights.zip: cancelled.')).toBeVisible();
  expect((await request.get('/api/outputs')).ok()).toBe(true);
});

test('the night goes out as a table that darkens, and says how far it is off', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  await openStep(page, /^Output/);
  await page.getByRole('button', { name: /^Night for other photos/ }).click();
  await page.getByLabel('Entries').selectOption('17');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the table' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.cube$/);
  await expect(page.getByText(/^Beside this night without lamps it is off by [\d.]+ of 255/)).toBeVisible();
  const table = parseCube(await readFile(await file.path(), 'utf8'));
  expect(table.size).toBe(17);
  const [r, g, b] = applyLut(table, [0.6, 0.6, 0.6]);
  expect(Math.max(r, g, b)).toBeLessThan(0.4);
  expect((await request.get('/api/scenes/ferry-steps/table?side=18')).status()).toBe(400);
});
