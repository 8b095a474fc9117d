import { expect, type Page } from '@playwright/test';
import { SAID, type Said } from '@/core/survey/said';
import { PLACE_TINTS } from '@/ui/steps/plan/place-tints';
import { beginDrawn } from './support/drawn-photo';
import {
  brightness,
  copyOf,
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
} from './support/editor';
import { test } from './support/kept-page';

const sayWhat = async (page: Page) => {
  await openStep(page, /Ground plan/);
  await page.getByRole('button', { name: 'Say what is what' }).click();
};
const brush = (page: Page, title: string) =>
  page.getByRole('radiogroup', { name: 'What the brush says' }).getByText(title).click();

/** What the tint over the picture says that a place is. */
async function tintAt(page: Page, u: number, v: number): Promise<Said | undefined> {
  const pixel = await page.getByTestId('place-tint').evaluate(
    async (image: SVGImageElement, at) => {
      const bitmap = new Image();
      bitmap.src = image.href.baseVal;
      await bitmap.decode();
      const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
      const context = canvas.getContext('2d')!;
      context.drawImage(bitmap, 0, 0);
      return [
        ...context.getImageData(Math.floor(at.u * bitmap.width), Math.floor(at.v * bitmap.height), 1, 1).data,
      ];
    },
    { u, v },
  );
  return SAID.find((as) => PLACE_TINTS[as].tint.every((value, i) => value === pixel[i]));
}

test('a stroke says what a place is: the tint shows it, the light follows it, undo takes it back', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const lit = await toneAt(page, 0.5, 0.72);
  await sayWhat(page);
  await expect(page.getByTestId('day-pane')).toBeVisible();
  await expect.poll(() => tintAt(page, 0.5, 0.72)).toBe('ground');
  await brush(page, 'Far');
  await drawThrough(page, [
    [0.44, 0.72],
    [0.56, 0.72],
  ]);
  await expect.poll(() => tintAt(page, 0.5, 0.72)).toBe('far');
  await pictureReady(page);
  // No lamp reaches what is far.
  expect(brightness(await toneAt(page, 0.5, 0.72))).toBeLessThan(0.75 * brightness(lit));
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.strokes).toMatchObject([{ as: 'far', size: 0.02 }]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => tintAt(page, 0.5, 0.72)).toBe('ground');
  await pictureReady(page);
  expect(await toneAt(page, 0.5, 0.72)).toEqual(lit);
});

test('keys alone paint too, strokes are taken back one by one or all, and Escape puts the brush away', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await sayWhat(page);
  const key = page.getByRole('button', { name: /^Brush/ });
  await key.focus();
  for (const press of ['Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowDown', 'Enter'])
    await page.keyboard.press(press);
  await brush(page, 'Water');
  await key.focus();
  await page.keyboard.press(']');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Enter');
  await saved(page);
  const strokes = async () => (await sceneOf(request, id)).scene.plan.strokes;
  expect((await strokes()).map(({ as }) => as)).toEqual(['ground', 'water']);
  expect((await strokes()).map(({ size }) => size)).toEqual([0.02, expect.closeTo(0.023, 6)]);
  const [u, v] = (await strokes())[1].path;
  await expect.poll(() => tintAt(page, u, v)).toBe('water');
  await page.getByRole('button', { name: 'Take back the last stroke' }).click();
  await expect.poll(() => tintAt(page, u, v)).toBe('ground');
  await page.getByRole('button', { name: 'Remove all' }).click();
  await saved(page);
  expect(await strokes()).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('place-tint')).toHaveCount(0);
});

test('a wall’s top is dragged, and the wall goes on to the edge of the picture', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page);
  const offer = page.getByRole('region', { name: 'First guess' });
  await expect(offer.getByRole('img', { name: 'The guess as a pop-up, turning' })).toHaveAttribute(
    'data-frames',
    /\d/,
  );
  await offer.getByRole('button', { name: 'Use them' }).click();
  await openStep(page, /Ground plan/);
  const wall = async () => (await sceneOf(request, id)).scene.plan.walls[0];
  await saved(page);
  const before = await wall();
  await page.getByRole('list', { name: 'Surfaces' }).getByRole('button', { name: before.name }).click();
  const top = await middleOf(page, `Top of ${before.name}`);
  const { y } = await onPicture(page, 0, 0.06);
  await dragTo(page, top, { x: top.x, y: Math.max(y, top.y + 40) });
  await saved(page);
  expect((await wall()).height).toBeLessThan(before.height - 0.4);
  await page.getByLabel('Height, value', { exact: true }).fill('9');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'To the left' }).click();
  await page.getByRole('button', { name: 'To the right' }).click();
  await saved(page);
  const after = await wall();
  expect(after.height).toBe(9);
  const [was, is] = [before, after].map(({ foot }) => foot.map(({ u }) => u));
  expect(Math.min(...is)).toBeLessThan(Math.min(0.01, Math.min(...was) + 1e-6));
  expect(Math.max(...is)).toBeGreaterThan(Math.max(...was));
});
