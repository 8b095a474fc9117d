import { expect, test, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragTo,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  toneAt,
  typeNumber,
} from './support/editor';

test.use({ deviceScaleFactor: 1 });

const night = (page: Page) => page.getByTestId('night');

/** Widths of the plate on the screen and of the night's own pixels. */
async function widths(page: Page) {
  const plate = (await page.getByTestId('marks').boundingBox())!.width;
  const own = await night(page).evaluate((canvas: HTMLCanvasElement) => ({
    pixels: canvas.width,
    css: canvas.getBoundingClientRect().width,
  }));
  return { plate, perPixel: own.css / own.pixels };
}

test('100, 200 and 300 per cent are computed at the plate’s own scale, and F fits again', async ({
  page,
  request,
}) => {
  await openEditor(page, await copyOf(request, 'ferry-steps-large'));
  const fitted = (await widths(page)).plate;
  for (const factor of [1, 2, 3]) {
    await page.keyboard.press(String(factor));
    await pictureReady(page);
    const { plate, perPixel } = await widths(page);
    expect(plate).toBeCloseTo(1800 * factor, 0);
    expect(perPixel).toBeCloseTo(factor, 1);
    await expect(page.getByTestId('overview')).toBeVisible();
    await expect(page.getByRole('button', { name: `Zoom: ${100 * factor} %` })).toBeVisible();
  }
  await page.keyboard.press('f');
  await pictureReady(page);
  expect((await widths(page)).plate).toBe(fitted);
  await expect(page.getByTestId('overview')).toHaveCount(0);
});

test('the wheel zooms to the pointer, and a held space bar pans', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'ferry-steps-large'));
  const coat = await onPicture(page, 0.45, 0.5);
  await page.mouse.move(coat.x, coat.y);
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -100);
  await pictureReady(page);
  const box = (await page.getByTestId('marks').boundingBox())!;
  expect((coat.x - box.x) / box.width).toBeCloseTo(0.45, 2);
  expect((coat.y - box.y) / box.height).toBeCloseTo(0.5, 2);
  await page.keyboard.down('Space');
  await dragTo(page, coat, { x: coat.x - 120, y: coat.y + 20 });
  await page.keyboard.up('Space');
  await pictureReady(page);
  const panned = (await page.getByTestId('marks').boundingBox())!;
  expect(panned.x).toBeCloseTo(box.x - 120, 0);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  const map = (await page.getByTestId('overview').boundingBox())!;
  await page.mouse.click(map.x + map.width * 0.9, map.y + map.height * 0.5);
  await pictureReady(page);
  expect((await page.getByTestId('marks').boundingBox())!.x).toBeLessThan(panned.x - 200);
});

test('a lamp is lit and moved while zoomed in, where the pointer is', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'ferry-steps-large'));
  await page.keyboard.press('1');
  await pictureReady(page);
  const glass = await onPicture(page, 0.5534, 0.266);
  const size = await night(page).evaluate((canvas: HTMLCanvasElement) => canvas.width);
  await page.mouse.click(glass.x, glass.y);
  await pictureReady(page);
  expect(await night(page).evaluate((canvas: HTMLCanvasElement) => canvas.width)).toBe(size);
  const drop = (await page.getByRole('button', { name: 'Quay lamp 1', exact: true }).boundingBox())!;
  expect(Math.abs(drop.x + drop.width / 2 - glass.x)).toBeLessThan(3);
});

test('the wipe shows night on its left and day on its right, and beside shows both whole', async ({
  page,
  request,
}) => {
  await openEditor(page, await copyOf(request, 'ferry-steps-large'));
  await page.getByText('Wipe', { exact: true }).click();
  const pane = page.getByTestId('day-pane');
  await expect(pane).toHaveCSS('clip-path', 'inset(0px 0px 0px 50%)');
  const knob = page.getByRole('slider', { name: 'Wipe between night and day' });
  await knob.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(pane).toHaveCSS('clip-path', 'inset(0px 0px 0px 40%)');
  const screen = async (u: number) => {
    const { x, y } = await onPicture(page, u, 0.06);
    const shot = await page.screenshot({ clip: { x, y, width: 4, height: 4 } });
    return (await import('sharp'))
      .default(shot)
      .stats()
      .then(({ channels }) => channels[2].mean);
  };
  expect(await screen(0.9)).toBeGreaterThan((await screen(0.1)) + 60);

  await page.getByText('Beside', { exact: true }).click();
  await pictureReady(page);
  const [dark, bright] = await Promise.all(
    [night(page), page.getByTestId('day')].map(async (canvas) => (await canvas.boundingBox())!),
  );
  expect(bright.x).toBeGreaterThan(dark.x + dark.width - 1);
  expect(bright.width).toBeCloseTo(dark.width, 0);
  expect(brightness(await toneAt(page, 0.2, 0.06))).toBeLessThan(80);
});

test('a scene that was seen before is there at once, to the last code, and another document is not taken for it', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const seen = await toneAt(page, 0.5, 0.72);
  const isKept = () =>
    page.evaluate(async (scene) => {
      for (const name of await caches.keys()) {
        const kept = await (await caches.open(name)).keys();
        if (kept.some(({ url }) => url.includes(`/${scene}/`))) return true;
      }
      return false;
    }, id);
  await expect.poll(isKept).toBe(true);
  // The plate does not come: nothing can be computed.
  await page.route('**/plates/**', () => {});
  await page.reload();
  await expect(night(page)).toHaveAttribute('data-busy', 'false');
  await expect(night(page)).toHaveAttribute('data-frames', '1');
  expect(await toneAt(page, 0.5, 0.72)).toEqual(seen);
  await page.unroute('**/plates/**');
  await page.reload();
  await pictureReady(page);
  await page.getByRole('button', { name: /^Night/ }).click();
  await typeNumber(page, 'Exposure', -7);
  await pictureReady(page);
  const darker = await toneAt(page, 0.5, 0.72);
  expect(darker).not.toEqual(seen);
  await saved(page);
  await page.reload();
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.72)).toEqual(darker);
});
