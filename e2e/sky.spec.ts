import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { chooseFile } from './support/choose-file';
import {
  brightness,
  copyOf,
  dragOn,
  dragTo,
  middleOf,
  openEditor,
  openPart,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  setFader,
  setRow,
  toneAt,
  warmth,
} from './support/editor';
import { test } from './support/kept-page';

/** Opens a copy of a demo scene with the hour's sky behind its skyline. */
async function openSky(page: Page, id: string): Promise<void> {
  await openEditor(page, id);
  await openStep(page, /^Sky/);
  await page.getByText('The hour’s sky', { exact: true }).click();
  await pictureReady(page);
}

test('the hour’s sky stands behind the skyline; its fader and the hour change it, and no land', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const [own, paving] = [await toneAt(page, 0.5, 0.08), await toneAt(page, 0.42, 0.9)];
  await openStep(page, /^Sky/);
  await expect(page.getByRole('button', { name: /^Twilight/ })).toHaveCount(0);
  await page.getByText('The hour’s sky', { exact: true }).click();
  await pictureReady(page);
  const sky = await toneAt(page, 0.5, 0.08);
  expect(Math.abs(brightness(sky) - brightness(own))).toBeGreaterThan(3);
  expect(Math.abs(brightness(await toneAt(page, 0.42, 0.9)) - brightness(paving))).toBeLessThan(2);
  await setFader(page, 'Sky', '-4');
  expect(brightness(await toneAt(page, 0.5, 0.08))).toBeLessThan(0.6 * brightness(sky));
  expect(brightness(await toneAt(page, 0.42, 0.9))).toBeCloseTo(brightness(paving), -0.5);
  await setFader(page, 'Sky', '0');
  // Towards where the sun went it is warmer.
  await setRow(page, 'Afterglow', '4');
  const west = await toneAt(page, 0.3, 0.2, 0.006);
  await page.getByRole('button', { name: 'Where the sun went' }).focus();
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Tab');
  await pictureReady(page);
  await expect.poll(async () => (await sceneOf(request, id)).scene.sky.sun).toBeGreaterThan(-25);
  expect(warmth(await toneAt(page, 0.3, 0.2, 0.006))).not.toBeCloseTo(warmth(west), 0);
  await openStep(page, /^Night/);
  await openStep(page, /^Sky/);
  await page.getByText('The plate’s own', { exact: true }).click();
  await pictureReady(page);
  expect(brightness(await toneAt(page, 0.5, 0.08))).toBeCloseTo(brightness(own), 0);
});

test('clouds are made, take the colour of what burns below, and go with its fader', async ({
  page,
  request,
}) => {
  await openSky(page, await copyOf(request, 'ferry-steps'));
  const clear = await toneAt(page, 0.6, 0.06);
  await openPart(page, /^Clouds/);
  await setRow(page, 'Cover', '0.95');
  await setRow(page, 'From below', '5');
  const lit = await toneAt(page, 0.6, 0.06);
  expect(warmth(lit)).toBeGreaterThan(warmth(clear) + 15);
  await setFader(page, 'Master', '-6');
  expect(warmth(await toneAt(page, 0.6, 0.06))).toBeLessThan(warmth(lit) - 10);
});

test('stars come out on their fader, end under a line that is dragged and tilted, and are true ones', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSky(page, id);
  await setFader(page, 'Sky', '-10');
  await openPart(page, /^Stars/);
  await setFader(page, 'Stars', '4');
  const lightIn = (from: number, to: number) =>
    page.getByTestId('night').evaluate(
      (canvas: HTMLCanvasElement, [from, to]) => {
        const [top, height] = [Math.round(from * canvas.height), Math.round((to - from) * canvas.height)];
        const { data } = canvas.getContext('2d')!.getImageData(0, top, canvas.width, height);
        return data.reduce((sum, value, i) => (i % 4 < 3 ? sum + value : sum), 0) / canvas.width / height;
      },
      [from, to] as const,
    );
  const starry = await lightIn(0, 0.12);
  await dragOn(page, [0.5, 0.45], [0.5, 0.02]);
  expect(await lightIn(0.06, 0.12)).toBeLessThan(starry);
  await saved(page);
  expect((await sceneOf(request, id)).scene.sky.stars.fall.at.v).toBeLessThan(0.1);
  const tilt = await middleOf(page, 'Tilt of where stars end');
  await dragTo(page, tilt, { x: tilt.x, y: tilt.y + 60 });
  await saved(page);
  expect((await sceneOf(request, id)).scene.sky.stars.fall.turn).toBeGreaterThan(5);
  await setFader(page, 'Stars', '-10');
  expect(await lightIn(0, 0.12)).toBeLessThan(starry);
  const blue = page.getByRole('slider', { name: 'Blue stars' });
  await blue.press('Home');
  await page.getByRole('slider', { name: 'Red stars' }).press('End');
  await setRow(page, 'Red', '2');
  await saved(page);
  const { colors } = (await sceneOf(request, id)).scene.sky.stars;
  expect([colors[0], colors.at(-1)]).toEqual([0, 2]);
  await page.getByText('The true sky', { exact: true }).click();
  const moment = page.getByLabel('Date and time, UTC');
  await moment.fill('2026-03-20T21:30');
  await moment.press('Enter');
  await setRow(page, 'North', '47.5');
  await saved(page);
  expect((await sceneOf(request, id)).scene.sky).toMatchObject({
    stars: { from: 'true' },
    when: { moment: '2026-03-20T21:30Z', latitude: 47.5 },
  });
});

