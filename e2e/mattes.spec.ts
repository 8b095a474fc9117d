import { expect, test, type Page } from '@playwright/test';
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
} from './support/editor';

async function openMattes(page: Page, id: string): Promise<void> {
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Mattes/ }).click();
}

const begin = async (page: Page, kind: string) => {
  await page.getByRole('button', { name: kind, exact: true }).first().click();
  await pictureReady(page);
};

const look = async (page: Page, view: 'Tint' | 'Grey' | 'Cut out' | 'Off') => {
  await page.getByText(view, { exact: true }).click();
  await pictureReady(page);
};

const click = async (page: Page, u: number, v: number) => {
  const { x, y } = await onPicture(page, u, v);
  await page.mouse.click(x, y);
  await pictureReady(page);
};

/** Coverage as the grey view shows it, 0 to 1. */
const coverage = async (page: Page, u: number, v: number) =>
  brightness(await toneAt(page, u, v, 0.004)) / 255;

test('the sky in one click: looked at in three ways, lit apart from the land, and taken away', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openMattes(page, id);
  await expect(page.getByText('No matte yet')).toBeVisible();
  await begin(page, 'Sky');
  await look(page, 'Grey');
  expect(await coverage(page, 0.5, 0.1)).toBeGreaterThan(0.97);
  expect(await coverage(page, 0.5, 0.9)).toBeLessThan(0.03);
  await look(page, 'Cut out');
  expect(brightness(await toneAt(page, 0.5, 0.9))).toBeLessThan(20);
  await look(page, 'Off');
  const [sky, land] = [await toneAt(page, 0.5, 0.1), await toneAt(page, 0.4, 0.92)];
  await typeNumber(page, 'Light inside', 2);
  expect(brightness(await toneAt(page, 0.5, 0.1))).toBeGreaterThan(brightness(sky) * 1.6);
  expect(Math.abs(brightness(await toneAt(page, 0.4, 0.92)) - brightness(land))).toBeLessThan(1.5);
  await typeNumber(page, 'Light outside', -3);
  expect(brightness(await toneAt(page, 0.4, 0.92))).toBeLessThan(brightness(land));
  await expect(page.getByText('lights the night')).toBeVisible();
  await page.getByRole('button', { name: 'Take it away, and its light' }).click();
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.1)).toEqual(sky);
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.places).toHaveLength(2);
});

test('an outline is drawn, moved and joined with a ramp, all by hand and key', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openMattes(page, id);
  await begin(page, 'Outline');
  await look(page, 'Grey');
  for (const [u, v] of [
    [0.2, 0.3],
    [0.6, 0.3],
    [0.6, 0.8],
    [0.2, 0.8],
  ])
    await click(page, u, v);
  expect(await coverage(page, 0.4, 0.5)).toBeGreaterThan(0.98);
  expect(await coverage(page, 0.7, 0.5)).toBe(0);
  await dragTo(page, await middleOf(page, 'Point 3'), await onPicture(page, 0.9, 0.8));
  await pictureReady(page);
  expect(await coverage(page, 0.7, 0.7)).toBeGreaterThan(0.98);
  await page.getByRole('button', { name: 'Point 3', exact: true }).focus();
  await page.keyboard.press('Delete');
  await pictureReady(page);
  expect(await coverage(page, 0.55, 0.7)).toBe(0);
  await typeNumber(page, 'Feather', 0.05);
  const edge = await coverage(page, 0.4, 0.3);
  expect(edge).toBeGreaterThan(0.1);
  expect(edge).toBeLessThan(0.9);
  await page.getByRole('button', { name: 'Another pass' }).click();
  await page.getByRole('menuitem', { name: 'Ramp' }).click();
  await page.getByLabel('How ramp joins').selectOption('meet');
  await pictureReady(page);
  await dragTo(page, await middleOf(page, 'Nothing from here'), await onPicture(page, 0.5, 0.4));
  await pictureReady(page);
  expect(await coverage(page, 0.25, 0.6)).toBeLessThan(0.05);
  await saved(page);
  const [matte] = (await sceneOf(request, id)).scene.mattes;
  expect(matte.passes.map(({ kind, join }) => [kind, join])).toEqual([
    ['outline', 'add'],
    ['ramp', 'meet'],
  ]);
});

test('six mattes of every kind reload and go out as they were', async ({ page, request }) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openMattes(page, id);
  for (const kind of ['Sky', 'Like place', 'Tones', 'Colour', 'Ramp', 'Outline']) {
    await begin(page, kind);
    if (kind === 'Like place') await click(page, 0.15, 0.6);
    if (kind === 'Colour') await click(page, 0.12, 0.55);
    if (kind === 'Outline')
      for (const [u, v] of [
        [0.5, 0.4],
        [0.7, 0.4],
        [0.6, 0.7],
      ])
        await click(page, u, v);
    await typeNumber(page, 'Light inside', kind === 'Sky' ? 1.5 : 0.6);
  }
  await page.getByRole('button', { name: /^Output/ }).click();
  await pictureReady(page);
  const before = await Promise.all([0.2, 0.5, 0.8].map((u) => toneAt(page, u, 0.5)));
  await saved(page);
  await openEditor(page, id);
  expect(await Promise.all([0.2, 0.5, 0.8].map((u) => toneAt(page, u, 0.5)))).toEqual(before);
  expect((await sceneOf(request, id)).scene.mattes).toHaveLength(6);
  await page.getByRole('button', { name: /^Output/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Send out/ }).click();
  const path = await (await download).path();
  const { width, height } = await sharp(path).metadata();
  for (const [k, u] of [0.2, 0.5, 0.8].entries()) {
    const reach = Math.round(0.012 * width);
    const [left, top] = [Math.round(u * width) - reach, Math.round(0.5 * height) - reach];
    const part = sharp(path).extract({ left, top, width: 2 * reach, height: 2 * reach });
    const { channels } = await sharp(await part.png().toBuffer()).stats();
    (['r', 'g', 'b'] as const).forEach((c, i) =>
      expect(Math.abs(channels[i].mean - before[k][c])).toBeLessThan(4),
    );
  }
});
