import { readFile, writeFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
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
import { test } from './support/kept-page';

const ROOF = [0.06, 0.12] as const;
const PAVING = [0.55, 0.9] as const;
const LIT = [0.5, 0.7] as const;

async function openNight(page: Page, id: string, part?: string): Promise<void> {
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Night/ }).click();
  if (part) await page.getByRole('button', { name: new RegExp(`^${part}`) }).click();
  await pictureReady(page);
}

test('the tone curve is bent over the tones, on luminance or on colour, and straightened', async ({
  page,
  request,
}) => {
  await openNight(page, await copyOf(request, 'brickyard-lane'), 'Tones');
  const before = await toneAt(page, ...ROOF);
  const curve = (await page.getByRole('group', { name: 'Tone curve' }).boundingBox())!;
  const at = (x: number, y: number) => ({
    x: curve.x + x * curve.width,
    y: curve.y + (1 - y) * curve.height,
  });
  await dragTo(page, at(0.2, 0.2), at(0.2, 0.5));
  await pictureReady(page);
  const lifted = await toneAt(page, ...ROOF);
  expect(brightness(lifted)).toBeGreaterThan(brightness(before) + 25);
  await page.getByText('Colour', { exact: true }).click();
  await pictureReady(page);
  expect(await toneAt(page, ...ROOF)).not.toEqual(lifted);
  await page.getByRole('slider', { name: 'Curve point 2' }).focus();
  await page.keyboard.press('Delete');
  await pictureReady(page);
  expect(Math.abs(brightness(await toneAt(page, ...ROOF)) - brightness(before))).toBeLessThan(2);
  await typeNumber(page, 'Ceiling', 0.1);
  expect(brightness(await toneAt(page, 0.3, 0.05))).toBeLessThan(28);
  await page.getByRole('button', { name: 'Straighten' }).click();
  await pictureReady(page);
  expect(await toneAt(page, ...ROOF)).toEqual(before);
});

test('lamps that are too bright for the exposure are told, and stopped down in one step', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openNight(page, id);
  const exposure = async () => (await sceneOf(request, id)).scene.night.exposure;
  const told = page.getByText(/stops too bright for the night’s exposure/);
  await expect(told).toBeHidden();
  await typeNumber(page, 'Exposure', 2);
  await expect(told).toBeVisible();
  const lit = brightness(await toneAt(page, ...LIT));
  await page.getByRole('button', { name: 'Stop down' }).click();
  await expect(told).toBeHidden();
  await pictureReady(page);
  await saved(page);
  expect(await exposure()).toBeLessThan(-1);
  expect(brightness(await toneAt(page, ...LIT))).toBeLessThan(lit - 10);
  await page.keyboard.press('Control+z');
  await expect(told).toBeVisible();
  await saved(page);
  expect(await exposure()).toBe(2);
});

test('tones take colours from the strip, and are refitted to what is left', async ({ page, request }) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openNight(page, id, 'Colour by tone');
  const before = await toneAt(page, ...PAVING);
  await typeNumber(page, 'Strength', 1);
  const navy = await toneAt(page, ...PAVING);
  expect(warmth(navy)).toBeLessThan(0);
  expect(brightness(navy)).toBeLessThan(brightness(before));
  await page.getByRole('button', { name: 'Refit the tones' }).click();
  await expect
    .poll(async () => brightness(await toneAt(page, ...PAVING)))
    .toBeGreaterThan(brightness(navy) * 1.5);
  await pictureReady(page);
  const refitted = await toneAt(page, ...PAVING);
  await page.getByRole('switch', { name: 'always' }).click({ force: true });
  await pictureReady(page);
  expect(Math.abs(brightness(await toneAt(page, ...PAVING)) - brightness(refitted))).toBeLessThan(6);
  const bar = (await page.getByTestId('tone-strip').boundingBox())!;
  await page.mouse.click(bar.x + bar.width * 0.15, bar.y + 5);
  await page.getByLabel('Colour of the stop').fill('#c03010');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  await saved(page);
  const { scene } = await sceneOf(request, id);
  expect(scene.night.byTone.stops).toHaveLength(5);
  expect(scene.night.refit.always).toBe(true);
  expect(warmth(await toneAt(page, ...PAVING, 0.05))).toBeGreaterThan(warmth(navy));
});

test('a look-up table comes from a file, with a strength, and a malformed one is refused with its line', async ({
  page,
  request,
}, info) => {
  await openNight(page, await copyOf(request, 'ferry-steps'), 'Look-up table');
  const before = await toneAt(page, 0.5, 0.05);
  const file = info.outputPath('swap.cube');
  // Red and blue change places.
  const entries = Array.from({ length: 8 }, (_, i) => `${i >> 2} ${(i >> 1) & 1} ${i & 1}`);
  await writeFile(file, ['LUT_3D_SIZE 2', ...entries].join('\n'));
  await page.getByLabel('A look-up table of yours').setInputFiles(file);
  await expect(page.getByText('swap', { exact: true })).toBeVisible();
  await pictureReady(page);
  const swapped = await toneAt(page, 0.5, 0.05);
  expect(swapped.r).toBeCloseTo(before.b, -1);
  expect(warmth(before)).toBeLessThan(-10);
  await typeNumber(page, 'Strength', 0);
  expect(Math.abs(warmth(await toneAt(page, 0.5, 0.05)) - warmth(before))).toBeLessThan(2);
  const bad = info.outputPath('bad.cube');
  await writeFile(bad, 'LUT_3D_SIZE 2\n0 0 0\nzero 0 0\n');
  await page.getByLabel('A look-up table of yours').setInputFiles(bad);
  await expect(page.getByRole('alert').filter({ hasText: 'Line 3' })).toBeVisible();
  await page.getByRole('button', { name: 'Take out' }).click();
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.05)).toEqual(before);
});

