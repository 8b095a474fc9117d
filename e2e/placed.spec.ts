import sharp from 'sharp';
import { expect, type Page } from '@playwright/test';
import { chooseFile } from './support/choose-file';
import {
  brightness,
  copyOf,
  dragTo,
  middleOf,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  setRow,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

/** A dark post with a pale glass at its top, clear all around. */
const post = () =>
  sharp({ create: { width: 100, height: 400, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
    .composite([
      {
        input: { create: { width: 20, height: 320, channels: 3, background: '#3a3a3a' } },
        left: 40,
        top: 80,
      },
      { input: { create: { width: 60, height: 80, channels: 3, background: '#d8d8d0' } }, left: 20, top: 0 },
    ])
    .png()
    .toBuffer();

/** A red disc on grey: something to be cut out. */
const disc = () =>
  sharp(
    Buffer.from(
      '<svg width="300" height="300"><rect width="300" height="300" fill="#999"/><circle cx="150" cy="150" r="70" fill="#c02010"/></svg>',
    ),
  )
    .png()
    .toBuffer();

const place = (page: Page, name: string, buffer: Buffer) =>
  chooseFile(page, 'Choose a picture', { name, mimeType: 'image/png', buffer });

test('a picture is seen in its place while it is still on its way in', async ({ page, request }) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openStep(page, /^Placed pictures/);
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/placed', async (route) => {
    await held;
    await route.continue();
  });
  await place(page, 'post.png', await post());
  const coming = page.getByRole('img', { name: 'post.png, on its way in' });
  await expect(coming).toBeVisible();
  // The pointer is elsewhere: marks would fade.
  await page.mouse.move(20, 20);
  await expect(page.locator('[data-shown]', { has: coming })).toHaveCSS('opacity', '1');
  const early = (await coming.boundingBox())!;
  // What says that it is being taken in covers the button alone, and not the picture.
  const veil = (await page.locator('[class*=LoadingOverlay-root]').first().boundingBox())!;
  expect(veil.height).toBeLessThan(80);
  expect(veil.x + veil.width).toBeLessThan(early.x);
  letGo();
  await expect(coming).toHaveCount(0);
  const foot = (await page.getByRole('button', { name: 'post, foot' }).boundingBox())!;
  const top = (await page.getByRole('button', { name: 'post, height' }).boundingBox())!;
  // Only the post, not what is clear around it, and as tall as it is then.
  const middleOf = ({ y, height }: typeof foot) => y + height / 2;
  expect(Math.abs(early.y - middleOf(top))).toBeLessThan(3);
  expect(Math.abs(early.y + early.height - middleOf(foot))).toBeLessThan(3);
  expect(early.width / early.height).toBeCloseTo(60 / 400, 1);
  await page.unroute('**/placed');
});

test('a post from a file stands in the court; its lamp is lit in one click, goes along, and is copied with it', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openStep(page, /^Placed pictures/);
  const bare = await toneAt(page, 0.5, 0.75);
  await place(page, 'post.png', await post());
  const foot = page.getByRole('button', { name: 'post, foot' });
  await expect(foot).toBeVisible();
  await setRow(page, 'Height', '3');
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.5, 0.75, 0.004))).toBeLessThan(0.8 * brightness(bare));

  // Its lamp: one click on the glass.
  const { scene } = await saved(page).then(() => sceneOf(request, id));
  expect(scene.placed).toHaveLength(1);
  const top = await middleOf(page, 'post, height');
  await openStep(page, /^Fixtures/);
  await page.mouse.click(top.x, top.y + 25);
  await pictureReady(page);
  await saved(page);
  const lit = (await sceneOf(request, id)).scene;
  expect(lit.fixtures).toHaveLength(1);
  expect(lit.fixtures[0].on).toBe(lit.placed[0].id);
  const { u, v } = lit.fixtures[0].at;
  expect(brightness(await toneAt(page, u, v, 0.004))).toBeGreaterThan(120);

  // By keys it walks, with its lamp.
  await openStep(page, /^Placed pictures/);
  await foot.focus();
  for (let k = 0; k < 5; k++) await page.keyboard.press('Shift+ArrowLeft');
  await pictureReady(page);
  await saved(page);
  const moved = (await sceneOf(request, id)).scene;
  expect(moved.placed[0].foot.u).toBeCloseTo(lit.placed[0].foot.u - 0.1, 2);
  expect(moved.fixtures[0].at.u).toBeLessThan(u - 0.07);
  expect(
    brightness(await toneAt(page, moved.fixtures[0].at.u, moved.fixtures[0].at.v, 0.004)),
  ).toBeGreaterThan(120);
  expect(brightness(await toneAt(page, u, v, 0.004))).toBeLessThan(120);

  // Its copy shares the file and brings its own lamp.
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await pictureReady(page);
  await saved(page);
  const two = (await sceneOf(request, id)).scene;
  expect(two.placed.map(({ asset }) => asset)).toEqual([two.placed[0].asset, two.placed[0].asset]);
  expect(two.fixtures.map(({ on }) => on)).toEqual(two.placed.map((one) => one.id));

  // All of it is there again; removing one takes its lamp, and undo brings both back.
  const seen = await toneAt(page, two.fixtures[1].at.u, two.fixtures[1].at.v, 0.004);
  await page.reload();
  await pictureReady(page);
  expect(await toneAt(page, two.fixtures[1].at.u, two.fixtures[1].at.v, 0.004)).toEqual(seen);
  await openStep(page, /^Placed pictures/);
  await page.getByRole('list', { name: 'Placed pictures' }).getByRole('button').last().click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await pictureReady(page);
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures).toHaveLength(1);
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await sceneOf(request, id)).scene.fixtures).toHaveLength(2);
});

