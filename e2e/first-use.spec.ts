import { expect, test, type Page } from '@playwright/test';
import { DRAWN, drawnStreet, ROW } from '../test/drawn-street';
import { groundPoint } from '@/core/geometry/ground';
import { createCamera } from '@/core/geometry/camera';
import { pictureReady, saved, sceneOf } from './support/editor';

/** Begins a scene with a photo that nobody has seen. */
async function begin(page: Page): Promise<string> {
  const buffer = await drawnStreet();
  await page.goto('/');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose a photo' }).click(),
  ]);
  await chooser.setFiles({ name: 'street.jpg', mimeType: 'image/jpeg', buffer });
  await page.waitForURL(/\/scenes\//);
  await pictureReady(page);
  return page.url().split('/').at(-1)!;
}

const offerOf = (page: Page) => page.getByRole('region', { name: 'First guess' });

test('the plan of a new photo is offered in one line; it is used in one gesture and undone in one', async ({
  page,
  request,
}) => {
  const id = await begin(page);
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

test('the offer goes at a No', async ({ page }) => {
  await begin(page);
  await offerOf(page).getByRole('button', { name: 'No' }).click();
  await expect(offerOf(page)).toHaveCount(0);
});
