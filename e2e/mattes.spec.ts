import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import type { EdgePass, RampPass } from '@/core/matte/pass';
import {
  brightness,
  copyOf,
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

async function openMattes(page: Page, id: string): Promise<void> {
  await openEditor(page, id);
  await page.getByRole('button', { name: /^Mattes/ }).click();
}

const begin = async (page: Page, kind: string) => {
  await page.getByRole('button', { name: kind, exact: true }).first().click();
  await pictureReady(page);
};

const look = async (page: Page, view: 'Tint' | 'Grey' | 'Cut out' | 'Off') => {
  await page.getByText(view, { exact: true }).click();
  await pictureReady(page);
};

const click = async (page: Page, u: number, v: number) => {
  const { x, y } = await onPicture(page, u, v);
  await page.mouse.click(x, y);
  await pictureReady(page);
};

/** Coverage as the grey view shows it, 0 to 1. */
const coverage = async (page: Page, u: number, v: number) =>
  brightness(await toneAt(page, u, v, 0.004)) / 255;

test('the sky in one click: looked at in three ways, lit apart from the land, and taken away', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openMattes(page, id);
  await expect(page.getByText('No matte yet')).toBeVisible();
  await begin(page, 'Sky');
  await look(page, 'Grey');
  expect(await coverage(page, 0.5, 0.1)).toBeGreaterThan(0.97);
  expect(await coverage(page, 0.5, 0.9)).toBeLessThan(0.03);
  await look(page, 'Cut out');
  expect(brightness(await toneAt(page, 0.5, 0.9))).toBeLessThan(20);
  await look(page, 'Off');
  const [sky, land] = [await toneAt(page, 0.5, 0.1), await toneAt(page, 0.4, 0.92)];
  await typeNumber(page, 'Light inside', 2);
  expect(brightness(await toneAt(page, 0.5, 0.1))).toBeGreaterThan(brightness(sky) * 1.6);
  expect(Math.abs(brightness(await toneAt(page, 0.4, 0.92)) - brightness(land))).toBeLessThan(1.5);
  await typeNumber(page, 'Light outside', -3);
  expect(brightness(await toneAt(page, 0.4, 0.92))).toBeLessThan(brightness(land));
  await expect(page.getByText('used 2 times')).toBeVisible();
  await expect(page.getByText('the night’s light inside, the night’s light outside')).toBeVisible();
  await page.getByRole('button', { name: 'Remove it wherever it is used' }).click();
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.1)).toEqual(sky);
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.places).toHaveLength(2);
});

test('an outline is drawn, moved and joined with a ramp, all by hand and key', async ({ page, request }) => {
  const id = await copyOf(request, 'picture-house');
  await openMattes(page, id);
  await begin(page, 'Outline');
  await look(page, 'Grey');
  for (const [u, v] of [
    [0.2, 0.3],
    [0.6, 0.3],
    [0.6, 0.8],
    [0.2, 0.8],
  ])
    await click(page, u, v);
  expect(await coverage(page, 0.4, 0.5)).toBeGreaterThan(0.98);
  expect(await coverage(page, 0.7, 0.5)).toBe(0);
  await dragTo(page, await middleOf(page, 'Point 3'), await onPicture(page, 0.9, 0.8));
  await pictureReady(page);
  expect(await coverage(page, 0.7, 0.7)).toBeGreaterThan(0.98);
  await page.getByRole('button', { name: 'Point 3', exact: true }).focus();
  await page.keyboard.press('Delete');
  await pictureReady(page);
  expect(await coverage(page, 0.55, 0.7)).toBe(0);
  await typeNumber(page, 'Feather', 0.05);
  const edge = await coverage(page, 0.4, 0.3);
  expect(edge).toBeGreaterThan(0.1);
  expect(edge).toBeLessThan(0.9);
  await page.getByRole('button', { name: 'Another pass' }).click();
  await page.getByRole('menuitem', { name: 'Ramp' }).click();
  await page.getByLabel('How ramp joins').selectOption('intersect');
  await pictureReady(page);
  await dragTo(page, await middleOf(page, 'Nothing from here'), await onPicture(page, 0.5, 0.4));
  await pictureReady(page);
  expect(await coverage(page, 0.25, 0.6)).toBeLessThan(0.05);
  await saved(page);
  const [matte] = (await sceneOf(request, id)).scene.mattes;
  expect(matte.passes.map(({ kind, join }) => [kind, join])).toEqual([
    ['outline', 'add'],
    ['ramp', 'intersect'],
  ]);
});

