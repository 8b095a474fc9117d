import { expect } from '@playwright/test';
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
} from './support/editor';
import { test } from './support/kept-page';

test('the ferry steps are laid out in at most twelve gestures, and light falls on wall, ground and person', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const behind = () => toneAt(page, 0.335, 0.95);
  const wall = () => toneAt(page, 0.04, 0.66);
  const before = { behind: brightness(await behind()), wall: brightness(await wall()) };

  let gestures = 0;
  const count = async (gesture: Promise<unknown>) => {
    gestures++;
    await gesture;
  };
  await count(openStep(page, /^Mattes/));
  await count(page.getByRole('button', { name: 'Edge brush', exact: true }).click());
  await pictureReady(page);
  const loop = [
    [0.345, 0.455],
    [0.385, 0.46],
    [0.41, 0.7],
    [0.395, 0.9],
    [0.345, 0.905],
    [0.315, 0.66],
  ] as const;
  await count(drawThrough(page, loop));
  await expect(page.getByRole('button', { name: 'Take the last stroke back' })).toBeEnabled();
  await count(openStep(page, /^Ground plan/));
  await count(page.getByRole('button', { name: 'Draw a wall' }).click());
  await count(dragOn(page, [0.003, 0.7345], [0.212, 0.7275]));
  await count(dragOn(page, [0.212, 0.7275], [0.249, 0.681]));
  await count(dragOn(page, [0.12, 0.548], [0.996, 0.549]));
  await count(page.getByRole('button', { name: 'Draw a wall' }).click());
  await count(page.getByRole('button', { name: 'Stand a matte up' }).click());
  await count(page.getByRole('menuitem', { name: 'Edge brush' }).click());
  expect(gestures).toBeLessThanOrEqual(12);

  await expect(page.getByRole('list', { name: 'Surfaces' }).getByRole('listitem')).toHaveCount(4);
  await pictureReady(page);
  await saved(page);
  const { plan } = (await sceneOf(request, id)).scene;
  expect(plan.walls.map(({ foot }) => foot.length)).toEqual([3, 2]);
  expect(plan.walls[0].foot[0].u).toBeLessThan(-0.1);
  expect(plan.standees[0].foot.u).toBeCloseTo(0.37, 1);
  expect(plan.standees[0].foot.v).toBeCloseTo(0.88, 1);
  // The lamps behind the traveller throw a shadow toward the eye; the kiosk's front faces them less than it did.
  expect(brightness(await behind())).toBeLessThan(0.85 * before.behind);
  expect(Math.abs(brightness(await wall()) - before.wall)).toBeGreaterThan(1);

  // Its foot is dragged, and the shadow goes along; undone, it is back.
  const shaded = brightness(await behind());
  await dragTo(page, await middleOf(page, 'Foot of Edge brush'), await onPicture(page, 0.37, 0.98));
  await pictureReady(page);
  expect(brightness(await behind())).toBeGreaterThan(shaded + 2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await pictureReady(page);
  expect(brightness(await behind())).toBeCloseTo(shaded, 1);
});

test('walls and decks are drawn, set, moved by keys and taken away; a matte in use says so', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await openStep(page, /^Ground plan/);
  await expect(page.getByRole('button', { name: 'Stand a matte up' })).toBeDisabled();
  await page.getByRole('button', { name: 'Draw a deck' }).click();
  await dragOn(page, [0.3, 0.8], [0.7, 0.95]);
  const surfaces = page.getByRole('list', { name: 'Surfaces' });
  await expect(surfaces).toContainText('Deck 1');
  await typeNumber(page, 'Height', 0.5);
  await page.getByRole('button', { name: 'Corner 3', exact: true }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.getByRole('button', { name: 'Draw a wall' }).press('Enter');
  await expect(surfaces).toContainText('Wall 1');
  await surfaces.getByRole('button', { name: /Wall 1/ }).click();
  await typeNumber(page, 'Height', 2.5);
  // A foot above the horizon is held on the ground.
  await dragTo(page, await middleOf(page, 'Corner 1'), await onPicture(page, 0.3, 0.1));
  await saved(page);
  const { plan } = (await sceneOf(request, id)).scene;
  expect(plan.decks[0]).toMatchObject({ height: 0.5 });
  expect(plan.decks[0].outline[2].u).toBeCloseTo(0.68, 2);
  expect(plan.walls[0].height).toBe(2.5);
  expect(plan.walls[0].foot[0].v).toBeGreaterThan(plan.horizon.left);
  await expect(page.getByText('The picture could not be made')).toHaveCount(0);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(surfaces.getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Start over' }).click();
  await expect(surfaces.getByRole('listitem')).toHaveCount(1);

  await openStep(page, /^Mattes/);
  await page.getByRole('button', { name: 'Ramp', exact: true }).click();
  await pictureReady(page);
  await openStep(page, /^Ground plan/);
  await page.getByRole('button', { name: 'Stand a matte up' }).click();
  await page.getByRole('menuitem', { name: 'Ramp' }).click();
  await expect(surfaces).toContainText('standee');
  await openStep(page, /^Mattes/);
  await expect(page.getByText('Used by the standee Ramp.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove it wherever it is used' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.standees).toEqual([]);
});

test('wet ground mirrors a lamp and takes the light off the paving; dried, it is as it was', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  // Where the far lamp's mirror image lies, and paving that mirrors none.
  const image = async () => brightness(await toneAt(page, 0.456, 0.815));
  const paving = async () => brightness(await toneAt(page, 0.1, 0.86));
  const dry = { image: await image(), paving: await paving() };
  await openStep(page, /^Ground plan/);
  const surfaces = page.getByRole('list', { name: 'Surfaces' });
  await surfaces.getByRole('button', { name: /^Ground/ }).click();
  const finish = page.getByRole('group', { name: 'Finish' });
  await expect(finish.getByRole('button', { name: 'Dry' })).toHaveAttribute('aria-pressed', 'true');
  await finish.getByRole('button', { name: 'Wet' }).click();
  await pictureReady(page);
  expect(await image()).toBeGreaterThan(dry.image + 8);
  expect(await paving()).toBeLessThan(dry.paving - 4);
  const wet = await image();
  // Far paving, seen at a grazing angle, mirrors the houses and the sky as far as that is wanted.
  const far = async () => brightness(await toneAt(page, 0.47, 0.64));
  const plain = await far();
  await typeNumber(page, 'Mirrors', 1);
  expect(await far()).toBeGreaterThan(plain + 1);
  await typeNumber(page, 'Mirrors', 0);
  expect(await far()).toBeCloseTo(plain, 1);
  await typeNumber(page, 'Sheen', 0.2);
  expect(await image()).toBeLessThan(wet - 2);
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.ground).toMatchObject({ sheen: 0.2, roughness: 0.2 });
  await finish.getByRole('button', { name: 'Dry' }).click();
  await pictureReady(page);
  expect(await image()).toBeCloseTo(dry.image, 1);
  expect(await paving()).toBeCloseTo(dry.paving, 1);
});

