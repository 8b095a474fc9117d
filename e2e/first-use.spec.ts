import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { DRAWN, onRow, ROW } from '../test/drawn-street';
import { groundPoint } from '@/core/geometry/ground';
import { createCamera } from '@/core/geometry/camera';
import { SURVEY_WIDTH } from '@/core/survey/survey';
import { chooseFile } from './support/choose-file';
import { beginDrawn } from './support/drawn-photo';
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
import { foundEdge } from './support/found-edge';
import { test } from './support/kept-page';

const offerOf = (page: Page) => page.getByRole('region', { name: 'First guess' });

test('the plan of a new photo is offered in one line; it is used in one gesture and undone in one', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page);
  const offer = offerOf(page);
  await expect(offer).toContainText('One wall and the horizon look like this. Use them?');
  await offer.getByRole('button', { name: 'Use them' }).click();
  await expect(offer).toHaveCount(0);
  await saved(page);
  const { plan } = (await sceneOf(request, id)).scene;
  expect(Math.abs(plan.horizon.left - DRAWN.horizon.left)).toBeLessThan(0.01);
  expect(Math.abs(plan.horizon.right - DRAWN.horizon.right)).toBeLessThan(0.01);
  // The wall stands along the houses' feet, not along the kerb.
  const camera = createCamera(DRAWN, 1.5);
  for (const at of plan.walls[0].foot) {
    const [x, y] = groundPoint(camera, at);
    const share = (y - ROW.from[1]) / (ROW.to[1] - ROW.from[1]);
    expect(Math.abs(x - ROW.from[0] - share * (ROW.to[0] - ROW.from[0]))).toBeLessThan(0.6);
  }
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await sceneOf(request, id)).scene.plan.walls).toEqual([]);
  // What was answered is not asked again.
  await pictureReady(page);
  await expect(offer).toHaveCount(0);
});

test('what is seen to stand in a new photo is offered with its plan, and stands by its own edges once that is used', async ({
  page,
  request,
}) => {
  await page.goto('/');
  const buffer = await readFile('e2e/plates/picture-house.jpg');
  await chooseFile(page, 'Choose a photo', { name: 'corner.jpg', mimeType: 'image/jpeg', buffer });
  await page.waitForURL('**/scenes/**');
  const offer = offerOf(page);
  await expect(offer).toContainText('things that stand look like this');
  await offer.getByRole('button', { name: 'Use them' }).click();
  const id = page.url().split('/').pop()!;
  const standees = async () => (await sceneOf(request, id)).scene.plan.standees;
  await expect.poll(async () => (await standees()).map(({ name }) => name)).toContain('Person 2');
  await saved(page);
  const { scene } = await sceneOf(request, id);
  // The one who waits before the posters is covered, and the road before him is not.
  const { matte, foot } = scene.plan.standees.find(({ foot: { u } }) => Math.abs(u - 0.86) < 0.03)!;
  expect(foot.v).toBeCloseTo(0.8, 1);
  const [pass] = scene.mattes.find((own) => own.id === matte)!.passes as { asset: string }[];
  const covered = await foundEdge(request, id, pass.asset);
  expect(covered(0.86, 0.7)).toBeGreaterThan(127);
  expect(covered(0.86, 0.86)).toBe(0);
});

test('after the offer is used, a guess tells the pavement before that wall, and the wall not again', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page);
  await offerOf(page).getByRole('button', { name: 'Use them' }).click();
  await openStep(page, /Ground plan/);
  await page.getByRole('button', { name: 'Guess it' }).click();
  await page.getByRole('button', { name: 'Take guessed deck d1' }).click();
  await expect(page.getByRole('list', { name: 'Guesses' }).getByText(/guessed wall/)).toHaveCount(0);
  await saved(page);
  const { plan } = (await sceneOf(request, id)).scene;
  expect(plan.walls).toHaveLength(1);
  expect(plan.decks[0].height).toBe(0.15);
  for (const at of plan.decks[0].outline) expect(offRow(at)).toBeLessThan(4);
});

test('the offer goes at a No', async ({ page }) => {
  await beginDrawn(page);
  await offerOf(page).getByRole('button', { name: 'No' }).click();
  await expect(offerOf(page)).toHaveCount(0);
});