test('points of an outline are made round and bent, and follow edges', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openMattes(page, id);
  await begin(page, 'Outline');
  await look(page, 'Grey');
  for (const [u, v] of [
    [0.2, 0.3],
    [0.5, 0.2],
    [0.8, 0.3],
    [0.5, 0.8],
  ])
    await click(page, u, v);
  expect(await coverage(page, 0.4, 0.22)).toBe(0);
  const top = page.getByRole('button', { name: 'Point 2', exact: true });
  await top.dblclick();
  await pictureReady(page);
  expect(await coverage(page, 0.4, 0.235)).toBeGreaterThan(0.9);
  await dragTo(page, await middleOf(page, 'Curve out of point 2'), await onPicture(page, 0.75, 0.05));
  await pictureReady(page);
  expect(await coverage(page, 0.62, 0.16)).toBeGreaterThan(0.9);
  await top.press('Enter');
  await pictureReady(page);
  expect(await coverage(page, 0.62, 0.16)).toBe(0);

  await begin(page, 'Outline');
  await page.getByLabel('New points follow edges (Shift: straight)').check();
  await click(page, 0.338, 0.58);
  await click(page, 0.328, 0.77);
  await expect(page.getByText('Finding the edge')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Point 3', exact: true })).toBeVisible();
  const followed = await page.getByRole('button', { name: /^Point \d+$/ }).count();
  await page.keyboard.down('Shift');
  await click(page, 0.45, 0.77);
  await page.keyboard.up('Shift');
  await expect(page.getByRole('button', { name: /^Point \d+$/ })).toHaveCount(followed + 1);
  await saved(page);
});

test('a person in one rough loop, then a stroke that leaves out, one back, and a lamp behind', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openMattes(page, id);
  await begin(page, 'Edge brush');
  await look(page, 'Grey');
  const passOf = async () => (await sceneOf(request, id)).scene.mattes[0].passes[0] as EdgePass;
  await drawThrough(page, [
    [0.345, 0.455],
    [0.385, 0.46],
    [0.41, 0.7],
    [0.395, 0.9],
    [0.345, 0.905],
    [0.315, 0.66],
  ]);
  await expect(page.getByRole('button', { name: 'Take the last stroke back' })).toBeEnabled();
  await pictureReady(page);
  expect(await coverage(page, 0.36, 0.65)).toBeGreaterThan(0.95);
  expect(await coverage(page, 0.36, 0.51)).toBeGreaterThan(0.9);
  expect(await coverage(page, 0.43, 0.65)).toBeLessThan(0.03);
  expect(await coverage(page, 0.29, 0.84)).toBeLessThan(0.03);
  await saved(page);
  const { asset } = await passOf();

  await page.getByText('Leave out', { exact: true }).click();
  await typeNumber(page, 'Brush size', 0.012);
  await drawThrough(page, [
    [0.35, 0.5],
    [0.37, 0.5],
  ]);
  await expect.poll(async () => (await passOf()).strokes.length).toBe(2);
  await pictureReady(page);
  expect(await coverage(page, 0.36, 0.5)).toBeLessThan(0.1);
  expect(await coverage(page, 0.36, 0.7)).toBeGreaterThan(0.95);
  await page.getByRole('button', { name: 'Take the last stroke back' }).click();
  await expect.poll(async () => (await passOf()).strokes.length).toBe(1);
  expect((await passOf()).asset).toBe(asset);
  await pictureReady(page);
  expect(await coverage(page, 0.36, 0.5)).toBeGreaterThan(0.9);

  // A lamp behind the person's back is hidden, and its light on the paving stays.
  await page.getByRole('button', { name: /^Fixtures/ }).click();
  const { x, y } = await onPicture(page, 0.36, 0.62);
  await page.mouse.click(x, y);
  await pictureReady(page);
  const glare = brightness(await toneAt(page, 0.36, 0.62, 0.004));
  const paving = brightness(await toneAt(page, 0.45, 0.85));
  await page.getByLabel('What stands before the lamp').selectOption({ label: 'Edge brush' });
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.36, 0.62, 0.004))).toBeLessThan(0.7 * glare);
  expect(Math.abs(brightness(await toneAt(page, 0.45, 0.85)) - paving)).toBeLessThan(1.5);
  await page.getByLabel('Where the spill lands').selectOption({ label: 'only inside Edge brush' });
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.45, 0.85))).toBeLessThan(paving - 2);
});