test('the moon is put in the picture, dragged, sized by the wheel, and taken away by undo', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSky(page, id);
  await openPart(page, /^Moon/);
  await page.getByRole('button', { name: 'Put it in the picture' }).click();
  await pictureReady(page);
  await expect(page.getByRole('slider', { name: 'Moon', exact: true })).not.toHaveAttribute(
    'aria-valuetext',
    'off',
  );
  const mark = page.getByRole('button', { name: 'Moon in the picture' });
  const from = await middleOf(page, 'Moon in the picture');
  await dragTo(page, from, { x: from.x - 40, y: from.y - 12 });
  await pictureReady(page);
  const { x, y } = await middleOf(page, 'Moon in the picture');
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, -120);
  await saved(page);
  const { scene } = await sceneOf(request, id);
  expect(scene.sky.moon.size).toBeGreaterThan(1.6);
  const box = (await page.getByTestId('marks').boundingBox())!;
  const [u, v] = [(x - box.x) / box.width, (y - box.y) / box.height];
  await pictureReady(page);
  const disc = brightness(await toneAt(page, u, v, 0.003));
  expect(disc).toBeGreaterThan(brightness(await toneAt(page, u - 0.06, v, 0.003)) + 50);
  await mark.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Tab');
  const azimuth = async () => (await sceneOf(request, id)).scene.moon.azimuth;
  await expect.poll(azimuth).toBeLessThan(scene.moon.azimuth);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await pictureReady(page);
  await expect(page.getByRole('slider', { name: 'Moon', exact: true })).toHaveAttribute(
    'aria-valuetext',
    'off',
  );
  expect(brightness(await toneAt(page, u, v, 0.003))).toBeLessThan(disc - 50);
});

test('a picture of a sky is chosen, shown half through while it is placed, fitted, and taken out', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSky(page, id);
  const plain = await toneAt(page, 0.5, 0.08);
  await openPart(page, /^Picture/);
  const red = { create: { width: 400, height: 300, channels: 3, background: '#c03020' } } as const;
  const choose = (name: string, buffer: Buffer) =>
    chooseFile(page, 'Choose a picture', { name, mimeType: 'image/png', buffer });
  await choose('broken.png', Buffer.from('no picture'));
  await expect(page.getByRole('complementary').getByRole('alert')).toContainText('broken.png');
  await choose('ember.png', await sharp(red).png().toBuffer());
  await expect(page.getByLabel('Shows, value')).toBeVisible();
  await pictureReady(page);
  await setRow(page, 'Hour’s colour', '0');
  const laid = await toneAt(page, 0.5, 0.08);
  expect(warmth(laid)).toBeGreaterThan(warmth(plain) + 25);
  await page.getByLabel('See through it while placing').check();
  await pictureReady(page);
  const through = warmth(await toneAt(page, 0.5, 0.08));
  expect(through).toBeLessThan(warmth(laid) - 5);
  expect(through).toBeGreaterThan(warmth(plain) + 5);
  await page.getByRole('button', { name: 'Middle of the sky’s picture' }).press('Shift+ArrowDown');
  await setRow(page, 'Width', '2');
  await saved(page);
  const { picture } = (await sceneOf(request, id)).scene.sky;
  expect(picture).toMatchObject({ name: 'ember', width: 400, height: 300, across: 2, share: 1 });
  await page.reload();
  await pictureReady(page);
  expect(warmth(await toneAt(page, 0.5, 0.08))).toBeCloseTo(warmth(laid), -0.7);
  await openStep(page, /^Sky/);
  await openPart(page, /^Picture/);
  await page.getByRole('button', { name: 'Take out' }).click();
  await pictureReady(page);
  expect(warmth(await toneAt(page, 0.5, 0.08))).toBeCloseTo(warmth(plain), 0);
});

test('a bolt strikes from the cloud to the houses on a circuit of its own, and its copy runs another way', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSky(page, id);
  const way = [0.621, 0.08] as const;
  const before = await toneAt(page, ...way, 0.003);
  await openPart(page, /^Storm/);
  await page.getByRole('button', { name: 'Strike a bolt' }).click();
  await dragOn(page, [0.62, 0.02], [0.64, 0.4]);
  await setRow(page, 'Forks', '0');
  await setRow(page, 'Jaggedness', '0');
  expect(brightness(await toneAt(page, ...way, 0.003))).toBeGreaterThan(brightness(before) + 60);
  await saved(page);
  const { fixtures, circuits } = (await sceneOf(request, id)).scene;
  const bolt = fixtures.find(({ kind }) => kind === 'bolt')!;
  expect(circuits.find((circuit) => circuit.id === bolt.circuit)?.name).toBe('Storm');
  const bend = await middleOf(page, `${bolt.name}, bend between corners 1 and 2`);
  await dragTo(page, bend, { x: bend.x + 60, y: bend.y });
  await saved(page);
  const bent = (await sceneOf(request, id)).scene.fixtures.find((own) => own.id === bolt.id)!.path;
  expect(bent).toHaveLength(3);
  expect(bent[1].u).toBeGreaterThan(bent[2].u + 0.03);
  await setFader(page, 'Storm', '-10');
  expect(brightness(await toneAt(page, ...way, 0.003))).toBeLessThan(brightness(before) + 5);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: bolt.name, exact: true }).press('Enter');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await saved(page);
  const seeds = (await sceneOf(request, id)).scene.fixtures.flatMap((own) =>
    own.kind === 'bolt' ? [(own as unknown as { seed: number }).seed] : [],
  );
  expect(new Set(seeds).size).toBe(2);
});