/** How far off the foot of the drawn houses a place of the ground is, metres. */
function offRow(at: { u: number; v: number }): number {
  const [x, y] = groundPoint(createCamera(DRAWN, 1.5), at);
  const [dx, dy] = [ROW.to[0] - ROW.from[0], ROW.to[1] - ROW.from[1]];
  return Math.abs((x - ROW.from[0]) * dy - (y - ROW.from[1]) * dx) / Math.hypot(dx, dy);
}

test('a wall that is drawn beside the foot of the houses snaps to it; with Alt it goes free', async ({
  page,
  request,
}) => {
  const id = await beginDrawn(page);
  await offerOf(page).getByRole('button', { name: 'No' }).click();
  await openStep(page, /Ground plan/);
  await page.getByRole('button', { name: 'Draw a wall' }).click();
  const beside = (along: number) => {
    const { u, v } = onRow(along, 0);
    return onPicture(page, u, v + 0.008);
  };
  const [from, to] = await Promise.all([beside(3), beside(12)]);
  /** Draws it, and waits on the way until it looks as it should: edges are found in the background. */
  const draw = async (looksRight: (off: number) => boolean) => {
    const trail = page.locator('path[class*=trail]');
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await expect(async () => {
      await page.mouse.move(to.x - 1, to.y, { steps: 3 });
      await page.mouse.move(to.x, to.y);
      const box = (await page.getByTestId('marks').boundingBox())!;
      const end = (await trail.getAttribute('d'))!.split('L')[1].split(' ').map(Number);
      expect(looksRight(offRow({ u: end[0] / box.width, v: end[1] / box.height }))).toBe(true);
    }).toPass();
    await page.mouse.up();
    const walls = async () => (await sceneOf(request, id)).scene.plan.walls;
    await expect.poll(async () => (await walls()).length).toBe(1);
    return (await walls())[0].foot;
  };
  for (const at of await draw((off) => off < 0.08)) expect(offRow(at)).toBeLessThan(0.08);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await sceneOf(request, id)).scene.plan.walls.length).toBe(0);
  await page.keyboard.down('Alt');
  const free = await draw((off) => off > 0.1);
  await page.keyboard.up('Alt');
  expect(Math.max(...free.map(offRow))).toBeGreaterThan(0.1);
});

test('what the server finds in a new photo is not looked for again in the window, whose picture is the same', async ({
  browser,
}) => {
  const fresh = async () => (await browser.newContext()).newPage();
  const page = await fresh();
  const given: string[] = [];
  page.on('response', (answer) => {
    const url = new URL(answer.url());
    if (url.pathname === '/api/results' && answer.status() === 200) given.push(url.searchParams.get('key')!);
  });
  const id = await beginDrawn(page);
  await pictureReady(page);
  expect(given.map((key) => key.split(' ')[0])).toContain('survey');
  const alone = await fresh();
  await alone.route('**/api/results?*', (route) => route.abort());
  await openEditor(alone, id);
  for (const u of [0.1, 0.35, 0.6, 0.85])
    for (const v of [0.1, 0.4, 0.7, 0.95]) {
      const [helped, own] = [await toneAt(page, u, v), await toneAt(alone, u, v)];
      expect(Math.abs(brightness(helped) - brightness(own))).toBeLessThan(0.5);
    }
  await page.context().close();
  await alone.context().close();
});

test('the day stays fine where its fine copy comes before the coarse one', async ({ browser }) => {
  const page = await (await browser.newContext()).newPage();
  let came: () => void;
  const fine = new Promise<void>((resolve) => (came = resolve));
  await page.route('**/plates/**', async (route) => {
    const width = Number(new URL(route.request().url()).searchParams.get('fullWidth'));
    if (width <= SURVEY_WIDTH) {
      await fine;
      return route.continue();
    }
    await route.fulfill({ response: await route.fetch() });
    came();
  });
  await beginDrawn(page);
  const wide = (canvas: string) =>
    page.getByTestId(canvas).evaluate((one) => (one as HTMLCanvasElement).width);
  expect(await wide('night')).toBeGreaterThan(SURVEY_WIDTH);
  expect(await wide('day')).toBe(await wide('night'));
  // What looks for edges and things may still ask for its own copy.
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.context().close();
});
