import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { copyOf, openEditor, pictureReady, saved, sceneOf } from './support/editor';
import { ownServer } from './support/server';

async function setStops(page: Page, name: string, value: string): Promise<void> {
  await page.getByLabel(`${name}, stops`, { exact: true }).fill(value);
  await page.keyboard.press('Enter');
}

/** Two windows on one scene: theirs saved a change first, mine then made another. */
async function atOdds(context: BrowserContext, id: string): Promise<{ mine: Page; theirs: Page }> {
  const [mine, theirs] = [await context.newPage(), await context.newPage()];
  await openEditor(mine, id);
  await openEditor(theirs, id);
  await setStops(theirs, 'Ambient', '-3');
  await saved(theirs);
  await setStops(mine, 'Ambient', '1');
  return { mine, theirs };
}

const status = (page: Page) => page.locator('header [role=status]');

test('two windows on one scene: the later one must choose, and nothing is overwritten', async ({
  context,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  const { mine, theirs } = await atOdds(context, id);
  const question = mine.getByRole('dialog', { name: 'This scene was changed in another window' });
  await expect(question).toBeVisible();
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-3);

  await question.getByRole('button', { name: 'Keep mine as a copy' }).click();
  await expect(mine.getByLabel('Scene name')).toHaveValue('Ferry steps (copy) (copy)');
  await pictureReady(mine);
  await expect(mine.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '1');
  await expect(theirs.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '-3');
});

test('the other choice opens what is saved', async ({ context, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  const { mine } = await atOdds(context, id);
  await mine.getByRole('button', { name: 'Open what is saved' }).click();
  await expect(mine.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '-3');
  await setStops(mine, 'Master', '-1');
  await saved(mine);
  expect((await sceneOf(request, id)).scene.desk).toMatchObject({ ambient: -3, master: -1 });
});

test('a window closed before it could save loses nothing', async ({ context, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  const page = await context.newPage();
  await openEditor(page, id);
  await context.route('**/revisions', (route) => route.abort());
  await setStops(page, 'Ambient', '-2');
  await expect(status(page)).toHaveText('kept here, not saved yet');
  await page.close();
  await context.unroute('**/revisions');
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(0);
  const later = await context.newPage();
  await openEditor(later, id);
  await saved(later);
  await expect(later.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '-2');
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-2);
  await later.keyboard.press('Control+z');
  await expect(later.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '0');
});

test('a full disk is told, and saving goes on when there is room', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const message = 'The disk is full. Free some space; your work is kept in this window.';
  await page.route('**/revisions', (route) =>
    route.fulfill({ status: 507, json: { error: { code: 'disk-full', message } } }),
  );
  await setStops(page, 'Ambient', '-2');
  await expect(status(page)).toHaveText('kept here, not saved yet');
  await expect(status(page)).toHaveAttribute('title', message);
  await page.unroute('**/revisions');
  await saved(page);
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-2);
});

test('a server killed between two changes loses neither', async ({ page }) => {
  const server = await ownServer(4398);
  await server.start();
  await page.goto(`${server.url}/scenes/ferry-steps`);
  await pictureReady(page);
  await setStops(page, 'Ambient', '-1');
  await saved(page);
  await server.kill();
  await setStops(page, 'Ambient', '-2');
  await setStops(page, 'Master', '-0.5');
  await expect(status(page)).toHaveText('kept here, not saved yet');
  await server.start();
  await saved(page);
  const { scene, revision } = (await (
    await page.request.get(`${server.url}/api/scenes/ferry-steps`)
  ).json()) as {
    scene: { desk: object };
    revision: number;
  };
  expect(scene.desk).toMatchObject({ ambient: -2, master: -0.5 });
  expect(revision).toBe(3);
  await server.kill();
});

test('the history is read and walked, also after a reload', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await setStops(page, 'Ambient', '-2');
  await setStops(page, 'Master', '-1');
  await saved(page);
  await page.reload();
  await pictureReady(page);
  await page.getByRole('button', { name: 'What was done' }).click();
  const moments = page.getByRole('list', { name: 'History' }).getByRole('button');
  await expect(moments).toHaveText(['As opened', 'Ambient', 'Master']);
  await moments.first().click();
  await expect(page.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '0');
  await expect(moments.first()).toHaveAttribute('aria-current', 'step');
  await moments.nth(1).click();
  await expect(page.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '-2');
  await saved(page);
  expect((await sceneOf(request, id)).scene.desk).toMatchObject({ ambient: -2, master: 0 });
});
