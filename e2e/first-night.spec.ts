import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import {
  brightness,
  copyOf,
  dragTo,
  middleOf,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
  typeNumber,
  warmth,
} from './support/editor';

test.use({ deviceScaleFactor: 1 });

/** The nearest lamp of the ferry steps, unlit by day; its foot; paving beside it; the kiosk's wall; the sky. */
const GLASS = [0.5534, 0.266] as const;
const FOOT = [0.552, 0.7465] as const;
const PAVING = [0.5, 0.8] as const;
const WALL = [0.23, 0.5] as const;
const SKY = [0.2, 0.06] as const;

test('a first night, from the wall of scenes to a picture on disk', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await page.goto('/');
  await page.locator(`a[href="/scenes/${id}"]`).first().click();
  await pictureReady(page);

  // Deep night.
  const hour = page.getByRole('slider', { name: 'Hour' });
  const line = (await hour.boundingBox())!;
  await dragTo(page, await middleOf(page, 'Hour'), { x: line.x + line.width * 0.97, y: line.y + 9 });
  await expect(hour).toHaveAttribute('aria-valuetext', /deep night/);
  await pictureReady(page);
  const before = {
    paving: await toneAt(page, ...PAVING),
    wall: await toneAt(page, ...WALL),
    sky: await toneAt(page, ...SKY),
  };

  // A click on the glass lights it; its foot is dragged to where it stands.
  const glass = await onPicture(page, ...GLASS);
  await page.mouse.click(glass.x, glass.y);
  await dragTo(page, await middleOf(page, 'Quay lamp 1, foot'), await onPicture(page, 0.6, 0.85));
  await dragTo(page, await middleOf(page, 'Quay lamp 1, foot'), await onPicture(page, ...FOOT));
  await pictureReady(page);
  const lit = {
    paving: await toneAt(page, ...PAVING),
    wall: await toneAt(page, ...WALL),
    sky: await toneAt(page, ...SKY),
  };
  expect(brightness(lit.paving)).toBeGreaterThan(brightness(before.paving) + 25);
  expect(warmth(lit.paving)).toBeGreaterThan(warmth(before.paving) + 10);
  expect(brightness(lit.wall)).toBeGreaterThan(brightness(before.wall) + 3);
  expect(warmth(lit.wall)).toBeGreaterThan(warmth(before.wall));
  for (const c of ['r', 'g', 'b'] as const) expect(Math.abs(lit.sky[c] - before.sky[c])).toBeLessThan(4);
  await saved(page);
  const { scene } = await sceneOf(request, id);
  const foot = scene.fixtures.find(({ name }) => name === 'Quay lamp 1')!.foot;
  expect(Math.abs(foot.u - FOOT[0])).toBeLessThan(0.005);
  expect(Math.abs(foot.v - FOOT[1])).toBeLessThan(0.005);

  // Its circuit down and up.
  const fader = page.getByRole('slider', { name: 'Quay', exact: true });
  const drop = await middleOf(page, 'Quay');
  const track = (await fader.boundingBox())!;
  const zero = { x: drop.x, y: track.y + track.height * (1 - 10 / 14) };
  await dragTo(page, zero, { x: zero.x, y: zero.y + track.height * 0.3 });
  await pictureReady(page);
  const level = async () => Number(await fader.getAttribute('aria-valuenow'));
  await expect.poll(level).toBeLessThan(-3);
  expect(brightness(await toneAt(page, ...PAVING))).toBeLessThan(brightness(lit.paving) - 15);
  const down = await level();
  await dragTo(
    page,
    { x: zero.x, y: zero.y + track.height * 0.3 },
    { x: zero.x, y: zero.y - track.height * 0.05 },
  );
  await expect.poll(level).toBeGreaterThan(down + 3);

  // Two steps back bring the lit paving to where it was; a reload keeps all of it, with what can be done again.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await pictureReady(page);
  const undone = await toneAt(page, ...PAVING);
  expect(Math.abs(brightness(undone) - brightness(lit.paving))).toBeLessThan(1);
  await saved(page);
  await page.reload();
  await pictureReady(page);
  expect(await toneAt(page, ...PAVING)).toEqual(undone);
  await expect(page.getByRole('button', { name: 'Redo' })).toBeEnabled();

  // Out as a JPEG that looks like the screen.
  await page.getByRole('button', { name: /^Output/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Send out 750 × 500' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('ferry-steps-copy-night.jpg');
  const picture = await readFile(await download.path());
  expect(await sharp(picture).metadata()).toMatchObject({ width: 750, height: 500, format: 'jpeg' });
  const screen = await page.getByTestId('night').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const size = { width: 300, height: 200, fit: 'fill' } as const;
  const small = (data: Buffer) => sharp(data).removeAlpha().resize(size).raw().toBuffer();
  const [shown, sent] = await Promise.all([
    small(Buffer.from(screen.split(',')[1], 'base64')),
    small(picture),
  ]);
  const differences = shown.map((code, i) => Math.abs(code - sent[i])).sort();
  const mean = differences.reduce((sum, d) => sum + d, 0) / differences.length;
  expect(mean).toBeLessThan(1.5);
  expect(differences[Math.floor(differences.length * 0.99)]).toBeLessThan(12);
});

test('a lamp can be lit, placed and put out with the keyboard alone', async ({ page, request }) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await page.getByRole('button', { name: 'Light a globe in the middle' }).focus();
  await page.keyboard.press('Enter');
  await pictureReady(page);
  const drop = page.getByRole('button', { name: 'Circuit 1 lamp 1', exact: true });
  await drop.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press(']');
  await page.getByRole('button', { name: 'Circuit 1 lamp 1, foot' }).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await pictureReady(page);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await expect.poll(async () => (await sceneOf(request, id)).scene.fixtures[0]?.at.u).toBeCloseTo(0.49, 3);
  await drop.focus();
  await page.keyboard.press('Delete');
  await expect(drop).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(drop).toHaveCount(1);
});

