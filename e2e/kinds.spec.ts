import { expect, type Page } from '@playwright/test';
import type { FixtureOf } from '@/core/fixture/fixture-schema';
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
  warmth,
} from './support/editor';
import { test } from './support/kept-page';

const kind = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click();

test('headlamps are lit from lamp to lamp, throw a pool, and follow where they are aimed', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openEditor(page, id);
  const [left, right] = [() => toneAt(page, 0.36, 0.86, 0.02), () => toneAt(page, 0.62, 0.86, 0.02)];
  const dark = [brightness(await left()), brightness(await right())];
  await kind(page, 'headlamps');
  await dragOn(page, [0.5194, 0.6312], [0.6083, 0.6396]);
  expect(brightness(await toneAt(page, 0.5194, 0.6312, 0.003))).toBeGreaterThan(200);
  await dragTo(
    page,
    await middleOf(page, 'Circuit 1 headlamps 1, foot'),
    await onPicture(page, 0.565, 0.694),
  );
  await pictureReady(page);
  const aim = 'Circuit 1 headlamps 1, where it shines';
  await dragTo(page, await middleOf(page, aim), await onPicture(page, 0.3, 0.95));
  await pictureReady(page);
  const toLeft = [brightness(await left()), brightness(await right())];
  expect(toLeft[0]).toBeGreaterThan(dark[0] + 40);
  await dragTo(page, await middleOf(page, aim), await onPicture(page, 0.72, 0.95));
  await pictureReady(page);
  const toRight = [brightness(await left()), brightness(await right())];
  expect(toRight[0]).toBeLessThan(toLeft[0] - 15);
  expect(toRight[1]).toBeGreaterThan(toLeft[1]);
  await saved(page);
  const [pair] = (await sceneOf(request, id)).scene.fixtures;
  expect(pair).toMatchObject({ kind: 'headlamps', lumens: 600 });
  expect(pair.path).toHaveLength(2);
  // Seen from behind a lamp shows nothing: turned away, only what it lights is seen.
  const glass = async () => brightness(await toneAt(page, 0.5194, 0.6312, 0.003));
  const burning = await glass();
  await dragTo(page, await middleOf(page, aim), await onPicture(page, 0.565, 0.64));
  await pictureReady(page);
  expect(await glass()).toBeLessThan(burning - 60);
});

test('a strand hangs between its ends, sags, and is counted', async ({ page, request }) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await kind(page, 'strand');
  const middle = () => toneAt(page, 0.5, 0.3, 0.004);
  const before = brightness(await middle());
  await dragOn(page, [0.25, 0.3], [0.75, 0.3]);
  await typeNumber(page, 'Bulbs', 5);
  await typeNumber(page, 'Sag', 0);
  expect(brightness(await middle())).toBeGreaterThan(before + 80);
  await typeNumber(page, 'Sag', 0.3);
  expect(brightness(await middle())).toBeLessThan(before + 30);
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures[0]).toMatchObject({ count: 5, sag: 0.3, lumens: 25 });
});

test('lettering is written as a tube on its foot, and a piece of it goes dead', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await kind(page, 'tube');
  await page.getByLabel('Lettering').fill('LI Ж');
  await expect(page.getByText('No tube is bent for Ж yet')).toBeVisible();
  await page.getByLabel('Lettering').fill('LI');
  await dragOn(page, [0.6, 0.66], [0.75, 0.66]);
  await saved(page);
  const [word] = (await sceneOf(request, id)).scene.fixtures;
  if (word.kind !== 'tube') throw new Error(`A tube was written, not a ${word.kind}.`);
  // An L is one stroke of three points or two of two; an I is one upright.
  expect(word.breaks.length).toBeGreaterThan(0);
  const upright = word.path.slice(word.breaks.at(-1));
  const { u, v } = { u: upright[0].u, v: (upright[0].v + upright.at(-1)!.v) / 2 };
  await page.mouse.move(5, 5);
  const glass = async () => brightness(await toneAt(page, u, v, 0.002));
  const burning = await glass();
  await page.getByRole('button', { name: `Piece ${word.breaks.length + 1} burns` }).click();
  await pictureReady(page);
  expect(await glass()).toBeLessThan(burning - 40);
  await page.keyboard.press('Control+z');
  await pictureReady(page);
  await expect.poll(glass).toBeCloseTo(burning, 0);
});

