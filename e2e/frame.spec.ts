import { expect, type Page } from '@playwright/test';
import sharp, { type Sharp } from 'sharp';
import {
  copyOf,
  dragTo,
  middleOf,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
} from './support/editor';
import { test } from './support/kept-page';

test.use({ deviceScaleFactor: 1 });

const step = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) }).click();

/** Mean of what the screen shows around a point. */
async function shownAt(page: Page, { x, y }: { x: number; y: number }) {
  const shot = await page.screenshot({ clip: { x: x - 3, y: y - 3, width: 6, height: 6 } });
  return (await sharp(shot).stats()).channels.slice(0, 3).map(({ mean }) => mean);
}

test('a crop keeps lamps on their glass, goes out at its own size, and all comes back', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await step(page, 'Frame');
  await pictureReady(page);
  await dragTo(page, await middleOf(page, 'Lower right corner'), await onPicture(page, 0.6, 0.8));
  await dragTo(page, await middleOf(page, 'Upper edge'), await onPicture(page, 0.3, 0.1));
  await page.getByLabel('Ratio').selectOption('1');
  await saved(page);
  const { frame, plate } = (await sceneOf(request, id)).scene;
  expect(frame.width).toBeCloseTo(0.6, 1);
  expect((frame.width * plate.width) / (frame.height * plate.height)).toBeCloseTo(1, 2);
  await step(page, 'Fixtures');
  await pictureReady(page);
  // The lamp's drop lies on the brightest of what is around it.
  const drop = await middleOf(page, 'Quay lamp 2');
  const [lit] = await shownAt(page, drop);
  const [beside] = await shownAt(page, { x: drop.x - 40, y: drop.y - 30 });
  expect(lit).toBeGreaterThan(beside + 60);
  await step(page, 'Output');
  const side = Math.round(frame.width * plate.width);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: `Send out ${side} × ${side}` }).click();
  const picture = await sharp(await (await download).path()).metadata();
  expect([picture.width, picture.height]).toEqual([side, side]);
  await step(page, 'Frame');
  await page.getByRole('button', { name: 'The whole plate' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.frame).toMatchObject({ width: 1, height: 1, angle: 0 });
});

test('a line along something that leans levels the picture, and the output is the screen', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await step(page, 'Frame');
  await page.getByRole('button', { name: 'Level along a line' }).click();
  await dragTo(page, await onPicture(page, 0.2, 0.4), await onPicture(page, 0.8, 0.46));
  await pictureReady(page);
  await saved(page);
  const { frame } = (await sceneOf(request, id)).scene;
  expect(frame.angle).toBeCloseTo((Math.atan2(0.06 / 1.5, 0.6) * 180) / Math.PI, 0);
  await step(page, 'Output');
  await pictureReady(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Send out/ }).click();
  const path = await (await download).path();
  const shown = (await page.locator('[class*=framed]').first().boundingBox())!;
  await page.mouse.move(5, 5);
  const size = { width: Math.round(shown.width), height: Math.round(shown.height) };
  const soft = (picture: Sharp) => picture.removeAlpha().blur(3).raw().toBuffer();
  const there = await soft(sharp(await page.screenshot({ clip: { ...shown, ...size } })));
  const out = await soft(sharp(path).resize({ ...size, fit: 'fill' }));
  expect(there.length).toBe(out.length);
  const apart = there.reduce((sum, code, i) => sum + Math.abs(code - out[i]), 0) / out.length;
  expect(apart).toBeLessThan(1.5);
});

test('the frame is typed, nudged by keys, undone, and never leaves the plate', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await step(page, 'Frame');
  await page.getByLabel('Turn, value', { exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await saved(page);
  const turned = (await sceneOf(request, id)).scene.frame;
  expect(turned.angle).toBe(20);
  expect(turned.width).toBeLessThan(0.8);
  await page.getByRole('button', { name: 'Left edge' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await saved(page);
  await expect.poll(async () => (await sceneOf(request, id)).scene.frame.width).toBeLessThan(turned.width);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await expect.poll(async () => (await sceneOf(request, id)).scene.frame.angle).toBe(0);
});
