import { expect } from '@playwright/test';
import sharp from 'sharp';
import {
  brightness,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

/** The other photo: a part of the first one's plate, darker, as fractions of its sides. */
const PART = { left: 0.08, top: 0.05, width: 0.86, height: 0.86 };

async function otherPhoto(plate: string): Promise<Buffer> {
  const { width, height } = await sharp(plate).metadata();
  const part = {
    ...{ left: Math.round(PART.left * width), top: Math.round(PART.top * height) },
    ...{ width: Math.round(PART.width * width), height: Math.round(PART.height * height) },
  };
  return sharp(plate).extract(part).linear(0.8, 4).jpeg({ quality: 92 }).toBuffer();
}

test('another photo of the same place takes everything of a scene, each where it shows it, in one step', async ({
  page,
  request,
}) => {
  const data = await otherPhoto('demo/plates/ferry-steps.jpg');
  const begun = await request.post('/api/scenes?name=steps-again.jpg', { data });
  const { id } = (await begun.json()) as { id: string };
  await openEditor(page, id);
  const { scene: ferry } = await sceneOf(request, 'ferry-steps');
  const moved = (at: { u: number; v: number }) => ({
    u: (at.u - PART.left) / PART.width,
    v: (at.v - PART.top) / PART.height,
  });
  const seen = (at: { u: number; v: number }) => at.u > 0.1 && at.u < 0.9 && at.v > 0.1 && at.v < 0.9;
  const lamp = ferry.fixtures.find(({ kind, at }) => kind === 'globe' && seen(moved(at)))!;
  const glass = moved(lamp.at);
  const shown = async () => brightness(await toneAt(page, glass.u, glass.v, 0.004));
  const dark = await shown();

  /** The other scene is there once the list shows it. */
  const bringFrom = async (other: string) => {
    const list = page.getByLabel('Scene whose lamps wait');
    await list.selectOption(other);
    await expect(list).toHaveValue(other);
    await page.getByRole('button', { name: 'Same place: bring everything' }).click();
  };
  await openStep(page, /^Fixtures/);
  await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
  // Of another place nothing comes along.
  await bringFrom('brickyard-lane');
  await expect(page.getByText(/^Too little of this photo is alike/)).toBeVisible();
  await bringFrom('ferry-steps');
  const count = async () => (await sceneOf(request, id)).scene.fixtures.length;
  await expect.poll(count).toBe(ferry.fixtures.length);
  await pictureReady(page);
  await expect.poll(shown).toBeGreaterThan(dark + 60);

  const { scene } = await sceneOf(request, id);
  const brought = scene.fixtures.find((fixture) => fixture.id === lamp.id)!;
  expect(Math.hypot(brought.at.u - glass.u, brought.at.v - glass.v)).toBeLessThan(0.003);
  expect(brought.size / lamp.size).toBeCloseTo(1 / PART.width, 1);
  expect(scene.plan.walls.length).toBe(ferry.plan.walls.length);
  expect(scene.mattes.map(({ name }) => name)).toEqual(ferry.mattes.map(({ name }) => name));
  expect(scene.title).not.toBe(ferry.title);

  // One undo brings back what was.
  const { x, y } = await onPicture(page, 0.02, 0.02);
  await page.mouse.move(x, y);
  await page.keyboard.press('Control+z');
  await expect.poll(count).toBe(0);
  await saved(page);
  await pictureReady(page);
  await expect.poll(shown).toBeLessThan(dark + 20);
});
