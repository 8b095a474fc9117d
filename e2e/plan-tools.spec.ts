import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragOn,
  onPicture,
  openEditor,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
  typeNumber,
} from './support/editor';
import { foundEdge } from './support/found-edge';
import { test } from './support/kept-page';

const openPlan = (page: Page) => page.getByRole('button', { name: /^Ground plan/ }).click();
test('a first guess of horizon, walls and posts is taken part by part, not told again, and undone', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openPlan(page);
  const { plan: before } = (await sceneOf(request, id)).scene;
  // Where the plan has it already, a guess does not tell it.
  await typeNumber(page, 'Horizon left', before.horizon.left + 0.06);
  await page.getByRole('button', { name: 'Guess it' }).click();
  const guesses = page.getByRole('list', { name: 'Guesses' });
  await expect(guesses).toContainText('the guessed horizon');
  const count = await guesses.getByRole('listitem').count();
  expect(count).toBeGreaterThan(2);
  const lens = await guesses.getByText(/the guessed (lens|eye height)/).count();
  await page.getByRole('button', { name: 'Leave guessed post p1' }).click();
  await page.getByRole('button', { name: 'Take the guessed horizon' }).click();
  await expect(guesses.getByRole('listitem')).toHaveCount(count - 2);
  await page.getByRole('button', { name: 'Take all' }).click();
  await expect(guesses).toHaveCount(0);
  // What is there is not told again, neither a wall nor the horizon; what was left is.
  await page.getByRole('button', { name: 'Guess it' }).click();
  await page.getByRole('button', { name: 'Take guessed post p1' }).click();
  await expect(page.getByRole('list', { name: 'Surfaces' }).getByRole('listitem')).toHaveCount(count - lens);
  await expect(guesses.getByText(/guessed (wall|horizon)/)).toHaveCount(0);
  await saved(page);
  const { plan, mattes } = (await sceneOf(request, id)).scene;
  expect(plan.walls.length).toBeGreaterThan(0);
  expect(plan.standees.length).toBeGreaterThan(0);
  expect(plan.walls.length + plan.standees.length + plan.decks.length).toBe(count - 1 - lens);
  expect(plan.standees.map(({ matte }) => matte)).toEqual(mattes.map(({ id: matte }) => matte));
  // Within three hundredths of where it was measured to lie.
  expect(Math.abs(plan.horizon.left - before.horizon.left)).toBeLessThan(0.03);
  for (let i = 0; i <= count; i++) await page.keyboard.press('Control+z');
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan).toEqual(before);
});

test('somebody who is seen to stand there is stood up by his own edge, in the matte that he becomes', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openPlan(page);
  await page.getByRole('button', { name: 'Guess it' }).click();
  await page.getByRole('button', { name: 'Take guessed person t1' }).click();
  await expect(page.getByRole('button', { name: 'Foot of Person 1' })).toBeVisible();
  await saved(page);
  const { plan, mattes } = (await sceneOf(request, id)).scene;
  // The traveller: his shoes, his coat, and not the paving beside him.
  expect(plan.standees[0].foot.u).toBeCloseTo(0.355, 1);
  expect(plan.standees[0].foot.v).toBeCloseTo(0.88, 1);
  const [pass] = mattes[0].passes as { asset: string }[];
  const covered = await foundEdge(request, id, pass.asset);
  expect(covered(0.36, 0.68)).toBeGreaterThan(127);
  expect(covered(0.45, 0.85)).toBeLessThan(128);
  expect(covered(0.2, 0.9)).toBeLessThan(128);
});

test('two lines that run beside each other lay the horizon, and two that do not are refused', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openPlan(page);
  const { plan: before } = (await sceneOf(request, id)).scene;
  for (const side of ['left', 'right']) await typeNumber(page, `Horizon ${side}`, 0.4);
  await page.getByRole('button', { name: 'By two lines' }).click();
  await dragOn(page, [0.2, 0.5], [0.6, 0.5]);
  await dragOn(page, [0.2, 0.7], [0.6, 0.7]);
  await expect(page.getByText('These two lines do not meet near the picture')).toBeVisible();
  // The feet of the left and of the right wall both lead into the distance.
  await dragOn(page, [0.02, 0.8137], [0.18, 0.7085]);
  await dragOn(page, [0.98, 0.813], [0.7, 0.6948]);
  await saved(page);
  const { horizon } = (await sceneOf(request, id)).scene.plan;
  const middle = (horizon.left + horizon.right) / 2;
  expect(Math.abs(middle - (before.horizon.left + before.horizon.right) / 2)).toBeLessThan(0.03);
  await expect(page.getByRole('button', { name: 'By two lines' })).toHaveAttribute('aria-pressed', 'false');
});