test('a tube runs around a frame in one drag', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await kind(page, 'tube');
  await page.getByRole('button', { name: 'Around a frame' }).click();
  const dark = brightness(await toneAt(page, 0.5, 0.4, 0.002));
  await dragOn(page, [0.4, 0.4], [0.6, 0.6]);
  await page.mouse.move(5, 5);
  for (const [u, v] of [
    [0.5, 0.4],
    [0.5, 0.6],
    [0.4, 0.5],
    [0.6, 0.5],
  ])
    expect(brightness(await toneAt(page, u, v, 0.002))).toBeGreaterThan(dark + 60);
  await saved(page);
  const [{ path }] = (await sceneOf(request, id)).scene.fixtures;
  expect(path).toHaveLength(5);
  expect(path[4]).toEqual(path[0]);
});

test('a pane over a front is parted into a grid; its panes differ, and some stay dark', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await kind(page, 'pane');
  await dragOn(page, [0.3, 0.2], [0.6, 0.5]);
  await page.getByRole('button', { name: /^Grid/ }).click();
  await typeNumber(page, 'Columns', 3);
  await typeNumber(page, 'Rows', 2);
  await page.getByRole('button', { name: 'Part it into 6' }).click();
  await pictureReady(page);
  await saved(page);
  const parts = (await sceneOf(request, id)).scene.fixtures;
  expect(parts).toHaveLength(6);
  expect(new Set(parts.map(({ bulb }) => bulb)).size).toBe(1);
  const tones = () =>
    Promise.all([0.35, 0.45, 0.55].map(async (u) => brightness(await toneAt(page, u, 0.28, 0.02))));
  await page.mouse.move(5, 5);
  await typeNumber(page, 'Power', 2);
  const alike = await tones();
  const spread = (values: number[]) => Math.max(...values) - Math.min(...values);
  await typeNumber(page, 'Differ', 1);
  // By one seed neighbours may happen to be alike; not by four.
  const spreads: number[] = [];
  for (const seed of [1, 2, 3, 4]) {
    await typeNumber(page, 'Seed', seed);
    spreads.push(spread(await tones()));
  }
  expect(Math.max(...spreads)).toBeGreaterThan(spread(alike) + 10);
  await typeNumber(page, 'Dark ones', 1);
  for (const tone of await tones()) expect(tone).toBeLessThan(Math.min(...alike) - 30);
  await page.getByRole('button', { name: 'Poppy' }).click();
  await typeNumber(page, 'Dark ones', 0);
  expect(warmth(await toneAt(page, 0.45, 0.28, 0.02))).toBeGreaterThan(60);
});

test('a matte glows, its edge becomes a tube, and bulbs are scattered in it', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  const sky = async () => brightness(await toneAt(page, 0.3, 0.15, 0.05));
  // Before a matte is shown over it.
  const before = await sky();
  const lights = async () => (await sceneOf(request, id)).scene.fixtures;
  // What a matte covers is asked of a worker, so the light comes a while after the click.
  const lit = async (button: string, count: number) => {
    await page.getByRole('button', { name: button }).click();
    await expect.poll(async () => (await lights()).length).toBe(count);
    await pictureReady(page);
  };
  await openStep(page, /^Mattes/);
  await page.getByRole('button', { name: 'Sky', exact: true }).click();
  await pictureReady(page);
  await openStep(page, /^Fixtures/);
  await kind(page, 'strand');
  await lit('Scatter bulbs in it', 1);
  expect(await sky()).toBeGreaterThan(before + 3);
  await kind(page, 'tube');
  await lit('Tube along its edge', 2);
  await kind(page, 'pane');
  await lit('Make it glow', 3);
  expect(await sky()).toBeGreaterThan(before + 10);
  const [strand, tube, pane] = await lights();
  expect(strand.path.length).toBeGreaterThan(30);
  expect(strand).toMatchObject({ kind: 'strand', count: 0 });
  expect(tube.path.length).toBeGreaterThan(10);
  expect(pane.path).toEqual(tube.path);
});

