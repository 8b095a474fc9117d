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
  await expect(status(page)).toHaveText(/^kept here/);
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

test('while the server is gone the header says so, work goes on, and all is saved when it is back', async ({
  page,
}) => {
  const server = await ownServer(4398);
  await server.start();
  await page.goto(`${server.url}/scenes/ferry-steps`);
  await pictureReady(page);
  await setStops(page, 'Ambient', '-1');
  await saved(page);
  await server.kill();
  // It notices by itself, with nothing left to save.
  await expect(status(page)).toHaveText('the server does not answer');
  await setStops(page, 'Ambient', '-2');
  await setStops(page, 'Master', '-0.5');
  await expect(status(page)).toHaveText('kept here, the server does not answer');
  await pictureReady(page);

  // What needs the server says why it can do nothing.
  await page.getByRole('button', { name: /^Ground plan/ }).click();
  await page.getByRole('button', { name: 'Guess it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing could be guessed' })).toContainText(
    /server/,
  );
  await page.getByRole('button', { name: /^Night/ }).click();
  await page.getByRole('button', { name: 'Start from a nocturne' }).click();
  await expect(page.locator('img[data-missing]').first()).toHaveAttribute('title', /when the server answers/);

  await server.start();
  await saved(page);
  await expect(page.locator('img[data-missing]')).toHaveCount(0);
  const answer = await page.request.get(`${server.url}/api/scenes/ferry-steps`);
  const { scene, revision } = (await answer.json()) as { scene: { desk: object }; revision: number };
  expect(scene.desk).toMatchObject({ ambient: -2, master: -0.5 });
  expect(revision).toBe(3);
  await server.kill();
});

test('a server that fails at a save is asked three times; then a person asks again', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  let asked = 0;
  await page.route('**/revisions', (route) => {
    asked++;
    return route.fulfill({ status: 500, json: { error: { code: 'fault', message: 'It went wrong.' } } });
  });
  await setStops(page, 'Ambient', '-2');
  await expect(status(page)).toHaveText('not saved');
  expect(asked).toBe(3);
  await page.unroute('**/revisions');
  await page.getByRole('button', { name: 'Try again' }).click();
  await saved(page);
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-2);
});

test('what two windows left unsaved is kept apart, and each is offered in its turn', async ({
  context,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  const [one, two] = [await context.newPage(), await context.newPage()];
  await openEditor(one, id);
  await openEditor(two, id);
  await context.route('**/revisions', (route) => route.abort());
  await setStops(one, 'Ambient', '-2');
  await setStops(two, 'Master', '-3');
  for (const page of [one, two]) await expect(status(page)).toHaveText(/^kept here/);
  await one.close();
  await two.close();
  await context.unroute('**/revisions');
  const later = await context.newPage();
  await openEditor(later, id);
  await saved(later);
  const { desk } = (await sceneOf(request, id)).scene;
  expect([desk.ambient === -2, desk.master === -3].filter(Boolean)).toHaveLength(1);
  // The other window's work was done on what is not the newest any more: a person chooses.
  const last = await context.newPage();
  await last.goto(`/scenes/${id}`);
  await last.getByRole('button', { name: 'Keep mine as a copy' }).click();
  await expect(last.getByLabel('Scene name')).toHaveValue('Ferry steps (copy) (copy)');
  await pictureReady(last);
  const other = desk.ambient === -2 ? ['Master', '-3'] : ['Ambient', '-2'];
  await expect(last.getByRole('slider', { name: other[0] })).toHaveAttribute('aria-valuenow', other[1]);
});

test('changes kept by an older Sundew go along when it is updated', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  const { scene } = await sceneOf(request, id);
  const kept = {
    base: 0,
    entries: [
      {
        ...{ id: crypto.randomUUID(), kind: 'do', label: 'Ambient', inverse: [] },
        patches: [{ op: 'replace', path: ['desk', 'ambient'], value: -2 }],
      },
    ],
    scene: { ...scene, version: 7, desk: { ...scene.desk, ambient: -2 } },
  };
  await page.goto('/');
  await page.evaluate(
    ([key, text]) => localStorage.setItem(key, text),
    [`sundew:outbox:${id}`, JSON.stringify(kept)],
  );
  await openEditor(page, id);
  await saved(page);
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-2);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Ambient' })).toHaveAttribute('aria-valuenow', '0');
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
