import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragTo,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
  typeNumber,
} from './support/editor';
import { test } from './support/kept-page';

const choose = async (page: Page, name: string) => {
  await page.getByRole('button', { name, exact: true }).focus();
  await page.keyboard.press('Enter');
};

test('a lamp finds its twins in the plate; they burn as one bulb until one is let go', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps-large');
  await openEditor(page, id);
  // Two of the three burn; the dark one is the nearest.
  await choose(page, 'Quay lamp 2');
  const nearest = () => toneAt(page, 0.5534, 0.266, 0.004);
  const before = brightness(await nearest());
  await page.getByRole('button', { name: 'Find its twins' }).click();
  const twins = page.getByRole('list', { name: 'Twins' });
  await expect(twins.getByRole('listitem')).toHaveCount(1);
  const ring = page.getByTestId('twins').locator('circle');
  await expect(ring).toHaveCount(1);
  await page.getByRole('button', { name: 'Take twin 1' }).click();
  await pictureReady(page);
  await page.mouse.move(5, 5);
  expect(brightness(await nearest())).toBeGreaterThan(before + 50);
  await typeNumber(page, 'Power', 900);
  await saved(page);
  const { fixtures } = (await sceneOf(request, id)).scene;
  const [first, twin] = [fixtures.find(({ name }) => name === 'Quay lamp 2')!, fixtures.at(-1)!];
  expect(twin.at.u).toBeCloseTo(0.553, 2);
  expect(twin.size / first.size).toBeCloseTo(1.66, 0);
  expect(twin.foot.v).toBeCloseTo(0.746, 1);
  expect([first.lumens, twin.lumens]).toEqual([900, 900]);
  await page.getByRole('button', { name: 'One of 2: on its own' }).click();
  await typeNumber(page, 'Power', 400);
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures.at(-1)!.lumens).toBe(900);
});

test('a row is lit in one drag and shrinks with distance; a copy stands beside; both are undone', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps-large');
  await openEditor(page, id);
  await choose(page, 'Quay lamp 2');
  await page.getByRole('button', { name: 'Row', exact: true }).click();
  await typeNumber(page, 'Copies', 3);
  await dragTo(page, await onPicture(page, 0.3, 0.6), await onPicture(page, 0.36, 0.56));
  await pictureReady(page);
  await saved(page);
  const { fixtures: before } = (await sceneOf(request, id)).scene;
  const original = before.find(({ name }) => name === 'Quay lamp 2')!;
  const row = before.filter(({ bulb, id: own }) => bulb !== undefined && own !== original.id);
  expect(row).toHaveLength(3);
  expect(row[2].foot.v).toBeCloseTo(0.56, 2);
  expect([original, ...row].every(({ size }, i, all) => i === 0 || size < all[i - 1].size)).toBe(true);
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures).toHaveLength(before.length + 1);
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures).toHaveLength(before.length - 3);
});

test('the scene builds up from dark, one circuit after another, by key, and changes nothing', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps-large');
  await openEditor(page, id);
  const paving = async () => brightness(await toneAt(page, 0.47, 0.72));
  const full = await paving();
  await page.getByRole('button', { name: 'build up', exact: true }).click();
  await page.keyboard.press('p');
  const says = page.getByRole('main', { name: 'Picture' }).getByRole('status');
  await expect(says).toHaveText('No lamps');
  await pictureReady(page);
  expect(await paving()).toBeLessThan(full - 15);
  await page.keyboard.press('n');
  await expect(says).toHaveText('+ Quay');
  await pictureReady(page);
  await expect.poll(paving).toBeCloseTo(full, 0);
  await page.keyboard.press('Escape');
  await expect(says).toHaveCount(0);
  expect((await sceneOf(request, id)).revision).toBe(0);
});

test('cues are kept, called, faded between, named and taken away', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps-large');
  await openEditor(page, id);
  const paving = async () => brightness(await toneAt(page, 0.47, 0.72));
  const cues = page.getByRole('region', { name: 'Cues' });
  await cues.getByRole('button', { name: 'keep this' }).click();
  const full = await paving();
  await page.getByLabel('Quay, stops').fill('-6');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  const dim = await paving();
  expect(dim).toBeLessThan(full - 15);
  await cues.getByRole('button', { name: 'keep this' }).click();
  await cues.getByRole('button', { name: 'Cue 1', exact: true }).click();
  await pictureReady(page);
  expect(await paving()).toBeCloseTo(full, 0);
  const fade = page.getByRole('slider', { name: 'Fade from Cue 2 to Cue 1' });
  await fade.focus();
  await page.keyboard.press('Home');
  await pictureReady(page);
  expect(await paving()).toBeCloseTo(dim, 0);
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await pictureReady(page);
  const between = await paving();
  expect(between).toBeGreaterThan(dim + 3);
  expect(between).toBeLessThan(full - 3);
  await cues.getByRole('button', { name: 'Cue 2', exact: true }).press('F2');
  await page.getByLabel('Cue name').fill('Late');
  await page.keyboard.press('Enter');
  await cues.getByRole('button', { name: 'Remove Cue 1' }).click();
  await saved(page);
  const { cues: kept } = (await sceneOf(request, id)).scene;
  expect(kept.map(({ name }) => name)).toEqual(['Late']);
  expect(kept[0].circuits[0].level).toBe(-6);
});
