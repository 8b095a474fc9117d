import { expect } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragTo,
  middleOf,
  onPicture,
  openEditor,
  openPart,
  openStep,
  pictureReady,
  sceneOf,
  setFader,
  setRow,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

test('smoke is put in the picture, lit by lamps, placed by its foot, and removed', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  // Beside the near lamp, before dark houses.
  const at = [0.53, 0.42] as const;
  const tone = async () => brightness(await toneAt(page, ...at, 0.01));
  const clear = await tone();
  await openStep(page, /^Touch/);
  await openPart(page, /^Drifts/);
  const place = await onPicture(page, 0.52, 0.42);
  await page.mouse.click(place.x, place.y);
  await pictureReady(page);
  await setRow(page, 'Density', '0.9');
  await setRow(page, 'Wisps', '0');
  const foot = () => middleOf(page, 'Drift 1, foot');
  await dragTo(page, await foot(), await onPicture(page, 0.5, 0.72));
  await pictureReady(page);
  const smoky = await tone();
  expect(smoky).toBeGreaterThan(clear + 12);
  await setFader(page, 'Master', '-5');
  expect(await tone()).toBeLessThan(smoky - 10);
  await setFader(page, 'Master', '0');

  // Far off, the houses stand before it.
  await dragTo(page, await foot(), await onPicture(page, 0.5, 0.525));
  await pictureReady(page);
  await page.getByRole('button', { name: 'Drift 1', exact: true }).last().focus();
  await page.keyboard.press('Shift+ArrowRight');
  await pictureReady(page);
  const kept = async () => (await sceneOf(request, id)).scene.drifts[0];
  await expect.poll(async () => (await kept()).at.u).toBeCloseTo(0.54, 2);
  expect((await kept()).density).toBe(0.9);
  await page.getByRole('button', { name: 'Remove the drift' }).click();
  await pictureReady(page);
  expect(Math.abs((await tone()) - clear)).toBeLessThan(1.5);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('list', { name: 'Drifts' }).getByRole('button')).toHaveCount(1);
});