test('a thing is cut out of a photo by a rough loop, by an exact line, and begun again', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openStep(page, /^Placed pictures/);
  await place(page, 'disc.png', await disc());
  const marks = page.getByTestId('cut-marks');
  await expect(marks).toBeVisible();
  const box = (await marks.boundingBox())!;
  const drawLoop = async (places: [u: number, v: number][]) => {
    const [from, ...rest] = places.map(([u, v]) => ({ x: box.x + u * box.width, y: box.y + v * box.height }));
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 5 });
    await page.mouse.up();
  };
  await drawLoop([
    [0.15, 0.15],
    [0.85, 0.15],
    [0.85, 0.85],
    [0.15, 0.85],
    [0.15, 0.2],
  ]);
  await expect(page.getByLabel('Grow, value')).toBeVisible();
  await saved(page);
  const found = (await sceneOf(request, id)).scene.placed[0];
  // The disc is 140 of 300 pixels across.
  expect(found.body.right - found.body.left).toBeCloseTo(140 / 300, 1);
  expect(found.body.bottom - found.body.top).toBeCloseTo(140 / 300, 1);

  // An exact line takes its lower half away.
  await page.getByText('Cut inside a line').click();
  await drawLoop([
    [0.1, 0.5],
    [0.9, 0.5],
    [0.9, 0.95],
    [0.1, 0.95],
    [0.1, 0.52],
  ]);
  await expect.poll(async () => (await sceneOf(request, id)).scene.placed[0].body.bottom).toBeCloseTo(0.5, 1);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await pictureReady(page);
  const { foot } = (await sceneOf(request, id)).scene.placed[0];
  const tone = await toneAt(page, foot.u, foot.v - 0.1);
  expect(tone.r).toBeGreaterThan(2 * tone.g);

  await page.getByRole('button', { name: 'Cut out', exact: true }).click();
  await page.getByRole('button', { name: 'Start over' }).click();
  await expect
    .poll(async () => (await sceneOf(request, id)).scene.placed[0].body)
    .toEqual({ left: 0, top: 0, right: 1, bottom: 1 });
});

test('a picture that cannot be placed says so, and one whose foot lies above the horizon says what to do', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'tannery-court');
  await openEditor(page, id);
  await openStep(page, /^Placed pictures/);
  await place(page, 'words.png', Buffer.from('no picture'));
  await expect(page.getByRole('complementary').getByRole('alert')).toContainText(
    'words.png: This file is not a picture',
  );
  const tiny = sharp({ create: { width: 1, height: 1, channels: 3, background: '#fff' } });
  await place(page, 'tiny.png', await tiny.png().toBuffer());
  await expect(page.getByRole('complementary').getByRole('alert')).toContainText(
    'tiny.png: The picture is 1 x 1',
  );
  await place(page, 'post.png', await post());
  await expect(page.getByRole('complementary').getByRole('alert')).toBeHidden();
  const { x, y } = await middleOf(page, 'post, foot');
  await dragTo(page, { x, y }, await onPicture(page, 0.5, 0.2));
  await expect(page.getByRole('complementary').getByRole('alert')).toContainText(
    'The foot of post lies above the horizon',
  );
  await pictureReady(page);
});
