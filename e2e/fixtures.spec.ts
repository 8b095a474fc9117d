import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragOn,
  openStep,
  dragTo,
  drawThrough,
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

const kind = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click();
test('a pane is drawn on a wall in its perspective, lights what lies before it, and stays after a reload', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openStep(page, /^Ground plan/);
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  await dragOn(page, [0.7735, 0.77], [0.998, 0.7516]);
  await typeNumber(page, 'Height', 9);
  await openStep(page, /^Fixtures/);
  const glass = () => toneAt(page, 0.95, 0.6);
  const pavement = () => toneAt(page, 0.93, 0.82);
  const before = { glass: brightness(await glass()), pavement: brightness(await pavement()) };
  await kind(page, 'pane');
  await dragOn(page, [0.905, 0.52], [0.99, 0.67]);
  await page.mouse.move(5, 5);
  expect(brightness(await glass())).toBeGreaterThan(before.glass + 60);
  expect(brightness(await pavement())).toBeGreaterThan(before.pavement + 15);
  expect(warmth(await pavement())).toBeGreaterThan(10);
  await saved(page);
  const [pane] = (await sceneOf(request, id)).scene.fixtures;
  expect(pane).toMatchObject({ kind: 'pane', name: 'Circuit 1 pane 1' });
  expect(pane.path).toHaveLength(4);
  // Its upper side falls away with the wall, and its foot stands at the wall's.
  expect(Math.abs(pane.path[1].v - pane.path[0].v)).toBeGreaterThan(0.001);
  expect(pane.foot.v).toBeCloseTo(0.757, 2);

  // With its lamp in the room behind, the light lands farther out and leaves the foot of the wall.
  const evenly = brightness(await pavement());
  await typeNumber(page, 'Lamp behind', 2);
  expect(Math.abs(brightness(await pavement()) - evenly)).toBeGreaterThan(4);
  await typeNumber(page, 'Lamp behind', 0);
  expect(brightness(await pavement())).toBeCloseTo(evenly, 0);

  const corner = await middleOf(page, 'Circuit 1 pane 1, corner 1');
  await dragTo(page, corner, await onPicture(page, 0.905, 0.57));
  await pictureReady(page);
  await typeNumber(page, 'Interior', 0);
  await saved(page);
  const lit = brightness(await glass());
  await page.reload();
  await pictureReady(page);
  expect(brightness(await glass())).toBeCloseTo(lit, 0);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures[0].path[0].v).toBeCloseTo(0.52, 2);
});

test('a tube is drawn along a stroke, straight with Shift, and recoloured off the picture', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await kind(page, 'tube');
  const sign = () => toneAt(page, 0.475, 0.3, 0.003);
  const before = brightness(await sign());
  await drawThrough(page, [
    [0.47, 0.2],
    [0.475, 0.3],
    [0.485, 0.36],
    [0.5, 0.37],
  ]);
  await pictureReady(page);
  await page.mouse.move(5, 5);
  expect(brightness(await sign())).toBeGreaterThan(before + 60);
  await page.keyboard.down('Shift');
  await drawThrough(page, [
    [0.6, 0.45],
    [0.65, 0.5],
    [0.7, 0.45],
  ]);
  await page.keyboard.up('Shift');
  await saved(page);
  const { fixtures } = (await sceneOf(request, id)).scene;
  expect(fixtures[0].path.length).toBeGreaterThan(2);
  expect(fixtures[1].path).toHaveLength(2);
  // The red of the sign becomes the gel: what it throws turns from amber to red.
  await page.getByRole('button', { name: 'Pick the gel off the picture' }).click();
  const red = await onPicture(page, 0.462, 0.36);
  await page.mouse.click(red.x, red.y);
  await saved(page);
  const [, picked] = (await sceneOf(request, id)).scene.fixtures;
  expect(picked.gel.from).toBe('picture');
  expect(picked.gel.color[0]).toBeGreaterThan(2 * picked.gel.color[1]);
  // A press without a way lights nothing.
  await kind(page, 'tube');
  const still = await onPicture(page, 0.2, 0.2);
  await page.mouse.click(still.x, still.y);
  expect((await sceneOf(request, id)).scene.fixtures).toHaveLength(2);
});

