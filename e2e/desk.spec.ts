import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  middleOf,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

const PAVING = [0.45, 0.66] as const;
const FAR_SKY = [0.2, 0.06] as const;

const fader = (page: Page, name: string) => page.getByRole('slider', { name, exact: true });

test.beforeEach(async ({ page, request }, info) => {
  const id = await copyOf(request, 'ferry-steps');
  info.annotations.push({ type: 'scene', description: id });
  await openEditor(page, id);
});

test('a fader is moved by keys, wheel and typing, and put back by a double click', async ({ page }) => {
  const quay = fader(page, 'Quay');
  const start = brightness(await toneAt(page, ...PAVING));
  await quay.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(quay).toHaveAttribute('aria-valuenow', '-2');
  await pictureReady(page);
  const dimmed = brightness(await toneAt(page, ...PAVING));
  expect(dimmed).toBeLessThan(start - 10);

  const knob = await middleOf(page, 'Quay');
  await page.mouse.move(knob.x, knob.y);
  await page.mouse.wheel(0, -100);
  await expect(quay).toHaveAttribute('aria-valuenow', '-1.9');

  await page.getByLabel('Quay, stops').fill('1.5');
  await page.keyboard.press('Enter');
  await expect(quay).toHaveAttribute('aria-valuenow', '1.5');
  await pictureReady(page);
  expect(brightness(await toneAt(page, ...PAVING))).toBeGreaterThan(start);

  await quay.dblclick({ position: { x: 15, y: 2 } });
  await expect(quay).toHaveAttribute('aria-valuenow', '0');
  await pictureReady(page);
  expect(Math.abs(brightness(await toneAt(page, ...PAVING)) - start)).toBeLessThan(1);
});

test('ambient moves what no lamp lights, and the master moves only lamps', async ({ page }) => {
  const before = { sky: await toneAt(page, ...FAR_SKY), paving: await toneAt(page, ...PAVING) };
  await page.getByLabel('Ambient, stops').fill('-3');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  expect(brightness(await toneAt(page, ...FAR_SKY))).toBeLessThan(brightness(before.sky) * 0.6);
  await page.getByLabel('Ambient, stops').fill('0');
  await page.getByLabel('Master, stops').fill('-10');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  expect(await page.getByRole('slider', { name: 'Master' }).getAttribute('aria-valuetext')).toBe('off');
  expect(brightness(await toneAt(page, ...PAVING))).toBeLessThan(brightness(before.paving) * 0.6);
  expect(Math.abs(brightness(await toneAt(page, ...FAR_SKY)) - brightness(before.sky))).toBeLessThan(4);
});

test('mute and solo by key and by button', async ({ page }) => {
  const start = brightness(await toneAt(page, ...PAVING));
  await fader(page, 'Quay').focus();
  await page.keyboard.press('m');
  await expect(page.getByRole('button', { name: 'Mute Quay' })).toHaveAttribute('aria-pressed', 'true');
  await pictureReady(page);
  expect(brightness(await toneAt(page, ...PAVING))).toBeLessThan(start * 0.6);
  await page.getByRole('button', { name: 'Mute Quay' }).click();
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: 'Solo Quay' })).toHaveAttribute('aria-pressed', 'true');
  await pictureReady(page);
  expect(Math.abs(brightness(await toneAt(page, ...PAVING)) - start)).toBeLessThan(1);
});

test('a strip folds open into lamp and spill, which move apart', async ({ page }) => {
  const LAMP = [0.486, 0.3643] as const;
  await page.getByRole('button', { name: /^Quay, 2 fixtures/ }).click();
  const before = { lamp: await toneAt(page, ...LAMP, 0.003), paving: await toneAt(page, ...PAVING) };
  await page.getByLabel('Quay spill level, stops').fill('-10');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  expect(brightness(await toneAt(page, ...PAVING))).toBeLessThan(brightness(before.paving) * 0.6);
  expect(brightness(await toneAt(page, ...LAMP, 0.003))).toBeGreaterThan(brightness(before.lamp) * 0.9);
});

test('fixtures change circuits, and a circuit takes a name', async ({ page, request }, info) => {
  const id = info.annotations[0].description!;
  await page.getByRole('button', { name: 'Quay lamp 2', exact: true }).press('Enter');
  await page.getByRole('combobox', { name: 'Circuit' }).selectOption('A new circuit');
  await page.getByLabel('Circuit name').fill('Far end');
  await page.keyboard.press('Enter');
  await expect(fader(page, 'Far end')).toBeVisible();
  await saved(page);
  const { scene } = await sceneOf(request, id);
  expect(scene.circuits.map(({ name }) => name)).toEqual(['Quay', 'Far end']);
  await page.keyboard.press('Escape');
});
