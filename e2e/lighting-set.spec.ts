import { expect, test } from '@playwright/test';
import {
  brightness,
  copyOf,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
} from './support/editor';

test('lamps of another scene wait for their places, one click each, and its lighting comes along', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'brickyard-lane');
  const source = (await sceneOf(request, 'ferry-steps')).scene;
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
  await page.getByLabel('Scene whose lamps wait').selectOption({ label: 'Ferry steps' });
  const list = page.getByRole('list', { name: 'Lamps that wait' });
  await expect(list.getByRole('button')).toHaveCount(source.fixtures.length);
  await expect(page.getByText('Quay lamp 1 waits for its place.')).toBeVisible();
  const ground = async () => brightness(await toneAt(page, 0.5, 0.75, 0.03));
  const dark = await ground();
  const { x, y } = await onPicture(page, 0.5, 0.4);
  await page.mouse.click(x, y);
  await expect(list.getByRole('button', { name: /^Quay lamp 1/ })).toContainText('set');
  await expect(page.getByText('Quay lamp 2 waits for its place.')).toBeVisible();
  await pictureReady(page);
  await expect.poll(ground).toBeGreaterThan(dark + 3);
  await saved(page);
  const lit = (await sceneOf(request, id)).scene;
  const own = source.fixtures.find(({ name }) => name === 'Quay lamp 1')!;
  const set = lit.fixtures.find(({ name }) => name === 'Quay lamp 1')!;
  expect(set).toMatchObject({ kind: own.kind, lumens: own.lumens, gel: own.gel });
  expect(lit.circuits.find(({ id }) => id === set.circuit)?.name).toBe('Quay');

  await page.getByRole('button', { name: 'Take its night, sky, lens and desk' }).click();
  await expect(page.getByRole('region', { name: 'Cues' }).getByText(source.cues[0].name)).toBeVisible();
  await saved(page);
  const taken = (await sceneOf(request, id)).scene;
  expect(taken.night.exposure).toBe(source.night.exposure);
  expect(taken.circuits.map(({ name }) => name)).toEqual(expect.arrayContaining(['Quay', 'Houses']));
  expect(taken.fixtures.length).toBe(lit.fixtures.length);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('region', { name: 'Cues' }).getByText(source.cues[0].name)).toHaveCount(0);

  // Escape lets the waiting lamp go: the next click lights a lamp of its own.
  await page.keyboard.press('Escape');
  await expect(page.getByText('Choose the lamp that is set next.')).toBeVisible();
});