test('a lamp that is clicked stays what it was clicked as, though another kind is taken while it is looked for', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  const before = (await sceneOf(request, id)).scene.fixtures.length;
  await kind(page, 'globe');
  const { x, y } = await onPicture(page, 0.48, 0.6);
  await page.mouse.click(x, y);
  await kind(page, 'pane');
  const lamps = async () => (await sceneOf(request, id)).scene.fixtures.slice(before);
  await expect.poll(async () => (await lamps()).map((lamp) => lamp.kind)).toEqual(['globe']);
  await saved(page);
});

test('a light offstage shows only by what it does, also from beyond the edge of the picture', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await kind(page, 'offstage');
  const [place, ground] = [() => toneAt(page, 0.5, 0.2), () => toneAt(page, 0.3, 0.92)];
  const before = { place: brightness(await place()), ground: brightness(await ground()) };
  const at = await onPicture(page, 0.5, 0.2);
  await page.mouse.click(at.x, at.y);
  await pictureReady(page);
  await page.mouse.move(5, 5);
  expect(brightness(await ground())).toBeGreaterThan(before.ground + 10);
  expect(brightness(await place())).toBeLessThan(before.place + 25);
  await dragTo(page, await middleOf(page, 'Circuit 1 light offstage 1'), await onPicture(page, -0.04, 0.3));
  await pictureReady(page);
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures[0].at.u).toBeLessThan(0);
  await expect(page.getByText('The picture could not be made')).toHaveCount(0);
});

test('a grip is shaped over the tones beneath by drag, key and number, and put back', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await page.getByRole('button', { name: 'Quay lamp 2', exact: true }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Grip/ }).click();
  const field = page.getByTestId('grip');
  await field.scrollIntoViewIfNeeded();
  await expect(field.locator('path').first()).toHaveAttribute('d', /^M0 50L/);
  const paving = () => toneAt(page, 0.45, 0.75);
  const before = brightness(await paving());
  const bright = await middleOf(page, 'Bright parts, grip');
  const box = (await field.boundingBox())!;
  await dragTo(page, bright, { x: box.x + 0.35 * box.width, y: box.y + 0.97 * box.height });
  await pictureReady(page);
  await expect.poll(async () => brightness(await paving())).toBeLessThan(before - 10);
  await page.getByRole('slider', { name: 'Dark parts, grip' }).focus();
  await page.keyboard.press('ArrowDown');
  await typeNumber(page, 'from tone', 0.5);
  await saved(page);
  const { grip } = (await sceneOf(request, id)).scene.circuits[0];
  expect(grip.brightShare).toBeLessThan(0.15);
  expect(grip).toMatchObject({ darkShare: 0.98, bright: 0.5 });
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await pictureReady(page);
  expect(brightness(await paving())).toBeCloseTo(before, 0);
});

test('the moon comes up on the desk and is moved in the sky', async ({ page, request }) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  const court = () => toneAt(page, 0.45, 0.85);
  const before = await court();
  const fader = page.getByRole('slider', { name: 'Moon', exact: true });
  await expect(fader).toHaveAttribute('aria-valuetext', 'off');
  await page.getByLabel('Moon, stops').fill('2');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  const high = await court();
  expect(brightness(high)).toBeGreaterThan(brightness(before) + 5);
  await openStep(page, /^Sky/);
  await page.getByRole('button', { name: /^Moon/ }).click();
  await typeNumber(page, 'Height', 4);
  expect(brightness(await court())).toBeLessThan(brightness(high) - 3);
  await saved(page);
  const { moon, desk } = (await sceneOf(request, id)).scene;
  expect([moon.elevation, desk.moon]).toEqual([4, 2]);
});
