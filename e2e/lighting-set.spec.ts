import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
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
import { test } from './support/kept-page';

test('lamps of another scene wait for their places, one click each, and its lighting comes along', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'brickyard-lane');
  const { scene: ferry } = await sceneOf(request, 'ferry-steps');
  const source = { ...ferry, desk: { ...ferry.desk, haze: -3 } };
  const copied = await request.post('/api/scenes/ferry-steps/copy', { data: { scene: source } });
  const { id: from } = (await copied.json()) as { id: string };
  // They wait circuit by circuit.
  const [first, second] = source.circuits.flatMap((circuit) =>
    source.fixtures.filter((fixture) => fixture.circuit === circuit.id),
  );
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
  await page.getByLabel('Scene whose lamps wait').selectOption(from);
  const list = page.getByRole('list', { name: 'Lamps that wait' });
  await expect(list.getByRole('button')).toHaveCount(source.fixtures.length);
  await expect(page.getByText(`${first.name} waits for its place.`)).toBeVisible();
  const ground = async () => brightness(await toneAt(page, 0.5, 0.75, 0.03));
  const dark = await ground();
  const { x, y } = await onPicture(page, 0.5, 0.4);
  await page.mouse.click(x, y);
  await expect(list.getByRole('button', { name: new RegExp(`^${first.name}`) })).toContainText('set');
  await expect(page.getByText(`${second.name} waits for its place.`)).toBeVisible();
  await pictureReady(page);
  await expect.poll(ground).toBeGreaterThan(dark + 3);
  await saved(page);
  const lit = (await sceneOf(request, id)).scene;
  const set = lit.fixtures.find(({ name }) => name === first.name)!;
  expect(set).toMatchObject({ kind: first.kind, lumens: first.lumens, gel: first.gel });
  expect(lit.circuits.find(({ id }) => id === set.circuit)?.name).toBe('Quay');

  await page.getByRole('button', { name: 'Take its night, sky, lens and desk' }).click();
  const haze = async () => (await sceneOf(request, id)).scene.desk.haze;
  await expect.poll(haze).toBe(-3);
  const taken = (await sceneOf(request, id)).scene;
  expect(taken.circuits.map(({ name }) => name)).toEqual(
    expect.arrayContaining(source.circuits.map(({ name }) => name)),
  );
  expect(taken.fixtures.length).toBe(lit.fixtures.length);
  await page.keyboard.press('Control+z');
  await expect.poll(haze).toBe(lit.desk.haze);

  // Escape lets the waiting lamp go: the next click lights a lamp of its own.
  await page.keyboard.press('Escape');
  await expect(page.getByText('Choose the lamp that is set next.')).toBeVisible();
});

test('lamps go from photo to photo as a file, and a file that holds none is refused', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  const { scene: ferry } = await sceneOf(request, id);
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save own lamps as a file' }).click();
  const saved = await coming;
  expect(saved.suggestedFilename()).toBe(`${ferry.title}.lighting`);
  const path = await saved.path();

  await openEditor(page, await copyOf(request, 'brickyard-lane'));
  await openStep(page, /^Fixtures/);
  await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
  const file = page.getByLabel('A lighting set of yours');
  const broken = {
    name: 'notes.lighting',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format": 1'),
  };
  await file.setInputFiles(broken);
  await expect(
    page.getByRole('alert').filter({ hasText: 'This file is no Sundew lighting set.' }),
  ).toBeVisible();
  await file.setInputFiles({ ...broken, buffer: await readFile(path) });
  const list = page.getByRole('list', { name: 'Lamps that wait' });
  await expect(list.getByRole('button')).toHaveCount(ferry.fixtures.length);
  await expect(page.getByLabel('Scene whose lamps wait').locator('option:checked')).toHaveText(
    `${ferry.title}, from a file`,
  );
  const ground = async () => brightness(await toneAt(page, 0.5, 0.75, 0.03));
  const dark = await ground();
  const { x, y } = await onPicture(page, 0.5, 0.4);
  await page.mouse.click(x, y);
  await expect(list.getByText('set', { exact: true })).toHaveCount(1);
  await pictureReady(page);
  await expect.poll(ground).toBeGreaterThan(dark + 3);
});