test('the day shows for as long as its key or button is held', async ({ page }) => {
  await openEditor(page, 'ferry-steps');
  const day = page.getByTestId('day');
  await expect(day).toBeHidden();
  await page.keyboard.down('d');
  await expect(day).toBeVisible();
  const sky = await day.evaluate((canvas: HTMLCanvasElement) => [
    ...canvas.getContext('2d')!.getImageData(canvas.width / 4, 10, 1, 1).data,
  ]);
  expect(sky[2]).toBeGreaterThan(100);
  await page.keyboard.up('d');
  await expect(day).toBeHidden();
  await page.getByRole('button', { name: 'Day' }).hover();
  await page.mouse.down();
  await expect(day).toBeVisible();
  await page.mouse.up();
  await expect(day).toBeHidden();
});

test('the day stands until the night is made, and words say so', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  let letPlateGo!: () => void;
  const held = new Promise<void>((resolve) => (letPlateGo = resolve));
  await page.route('**/plates/**', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`/scenes/${id}`);
  const opening = page.getByTestId('opening');
  await expect(opening).toBeVisible();
  await expect(page.getByText('Lighting the scene')).toBeVisible();
  expect(
    await opening.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth)),
  ).toBeGreaterThan(400);
  letPlateGo();
  await pictureReady(page);
  await expect(opening).toBeHidden();
  await expect(page.getByText('Lighting the scene')).toBeHidden();
});

test('before any script runs the scene is seen where the editor will show it', async ({
  page,
  request,
  browser,
  baseURL,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  const plain = await browser.newContext({ baseURL, javaScriptEnabled: false });
  const bare = await plain.newPage();
  await bare.goto(`/scenes/${id}`);
  const early = (await bare.getByRole('main').locator('img').boundingBox())!;
  const { channels } = await sharp(await bare.screenshot({ clip: early })).stats();
  expect(channels[1].stdev).toBeGreaterThan(10);
  await plain.close();
  await page.route('**/plates/**', () => undefined);
  await page.goto(`/scenes/${id}`);
  const late = (await page.getByTestId('opening').boundingBox())!;
  // The editor lays it on whole pixels.
  const aside = late.x + late.width / 2 - (early.x + early.width / 2);
  for (const off of [aside, late.y - early.y, late.height - early.height])
    expect(Math.abs(off)).toBeLessThanOrEqual(1);
});

test('a gel is picked off the picture', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await page.getByRole('button', { name: 'Quay lamp 2', exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Pick the gel off the picture' }).click();
  const awning = await onPicture(page, 0.02, 0.4);
  await page.mouse.click(awning.x, awning.y);
  await expect(page.getByRole('button', { name: 'Pick another gel' })).toBeVisible();
  await saved(page);
  const gel = (await sceneOf(request, id)).scene.fixtures.find(({ name }) => name === 'Quay lamp 2')!.gel;
  expect(gel.from).toBe('picture');
  await expect(page.getByText('This gel is a colour')).toBeVisible();
  expect(gel.color[0]).toBeGreaterThan(gel.color[2]);
  await typeNumber(page, 'Gel', 3000);
  await expect(page.getByText('This gel is a colour')).toBeHidden();
});
