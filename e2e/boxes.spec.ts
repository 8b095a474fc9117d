import { expect } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragOn,
  dragTo,
  drawThrough,
  middleOf,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
  typeNumber,
} from './support/editor';
import { test } from './support/kept-page';

test('a card becomes a box that shades the ground behind its sides, and is turned, dragged and taken back', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openStep(page, /^Mattes/);
  await page.getByRole('button', { name: 'Edge brush', exact: true }).click();
  await pictureReady(page);
  await drawThrough(page, [
    [0.345, 0.455],
    [0.385, 0.46],
    [0.41, 0.7],
    [0.395, 0.9],
    [0.345, 0.905],
    [0.315, 0.66],
  ]);
  await expect(page.getByRole('button', { name: 'Take the last stroke back' })).toBeEnabled();
  await openStep(page, /^Ground plan/);
  await page.getByRole('button', { name: 'Stand a matte up' }).click();
  await page.getByRole('menuitem', { name: 'Edge brush' }).click();
  await pictureReady(page);
  const boxOf = async () => {
    await saved(page);
    return (await sceneOf(request, id)).scene.plan.standees[0].box;
  };
  const beside = () => toneAt(page, 0.3, 0.85);
  const asCard = brightness(await beside());

  await page.getByLabel('Form of the standee').selectOption('box');
  await pictureReady(page);
  const box = (await boxOf())!;
  expect(box.left.u).toBeLessThan(box.right.u);
  expect(box.height).toBeGreaterThan(1.5);
  expect(box.height).toBeLessThan(2.2);
  // Its lamps stand behind it: its depth holds back what passed the edge of a card.
  expect(brightness(await beside())).toBeLessThan(0.6 * asCard);

  await typeNumber(page, 'Turn', 60);
  await typeNumber(page, 'Right side', 2);
  const turned = (await boxOf())!;
  expect(turned.right.v).toBeLessThan(box.right.v);
  await dragTo(page, await middleOf(page, 'Left side of Edge brush'), await onPicture(page, 0.28, 0.84));
  await pictureReady(page);
  const dragged = (await boxOf())!;
  expect(dragged.left.u).toBeCloseTo(0.28, 2);
  expect(dragged.left.v).toBeCloseTo(0.84, 2);
  expect(dragged.right.u).not.toBeCloseTo(turned.right.u, 2);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await boxOf()).toEqual(turned);

  // Its foot takes all of it along.
  await dragTo(page, await middleOf(page, 'Foot of Edge brush'), await onPicture(page, 0.4, 0.93));
  const moved = (await boxOf())!;
  expect(moved.left.u).toBeGreaterThan(turned.left.u + 0.01);
  expect(moved.height).toBe(turned.height);

  await page.getByLabel('Form of the standee').selectOption('card');
  await expect(page.getByLabel('Turn, value')).toHaveCount(0);
  expect(await boxOf()).toBeUndefined();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Turn, value')).toBeVisible();
});

test('a deck rises by a pitch, or up to the wall behind it, and takes light as it lies then', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openStep(page, /^Ground plan/);
  await pictureReady(page);
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  await dragOn(page, [0.02, 0.74], [0.24, 0.73]);
  await page.getByRole('button', { name: 'Draw a deck' }).click();
  await dragOn(page, [0.04, 0.38], [0.2, 0.46]);
  await typeNumber(page, 'Height', 1.9);
  await pictureReady(page);
  const roof = async () => brightness(await toneAt(page, 0.12, 0.42));
  const deck = async () => {
    await saved(page);
    return (await sceneOf(request, id)).scene.plan.decks.at(-1)!;
  };
  const level = await roof();
  await typeNumber(page, 'Pitch', 60);
  await pictureReady(page);
  expect((await deck()).pitch).toBe(60);
  expect(Math.abs((await roof()) - level)).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Up to the wall behind' }).click();
  const { pitch } = await deck();
  expect(pitch).toBeGreaterThan(1);
  expect(pitch).not.toBe(60);
  await typeNumber(page, 'Pitch', 0);
  expect((await deck()).pitch).toBeUndefined();
  await pictureReady(page);
  expect(await roof()).toBeCloseTo(level, 1);
});