test('a known height sets the eye, and distances follow', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openPlan(page);
  const over = await onPicture(page, 0.5, 0.8);
  await page.mouse.move(over.x, over.y);
  const metres = async () =>
    Number(/([\d.]+) m off/.exec((await page.getByTestId('distance').textContent())!)![1]);
  const before = await metres();
  await page.getByRole('button', { name: 'By a height' }).click();
  await dragOn(page, [0.552, 0.7465], [0.5534, 0.266]);
  const says = page.getByText(/By this plan it is [\d.]+ m high/);
  const measured = Number(/is ([\d.]+) m/.exec((await says.textContent())!)![1]);
  // The lamp hangs at 3.45 metres.
  expect(measured).toBeGreaterThan(3.2);
  expect(measured).toBeLessThan(3.7);
  await page.getByLabel('It is, value').fill(String(2 * measured));
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Set the eye to/ }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.eyeHeight).toBeCloseTo(2 * 1.66, 1);
  await page.mouse.move(over.x + 1, over.y);
  expect(await metres()).toBeCloseTo(2 * before, 0);
});

test('the plan turns as a pop-up until it is left', async ({ page, request }) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  await openPlan(page);
  await page.getByRole('button', { name: 'Pop-up' }).click();
  const view = page.getByTestId('pop-up');
  await expect(view).toHaveAttribute('data-frames', /\d+/);
  const picture = await view.screenshot();
  await expect.poll(async () => (await view.screenshot()).equals(picture)).toBe(false);
  await page.keyboard.press('Escape');
  await expect(view).toHaveCount(0);
});

test('a plan that cannot be says what is wrong', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openPlan(page);
  const faults = page.getByRole('status', { name: 'This can’t be laid out' });
  await expect(faults).toHaveText('');
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  await dragOn(page, [0.2, 0.8], [0.7, 0.8]);
  await dragOn(page, [0.4, 0.72], [0.45, 0.9]);
  await expect(faults).toContainText('Wall 1 and Wall 2 cross.');
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  for (const side of ['left', 'right']) await typeNumber(page, `Horizon ${side}`, -0.4);
  await expect(faults).toContainText('The horizon lies above the picture.');
});

test('the sun’s shadow is found and lifted out of lit ground', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openPlan(page);
  // Under the traveller's feet, and on lit paving beside it.
  const shadow = async () => brightness(await toneAt(page, 0.425, 0.86, 0.004));
  const beside = async () => brightness(await toneAt(page, 0.5, 0.86, 0.004));
  const before = { shadow: await shadow(), beside: await beside() };
  await page.getByRole('button', { name: 'Find it' }).click();
  await pictureReady(page);
  await saved(page);
  expect(await shadow()).toBeGreaterThan(before.shadow * 1.15);
  expect(Math.abs((await beside()) - before.beside)).toBeLessThan(4);
  await typeNumber(page, 'Lift', 0);
  expect(await shadow()).toBeCloseTo(before.shadow, 0);
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.sunShadow).toMatchObject({ lift: 0 });
});

test('a wall that the sun missed is found with its shadow, and comes out of it', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openEditor(page, id);
  await openPlan(page);
  // The near wall lies in the sun; the hedge opposite in the shade.
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  await dragOn(page, [0.03, 0.887], [0.2148, 0.7661]);
  await dragOn(page, [0.6327, 0.5977], [0.95, 0.888]);
  const hedge = async () => brightness(await toneAt(page, 0.9, 0.6, 0.02));
  const wall = async () => brightness(await toneAt(page, 0.1, 0.55, 0.02));
  const before = { hedge: await hedge(), wall: await wall() };
  await page.getByRole('button', { name: 'Find it' }).click();
  const shade = page.getByRole('textbox', { name: 'Day’s shade' });
  await expect(shade).toHaveValue(/^2\.\d stops$/);
  await pictureReady(page);
  expect(await hedge()).toBeGreaterThan(before.hedge * 1.3);
  expect(Math.abs((await wall()) - before.wall)).toBeLessThan(4);
  await typeNumber(page, 'Day’s shade', 0);
  await pictureReady(page);
  expect(Math.abs((await hedge()) - before.hedge)).toBeLessThan(2);
  await page.getByRole('button', { name: 'Find walls in it' }).click();
  await expect(shade).toHaveValue(/^2\.\d stops$/);
  await saved(page);
  const { walls } = (await sceneOf(request, id)).scene.plan;
  expect(walls.map(({ dayShade = 0 }) => dayShade > 2)).toEqual([false, true]);
  await page.getByRole('button', { name: 'Find walls in it' }).click();
  await expect(page.getByText('No other wall looks as if the sun missed it.')).toBeVisible();
});
