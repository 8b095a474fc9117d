import { expect } from '@playwright/test';
import {
  copyOf,
  dragTo,
  middleOf,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

test('the ends of the horizon are dragged and stepped, and the grid and the light follow', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const before = await toneAt(page, 0.5, 0.72);
  await page.getByRole('button', { name: /^Ground plan/ }).click();
  const grid = page.locator('[data-testid=marks] path').nth(1);
  const lay = await grid.getAttribute('d');
  const left = await middleOf(page, 'Horizon, left end');
  await dragTo(page, left, { x: left.x, y: (await onPicture(page, 0, 0.3)).y });
  await expect(grid).not.toHaveAttribute('d', lay!);
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.72)).not.toEqual(before);
  await page.getByRole('slider', { name: 'Horizon, right end' }).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect.poll(async () => (await sceneOf(request, id)).scene.plan.horizon.right).toBeCloseTo(0.528, 2);
  await page.getByLabel('Lens, value').fill('50');
  await page.keyboard.press('Enter');
  await page.getByLabel('Eye height, value').fill('nonsense');
  await page.keyboard.press('Enter');
  await saved(page);
  const { plan } = (await sceneOf(request, id)).scene;
  expect(plan.horizon.left).toBeCloseTo(0.3, 1);
  expect(plan).toMatchObject({ lens: 50, eyeHeight: 1.66 });
});

test('a horizon outside the picture and a foot above it still give a picture', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const drop = page.getByRole('button', { name: 'Quay lamp 2, foot' });
  await drop.focus();
  const foot = await middleOf(page, 'Quay lamp 2, foot');
  await dragTo(page, foot, await onPicture(page, 0.48, 0.05));
  await page.getByRole('button', { name: /^Ground plan/ }).click();
  for (const side of ['left', 'right']) {
    await page.getByLabel(`Horizon ${side}, value`).fill('1.5');
    await page.keyboard.press('Enter');
  }
  await pictureReady(page);
  await expect(page.getByText('The picture could not be made')).toHaveCount(0);
  const tone = await toneAt(page, 0.5, 0.5);
  expect(Object.values(tone).every(Number.isFinite)).toBe(true);
});

test('the tones of the night squeeze to the left as the exposure falls', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'tannery-court'));
  await page.getByRole('button', { name: /^Night/ }).click();
  const chart = page.getByRole('img', { name: 'Tones of day and night' });
  /** Where the night's blue lies in the chart on average, 0 left to 1 right. */
  const middle = () =>
    chart.evaluate((canvas: HTMLCanvasElement) => {
      const { data, width } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let [sum, weight] = [0, 0];
      for (let i = 0; i < data.length; i += 4) {
        const blue = Math.max(0, data[i + 2] - data[i]) * data[i + 3];
        sum += blue * (((i / 4) % width) / width);
        weight += blue;
      }
      return sum / weight;
    });
  const before = await middle();
  await page.getByLabel('Exposure, value').fill('-1.5');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  await expect.poll(middle).toBeGreaterThan(before + 0.06);
  await page.getByLabel('Exposure, value').fill('-9');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('clipped')).toHaveText(/^black [5-9]\d %|^black 100 %/);
  await page.getByRole('button', { name: 'linear' }).click();
  await expect(page.getByRole('button', { name: 'logarithmic' })).toHaveAttribute('aria-pressed', 'true');
});

test('a nocturne is shown on this plate, taken as one step, and gone on from', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const before = await toneAt(page, 0.2, 0.06);
  await page.getByRole('button', { name: /^Night/ }).click();
  await page.getByRole('button', { name: 'Start from a nocturne' }).click();
  const last = page.getByRole('button', { name: 'Lamps only' });
  await expect
    .poll(() => last.locator('img').evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBe(160);
  await last.click();
  await pictureReady(page);
  const dark = await toneAt(page, 0.2, 0.06);
  expect(dark.b).toBeLessThan(before.b * 0.6);
  await page.getByLabel('Exposure, value').fill('-6');
  await page.keyboard.press('Enter');
  await saved(page);
  expect((await sceneOf(request, id)).scene.night).toMatchObject({ exposure: -6, hour: 0.92, rods: 1 });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await pictureReady(page);
  expect(await toneAt(page, 0.2, 0.06)).toEqual(before);
});

test('every control of the night can be typed, stepped and reset alone and as a step', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Night/ }).click();
  const start = (await sceneOf(request, id)).scene.night;
  const sky = await toneAt(page, 0.2, 0.06);
  await page.getByRole('slider', { name: 'Exposure', exact: true }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await page.getByLabel('Kelvin, value').fill('3000');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  const warm = await toneAt(page, 0.2, 0.06);
  expect(warm.r - warm.b).toBeGreaterThan(sky.r - sky.b + 20);
  await page.getByRole('button', { name: 'Reset kelvin' }).click();
  await saved(page);
  const now = (await sceneOf(request, id)).scene.night;
  expect(now.exposure).toBeCloseTo(start.exposure + 1, 1);
  expect(Math.abs(now.kelvin - start.kelvin)).toBeLessThan(30);
  await page.getByLabel('Tint, value').fill('0.5');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'As the hour says' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.night).toMatchObject({ tint: 0, hour: start.hour });
});