test('a fire burns in another shape by its seed, and a lantern keeps its light down', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await kind(page, 'fire');
  const at = await onPicture(page, 0.6, 0.8);
  await page.mouse.click(at.x, at.y);
  await page.mouse.move(5, 5);
  await pictureReady(page);
  const flames = async () => [
    await toneAt(page, 0.6, 0.78, 0.004),
    await toneAt(page, 0.61, 0.76, 0.004),
    await toneAt(page, 0.59, 0.76, 0.004),
  ];
  const first = await flames();
  expect(brightness(first[0])).toBeGreaterThan(120);
  await typeNumber(page, 'Seed', 42);
  expect(await flames()).not.toEqual(first);
  await kind(page, 'lantern');
  const lamp = await onPicture(page, 0.3, 0.3);
  await page.mouse.click(lamp.x, lamp.y);
  await pictureReady(page);
  await saved(page);
  const fixtures = (await sceneOf(request, id)).scene.fixtures;
  expect(fixtures).toMatchObject([{ kind: 'fire' }, { kind: 'lantern', bars: 0.8 }]);
});

test('a rough loop around a marking on the road makes its bright parts glow, where its key says', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openEditor(page, id);
  await kind(page, 'glow key');
  const [stripe, gap] = [() => toneAt(page, 0.1, 0.905, 0.004), () => toneAt(page, 0.06, 0.86, 0.004)];
  const dark = [brightness(await stripe()), brightness(await gap())];
  await drawThrough(page, [
    [0.03, 0.84],
    [0.3, 0.84],
    [0.3, 0.94],
    [0.03, 0.94],
    [0.03, 0.85],
  ]);
  await pictureReady(page);
  const lit = [brightness(await stripe()), brightness(await gap())];
  expect(Math.max(lit[0] - dark[0], lit[1] - dark[1])).toBeGreaterThan(60);
  await saved(page);
  const [glow] = (await sceneOf(request, id)).scene.fixtures as FixtureOf<'glow'>[];
  expect(glow).toMatchObject({ kind: 'glow', gel: { from: 'picture' } });
  expect(glow.low).toBeGreaterThan(0.2);
  // It lies on the road: its foot is inside of it.
  expect(glow.foot.v).toBeGreaterThan(0.84);
  expect(glow.foot.v).toBeLessThan(0.94);
  await typeNumber(page, 'From tone', 1);
  await typeNumber(page, 'Shoulder', 0);
  expect(Math.abs(brightness(await stripe()) - dark[0])).toBeLessThan(8);

  // The key says over its tones that it takes nothing; what it missed is drawn, glows whole, and is taken back.
  await expect(page.getByRole('img', { name: /^Tones inside the loop: the key takes 0 %/ })).toBeVisible();
  await page.getByRole('button', { name: 'Add what it missed' }).click();
  await drawThrough(page, [
    [0.09, 0.885],
    [0.11, 0.885],
    [0.11, 0.925],
    [0.09, 0.925],
    [0.09, 0.887],
  ]);
  await pictureReady(page);
  expect(brightness(await stripe())).toBeGreaterThan(dark[0] + 60);
  await page.getByRole('button', { name: 'Take the last loop back' }).click();
  await pictureReady(page);
  expect(Math.abs(brightness(await stripe()) - dark[0])).toBeLessThan(8);
});

test('a bulb’s wire burns white, cool at its ends, and another stroke in its glass adds a wire', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await kind(page, 'filament');
  await page.keyboard.down('Alt');
  await drawThrough(page, [
    [0.46, 0.4],
    [0.5, 0.34],
    [0.54, 0.4],
  ]);
  await pictureReady(page);
  const at = async (u: number, v: number) => brightness(await toneAt(page, u, v, 0.001));
  const [turn, end, other] = [await at(0.5, 0.342), await at(0.4605, 0.3992), await at(0.49, 0.39)];
  expect(turn).toBeGreaterThan(200);
  expect(end).toBeLessThan(turn - 60);
  await drawThrough(page, [
    [0.475, 0.39],
    [0.5, 0.39],
    [0.525, 0.39],
  ]);
  await page.keyboard.up('Alt');
  await pictureReady(page);
  expect(await at(0.49, 0.39)).toBeGreaterThan(other + 60);
  await saved(page);
  const { fixtures } = (await sceneOf(request, id)).scene;
  expect(fixtures).toHaveLength(1);
  expect((fixtures[0] as FixtureOf<'filament'>).breaks).toHaveLength(1);
});