test('surroundings sink and the ring stays open where it is dragged', async ({ page, request }) => {
  await openNight(page, await copyOf(request, 'tannery-court'), 'Surroundings');
  const [corner, middle] = [await toneAt(page, 0.06, 0.92), await toneAt(page, 0.5, 0.6)];
  await typeNumber(page, 'Darken', 4);
  await typeNumber(page, 'Width', 0.25);
  await typeNumber(page, 'Height', 0.3);
  expect(brightness(await toneAt(page, 0.06, 0.92))).toBeLessThan(brightness(corner) * 0.5);
  expect(brightness(await toneAt(page, 0.5, 0.6))).toBeGreaterThan(brightness(middle) * 0.9);
  await dragTo(page, await middleOf(page, 'Middle of the pool'), await onPicture(page, 0.1, 0.9));
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.06, 0.92))).toBeGreaterThan(brightness(corner) * 0.8);
  expect(brightness(await toneAt(page, 0.5, 0.6))).toBeLessThan(brightness(middle) * 0.6);
});

test('haze lifts what is far and leaves what is near', async ({ page, request }) => {
  await openNight(page, await copyOf(request, 'brickyard-lane'), 'Haze');
  await typeNumber(page, 'Thickness', 0);
  const [far, near] = [await toneAt(page, 0.42, 0.44), await toneAt(page, 0.3, 0.95)];
  await typeNumber(page, 'Thickness', 0.9);
  await typeNumber(page, 'Brightness', 2);
  const lift = async (u: number, v: number, from: typeof far) =>
    brightness(await toneAt(page, u, v)) - brightness(from);
  expect(await lift(0.42, 0.44, far)).toBeGreaterThan(20);
  expect(await lift(0.42, 0.44, far)).toBeGreaterThan(2 * (await lift(0.3, 0.95, near)));
});

test('the probe reads day, night and lux under the pointer', async ({ page, request }) => {
  await openNight(page, await copyOf(request, 'ferry-steps'));
  await page.keyboard.press('v');
  const read = async (u: number, v: number) => {
    const { x, y } = await onPicture(page, u, v);
    await page.mouse.move(x, y);
    const probe = page.getByTestId('probe');
    await expect(probe).toContainText('lx');
    return (await probe.innerText()).replace(/\s+/g, ' ');
  };
  const sky = await read(0.5, 0.05);
  const codes = /night (\d+) (\d+) (\d+), ([−+][\d.]+)/.exec(sky)!;
  const { r } = await toneAt(page, 0.5, 0.05, 0.001);
  expect(Math.abs(Number(codes[1]) - r)).toBeLessThan(6);
  expect(codes[4].startsWith('−')).toBe(true);
  const lux = (text: string) => Number(/light ([\d.e+-]+) lx/.exec(text)![1]);
  await expect.poll(async () => lux(await read(0.49, 0.68))).toBeGreaterThan(20 * lux(sky));
});

test('a night is kept, goes out as a file, comes in again and is blended by its strength', async ({
  page,
  request,
}, info) => {
  const id = await copyOf(request, 'picture-house');
  await openNight(page, id);
  await page.getByRole('button', { name: 'Start from a nocturne' }).click();
  await page.getByRole('button', { name: 'Lamps only' }).click();
  await pictureReady(page);
  const dark = brightness(await toneAt(page, 0.5, 0.5));
  const strength = page.getByRole('slider', { name: 'Lamps only' });
  await strength.focus();
  await page.keyboard.press('Home');
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.5, 0.5))).toBeGreaterThan(dark + 8);
  await page.getByLabel('Name of the nocturne').fill('Quiet street');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const own = page.getByRole('button', { name: 'Quiet street', exact: true });
  await expect(own).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByLabel('Save Quiet street as a file').click({ force: true });
  const file = info.outputPath('quiet.nocturne');
  await (await download).saveAs(file);
  expect(JSON.parse(await readFile(file, 'utf8'))).toMatchObject({
    format: 'sundew-nocturne',
    name: 'Quiet street',
  });
  await page.getByLabel('Forget Quiet street').press('Enter');
  await expect(own).toHaveCount(0);
  await page.getByLabel('A nocturne of yours').setInputFiles(file);
  await expect(own).toBeVisible();
  await own.click();
  await saved(page);
  const bad = info.outputPath('bad.nocturne');
  await writeFile(bad, '{"format":"sundew-nocturne","version":3,"name":"x","night":{}}');
  await page.getByLabel('A nocturne of yours').setInputFiles(bad);
  await expect(page.getByRole('alert').filter({ hasText: 'damaged' })).toBeVisible();
  await page.getByLabel('Forget Quiet street').press('Enter');
  await expect(own).toHaveCount(0);
});

test('a named moment comes back after all was undone and the page was closed, and steps have pictures', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openNight(page, id);
  await typeNumber(page, 'Exposure', -1);
  const bright = await toneAt(page, ...PAVING);
  await saved(page);
  await page.getByRole('button', { name: 'What was done' }).click();
  const picture = page.getByRole('list', { name: 'History' }).locator('img');
  await expect
    .poll(() => picture.first().evaluate((img: HTMLImageElement) => img.naturalWidth))
    .toBeGreaterThan(40);
  await page.getByLabel('Name of this moment').fill('bright try');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'bright try', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await pictureReady(page);
  expect(brightness(await toneAt(page, ...PAVING))).toBeLessThan(brightness(bright) - 20);
  await saved(page);
  await openEditor(page, id);
  await page.getByRole('button', { name: 'What was done' }).click();
  await page.getByRole('button', { name: 'bright try', exact: true }).click();
  await expect.poll(() => toneAt(page, ...PAVING)).toEqual(bright);
});