test('paint follows hand and pen, is erased, softened and taken as another matte', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openMattes(page, id);
  await begin(page, 'Paint');
  await look(page, 'Grey');
  await page.getByLabel('What pressure sets').selectOption('none');
  await typeNumber(page, 'Flow', 1);
  await drawThrough(page, [
    [0.2, 0.5],
    [0.8, 0.5],
  ]);
  await expect(page.getByRole('button', { name: 'Take the last stroke back' })).toBeEnabled();
  await pictureReady(page);
  expect(await coverage(page, 0.5, 0.5)).toBeGreaterThan(0.98);
  expect(await coverage(page, 0.5, 0.6)).toBe(0);
  await page.getByText('Erase', { exact: true }).click();
  await page.keyboard.press(']');
  await drawThrough(page, [
    [0.48, 0.4],
    [0.5, 0.6],
  ]);
  await expect.poll(() => coverage(page, 0.49, 0.5)).toBeLessThan(0.05);
  expect(await coverage(page, 0.3, 0.5)).toBeGreaterThan(0.98);

  // A pen pressed lightly takes less than one pressed firmly.
  await page.getByText('Paint', { exact: true }).last().click();
  await page.getByLabel('What pressure sets').selectOption('flow');
  await typeNumber(page, 'Flow', 0.1);
  for (const [v, pressure] of [
    [0.2, 0.15],
    [0.8, 1],
  ]) {
    const places = await Promise.all([0.3, 0.4, 0.5, 0.6].map((u) => onPicture(page, u, v)));
    await page.getByTestId('marks').evaluate(
      (svg, [places, pressure]) => {
        const send = (type: string, { x, y }: { x: number; y: number }) =>
          svg.dispatchEvent(
            new PointerEvent(type, {
              bubbles: true,
              pointerId: 1,
              pointerType: 'pen',
              pressure,
              clientX: x,
              clientY: y,
            }),
          );
        svg.setPointerCapture = () => {};
        send('pointerdown', places[0]);
        places.slice(1).forEach((place) => send('pointermove', place));
        send('pointerup', places.at(-1)!);
      },
      [places, pressure] as const,
    );
    await expect.poll(() => coverage(page, 0.45, v)).toBeGreaterThan(0.02);
  }
  await pictureReady(page);
  expect(await coverage(page, 0.45, 0.8)).toBeGreaterThan(2 * (await coverage(page, 0.45, 0.2)));

  await begin(page, 'Ramp');
  await page.getByText('Round', { exact: true }).click();
  await page.getByRole('button', { name: 'Another pass' }).click();
  await page.getByRole('menuitem', { name: 'Paint', exact: true }).last().click();
  await page.getByLabel('How paint joins').selectOption('intersect');
  await pictureReady(page);
  expect(await coverage(page, 0.3, 0.5)).toBeLessThan(0.3);
  await saved(page);
  const { mattes } = (await sceneOf(request, id)).scene;
  expect(mattes[1].passes[1]).toMatchObject({ kind: 'matte', matte: mattes[0].id, join: 'intersect' });
  // What another is made of is not offered that other in turn.
  await page
    .getByRole('list', { name: 'Mattes' })
    .getByRole('button', { name: /^Paint/ })
    .click();
  await expect(page.getByText('Used by the matte Ramp.')).toBeVisible();
  await page.getByRole('button', { name: 'Another pass' }).click();
  await expect(page.getByRole('menuitem', { name: 'Ramp' })).toHaveCount(1);
});