test('a windscreen is made of a matte: it mirrors the sky as it leans, and goes with its matte', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openEditor(page, id);
  const glass = () => toneAt(page, 0.625, 0.545, 0.008);
  const beside = () => toneAt(page, 0.7, 0.55, 0.008);
  const before = { glass: await glass(), beside: await beside() };
  await openStep(page, /^Ground plan/);
  await expect(page.getByRole('button', { name: 'Let a matte shine' })).toBeDisabled();
  await openStep(page, /^Mattes/);
  await page.getByRole('button', { name: 'Outline', exact: true }).first().click();
  for (const [u, v] of [
    [0.573, 0.507],
    [0.661, 0.507],
    [0.651, 0.574],
    [0.55, 0.57],
  ]) {
    const { x, y } = await onPicture(page, u, v);
    await page.mouse.click(x, y);
  }
  await page.keyboard.press('Enter');
  await openStep(page, /^Ground plan/);
  await page.getByRole('button', { name: 'Let a matte shine' }).click();
  await page.getByRole('menuitem', { name: 'Outline' }).click();
  const surfaces = page.getByRole('list', { name: 'Surfaces' });
  await expect(surfaces.getByRole('button', { name: /^Outline/ })).toHaveAttribute('aria-pressed', 'true');
  const form = page.getByRole('group', { name: 'Form' });
  await form.getByRole('button', { name: 'Windscreen' }).click();
  await typeNumber(page, 'Turn', -15);
  await typeNumber(page, 'Mirrors', 1);
  const leaning = await glass();
  expect(Math.abs(brightness(leaning) - brightness(before.glass))).toBeGreaterThan(1.5);
  expect(await beside()).toEqual(before.beside);
  // Upright it shows something else, without sheen nothing of its own.
  await typeNumber(page, 'Lean', 5);
  expect(await glass()).not.toEqual(leaning);
  await page.getByRole('button', { name: 'Undo' }).click();
  await pictureReady(page);
  expect(await glass()).toEqual(leaning);
  await saved(page);
  const { glosses, standees } = (await sceneOf(request, id)).scene.plan;
  expect(standees).toEqual([]);
  expect(glosses).toMatchObject([{ turn: -15, lean: 60, sheen: 1 }]);

  await openStep(page, /^Mattes/);
  await expect(page.getByText('the gloss Outline')).toBeVisible();
  await page.getByRole('button', { name: 'Remove it wherever it is used' }).click();
  await pictureReady(page);
  expect(await glass()).toEqual(before.glass);
});

test('the courtyard is laid out in at most twelve gestures, and a table throws its shadow', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  let gestures = 0;
  const count = async (gesture: Promise<unknown>) => {
    gestures++;
    await gesture;
  };
  await count(openStep(page, /^Ground plan/));
  await count(page.getByRole('button', { name: 'Draw a wall' }).click());
  await count(dragOn(page, [0.003, 0.8249], [0.1925, 0.7003]));
  await count(dragOn(page, [0.1925, 0.7003], [0.6738, 0.6837]));
  await count(dragOn(page, [0.6738, 0.6837], [0.997, 0.8203]));
  await count(typeNumber(page, 'Height', 6));
  await count(page.getByRole('button', { name: 'Draw a deck' }).click());
  await count(dragOn(page, [0.692, 0.715], [0.765, 0.742]));
  await count(typeNumber(page, 'Height', 0.75));
  await count(openStep(page, /^Fixtures/));
  const lantern = await onPicture(page, 0.7495, 0.4386);
  await count(page.mouse.click(lantern.x, lantern.y));
  expect(gestures).toBeLessThanOrEqual(12);
  await pictureReady(page);
  await page.mouse.move(5, 5);
  await saved(page);
  const { plan, fixtures } = (await sceneOf(request, id)).scene;
  expect(plan.walls.map(({ foot }) => foot.length)).toEqual([4]);
  expect(plan.decks[0].height).toBe(0.75);
  expect(fixtures).toHaveLength(1);
  const wall = await toneAt(page, 0.8, 0.5);
  expect(wall.r).toBeGreaterThan(wall.b + 15);

  // The lantern throws the table's shadow toward the eye.
  const under = async () => brightness(await toneAt(page, 0.712, 0.975, 0.006));
  const shaded = await under();
  await openStep(page, /^Ground plan/);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await pictureReady(page);
  expect(await under()).toBeGreaterThan(shaded + 5);
});
