import { expect, type Page } from '@playwright/test';
import { cornersOf, GLOBES, leftLight, onRow, WINDOWS } from '../test/drawn-street';
import { middleOf } from '@/core/plane/middle-of';
import { beginDrawn } from './support/drawn-photo';
import { brightness, onPicture, pictureReady, saved, sceneOf, toneAt } from './support/editor';
import { test } from './support/kept-page';

const click = async (page: Page, { u, v }: { u: number; v: number }) => {
  const { x, y } = await onPicture(page, u, v);
  await page.mouse.click(x, y);
};

const lightTwins = async (page: Page) => {
  await page.getByRole('button', { name: 'Find its twins' }).click();
  await page.getByRole('button', { name: /^Light all/ }).click();
  await pictureReady(page);
};

test('a stranger’s street is lit in twelve gestures: a wall lantern and its twins, windows in a click, the rest by twins', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page);
  await page.getByRole('button', { name: 'Use them' }).click();
  await pictureReady(page);

  const lamp = GLOBES[0];
  const down = [2.2, 1.4, 0.7, 0.25].map((up) => onRow(lamp.along + 0.45, up));
  const sky = { u: 0.75, v: 0.12 };
  const places = [...down, sky];
  const tones = () =>
    Promise.all(places.map(async ({ u, v }) => brightness(await toneAt(page, u, v, 0.004))));
  const before = await tones();

  // Gestures three to five: a globe beside a door, and its twins.
  await click(page, onRow(lamp.along, lamp.up));
  await pictureReady(page);
  await lightTwins(page);
  const after = await tones();
  down.forEach((_, i) => expect(after[i]).toBeGreaterThan(before[i] + 12));
  expect(Math.abs(after.at(-1)! - before.at(-1)!)).toBeLessThan(3);

  // Six to twelve: the pane, four windows, and the rest by twins.
  await page.getByText('pane', { exact: true }).click();
  const panes = async () => (await sceneOf(request, id)).scene.fixtures.filter(({ kind }) => kind === 'pane');
  for (const [k, window] of [WINDOWS[0], WINDOWS[3], WINDOWS[2], WINDOWS[5]].entries()) {
    await click(page, middleOf(cornersOf(window)));
    await expect.poll(async () => (await panes()).length).toBe(k + 1);
    const { path } = (await panes()).at(-1)!;
    cornersOf(window).forEach(({ u, v }, i) => {
      expect(Math.hypot((path[i].u - u) * 960, (path[i].v - v) * 640)).toBeLessThan(4);
    });
  }
  const dark = middleOf(cornersOf(WINDOWS[7]));
  await pictureReady(page);
  const unlit = brightness(await toneAt(page, dark.u, dark.v, 0.004));
  await lightTwins(page);
  expect(brightness(await toneAt(page, dark.u, dark.v, 0.004))).toBeGreaterThan(unlit + 60);
  await saved(page);
  expect((await panes()).length).toBeGreaterThanOrEqual(6);

  // Beside windows nothing is lit, and words say what to do.
  const count = (await panes()).length;
  await click(page, sky);
  await expect(page.getByText('No window’s frame is sure here.')).toBeVisible();
  expect((await panes()).length).toBe(count);
});

test('a window with a bar is all of it or one light, by a button, a key or a name, and is as bright either way', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page, true);
  await page.getByRole('button', { name: 'Use them' }).click();
  await pictureReady(page);
  await page.getByText('pane', { exact: true }).click();
  const left = cornersOf(leftLight(WINDOWS[0]));
  const right = {
    u: 2 * middleOf(cornersOf(WINDOWS[0])).u - middleOf(left).u,
    v: middleOf(cornersOf(WINDOWS[0])).v,
  };
  const tones = async () => {
    await pictureReady(page);
    const at = [middleOf(left), right];
    return Promise.all(at.map(async ({ u, v }) => brightness(await toneAt(page, u, v, 0.004))));
  };
  const pane = async () => (await sceneOf(request, id)).scene.fixtures.find(({ kind }) => kind === 'pane')!;
  const dark = await tones();
  await click(page, middleOf(left));
  await expect(page.getByText(/^Window 2 of 2 that were found/)).toBeVisible();
  await saved(page);
  const { lumens } = await pane();
  const whole = await tones();
  whole.forEach((tone, i) => expect(tone).toBeGreaterThan(dark[i] + 60));

  await page.getByRole('button', { name: 'Smaller window' }).click();
  await expect(page.getByText(/^Window 1 of 2/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Smaller window' })).toBeDisabled();
  const one = await tones();
  expect(Math.abs(one[0] - whole[0])).toBeLessThan(25);
  expect(one[1]).toBeLessThan(whole[1] - 60);
  await saved(page);
  expect((await pane()).lumens).toBeLessThan(0.6 * lumens);

  await page.keyboard.press('.');
  await expect(page.getByText(/^Window 2 of 2/)).toBeVisible();
  const again = await tones();
  again.forEach((tone, i) => expect(Math.abs(tone - whole[i])).toBeLessThan(3));
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Window 1 of 2/)).toBeVisible();
  // What was found is no part of the document: after a reload the window is as it was left, and nothing is asked.
  await saved(page);
  await page.reload();
  await pictureReady(page);
  await expect(page.getByText(/^Window \d of/)).toHaveCount(0);
  expect((await pane()).lumens).toBeLessThan(0.6 * lumens);
});