test('a round ramp tilts and broadens by its handles, and an edge grows and shrinks', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'picture-house');
  await openMattes(page, id);
  await begin(page, 'Ramp');
  await look(page, 'Grey');
  await page.getByText('Round', { exact: true }).click();
  await typeNumber(page, 'Fall-off', 0.05);
  await dragTo(page, await middleOf(page, 'Full from here'), await onPicture(page, 0.5, 0.5));
  await dragTo(page, await middleOf(page, 'Nothing from here'), await onPicture(page, 0.7, 0.2));
  await typeNumber(page, 'Breadth', 0.3);
  expect(await coverage(page, 0.62, 0.32)).toBeGreaterThan(0.95);
  expect(await coverage(page, 0.4, 0.3)).toBe(0);
  const { x, y } = await middleOf(page, 'How broad');
  await dragTo(page, { x, y }, { x: x + 60, y: y + 60 });
  await pictureReady(page);
  const { passes } = (await sceneOf(request, id)).scene.mattes[0];
  await expect
    .poll(async () => ((await sceneOf(request, id)).scene.mattes[0].passes[0] as RampPass).breadth)
    .toBeGreaterThan(0.4);
  expect(passes).toHaveLength(1);

  await begin(page, 'Outline');
  for (const [u, v] of [
    [0.3, 0.3],
    [0.6, 0.3],
    [0.6, 0.7],
    [0.3, 0.7],
  ])
    await click(page, u, v);
  await typeNumber(page, 'Grow', 0.02);
  expect(await coverage(page, 0.612, 0.5)).toBeGreaterThan(0.95);
  await typeNumber(page, 'Grow', -0.02);
  expect(await coverage(page, 0.588, 0.5)).toBeLessThan(0.05);
  expect(await coverage(page, 0.5, 0.5)).toBeGreaterThan(0.98);
});

test('six mattes of every kind reload and go out as they were', async ({ page, request }) => {
  const id = await copyOf(request, 'brickyard-lane');
  await openMattes(page, id);
  for (const kind of ['Sky', 'Like place', 'Tones', 'Colour', 'Ramp', 'Outline']) {
    await begin(page, kind);
    if (kind === 'Like place') await click(page, 0.15, 0.6);
    if (kind === 'Colour') await click(page, 0.12, 0.55);
    if (kind === 'Outline')
      for (const [u, v] of [
        [0.5, 0.4],
        [0.7, 0.4],
        [0.6, 0.7],
      ])
        await click(page, u, v);
    await typeNumber(page, 'Light inside', kind === 'Sky' ? 1.5 : 0.6);
  }
  await page.getByRole('button', { name: /^Output/ }).click();
  await pictureReady(page);
  const before = await Promise.all([0.2, 0.5, 0.8].map((u) => toneAt(page, u, 0.5)));
  await saved(page);
  await openEditor(page, id);
  expect(await Promise.all([0.2, 0.5, 0.8].map((u) => toneAt(page, u, 0.5)))).toEqual(before);
  expect((await sceneOf(request, id)).scene.mattes).toHaveLength(6);
  await page.getByRole('button', { name: /^Output/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Send out/ }).click();
  const path = await (await download).path();
  const { width, height } = await sharp(path).metadata();
  for (const [k, u] of [0.2, 0.5, 0.8].entries()) {
    const reach = Math.round(0.012 * width);
    const [left, top] = [Math.round(u * width) - reach, Math.round(0.5 * height) - reach];
    const part = sharp(path).extract({ left, top, width: 2 * reach, height: 2 * reach });
    const { channels } = await sharp(await part.png().toBuffer()).stats();
    (['r', 'g', 'b'] as const).forEach((c, i) =>
      expect(Math.abs(channels[i].mean - before[k][c])).toBeLessThan(4),
    );
  }
});
