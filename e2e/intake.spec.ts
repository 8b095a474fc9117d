import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { claimingPng, pictureBytes } from '../test/workspace';
import { flatDng } from '../test/dng';
import { chooseFile } from './support/choose-file';
import { pictureReady, toneAt, warmth } from './support/editor';

const choose = (page: Page, name: string, buffer: Buffer) =>
  chooseFile(page, 'Choose a photo', { name, mimeType: 'application/octet-stream', buffer });

/** Drops a file on the page as a pointer would. */
async function drop(page: Page, name: string, buffer: Buffer): Promise<void> {
  const transfer = await page.evaluateHandle(
    ([name, data]) => {
      const transfer = new DataTransfer();
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
      transfer.items.add(new File([bytes], name, { type: 'image/jpeg' }));
      return transfer;
    },
    [name, buffer.toString('base64')] as const,
  );
  await page.dispatchEvent('body', 'dragenter', { dataTransfer: transfer });
  await page.dispatchEvent('[class*=dropzone], .mantine-Dropzone-root', 'drop', { dataTransfer: transfer });
}

test('a dropped photo begins a scene', async ({ page }) => {
  await page.goto('/');
  await drop(page, 'brick_lane.jpg', await readFile('demo/plates/brickyard-lane.jpg'));
  await page.waitForURL(/\/scenes\//);
  await pictureReady(page);
  await expect(page.getByLabel('Scene name')).toHaveValue('Brick lane');
  await expect(page.getByText('Nothing burns yet')).toBeVisible();
});

test('a raw file shows how far it has come, can be given up, and becomes a scene', async ({ page }) => {
  await page.goto('/');
  const lane = Buffer.from(flatDng(900, 600, (_x, y) => (y < 300 ? [0.5, 0.25, 0.1] : [0.1, 0.1, 0.1])));
  const line = await page.context().newCDPSession(page);
  const slow = { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: 300_000 };
  await line.send('Network.emulateNetworkConditions', slow);
  await choose(page, 'lane.dng', lane);
  await expect(page.getByRole('progressbar', { name: 'Sent to the server' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Choose a photo' })).toBeVisible();
  await line.send('Network.emulateNetworkConditions', { ...slow, uploadThroughput: -1 });
  await choose(page, 'lane.dng', lane);
  await page.waitForURL(/\/scenes\//);
  await pictureReady(page);
  expect(warmth(await toneAt(page, 0.5, 0.25))).toBeGreaterThan(warmth(await toneAt(page, 0.5, 0.75)) + 8);
});

test('files that are no plates get a clear word, and nothing is lost', async ({ page }) => {
  await page.goto('/');
  const cases: [string, Buffer, string][] = [
    ['letter.jpg', Buffer.from('dear all'), 'not a picture'],
    ['nothing.png', Buffer.alloc(0), 'empty'],
    ['cut.jpg', (await readFile('demo/plates/ferry-steps.jpg')).subarray(0, 40_000), 'cut short'],
    ['dot.png', await pictureBytes(1, 1, 'png'), 'at least 64 pixels'],
    ['huge.png', Buffer.from(claimingPng(20000, 20000)), '400 megapixels'],
  ];
  for (const [name, buffer, reason] of cases) {
    await choose(page, name, buffer);
    const alert = page.locator('p[role=alert]');
    await expect(alert).toContainText(name);
    await expect(alert).toContainText(reason);
  }
  await page.reload();
  await expect(page.getByRole('link', { name: 'Open Ferry steps', exact: true })).toBeVisible();
  for (const title of ['Letter', 'Nothing', 'Cut', 'Dot', 'Huge'])
    await expect(page.getByRole('link', { name: `Open ${title}`, exact: true })).toHaveCount(0);
});

test('a scene on the wall is day until its night is made, and nights leave ways to the server free', async ({
  page,
}) => {
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/thumbnail?of=night*', async (route) => {
    await held;
    await route.continue();
  });
  // Not until all of it has come: what is held back never does.
  await page.goto('/', { waitUntil: 'commit' });
  const cards = page.getByRole('link', { name: /^Open / });
  // By what waits for its picture, not by requests: a scene that another window saves is asked for anew.
  const underway = page.getByAltText(/ by night$/);
  await expect(underway).toHaveCount(2);
  // All days are there while the nights are being made, and no third night is asked for.
  await expect
    .poll(() =>
      cards.evaluateAll((all) =>
        all.every((card) => [...card.querySelectorAll('img')].at(-1)!.naturalWidth > 0),
      ),
    )
    .toBe(true);
  await expect(underway).toHaveCount(2);
  await expect(page.locator('[data-night]')).toHaveCount(0);
  letGo();
  await expect(page.locator('[data-night]').first()).toBeVisible();
});

test('a thumbnail wipes from night to day under the pointer', async ({ page }) => {
  await page.goto('/');
  const card = page.getByRole('link', { name: 'Open Ferry steps', exact: true });
  await card.scrollIntoViewIfNeeded();
  await expect(page.getByAltText('Ferry steps by night')).toBeVisible();
  const box = (await card.boundingBox())!;
  for (const place of [0.25, 0.75]) {
    await expect(async () => {
      await page.mouse.move(box.x + box.width * place - 1, box.y + 20);
      await page.mouse.move(box.x + box.width * place, box.y + 20);
      expect(
        Number(await card.evaluate((link) => getComputedStyle(link).getPropertyValue('--wipe'))),
      ).toBeCloseTo(1 - place, 1);
    }).toPass();
  }
});

test('the name of a scene opens it too', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Tannery court', exact: true }).click();
  await page.waitForURL(/\/scenes\/tannery-court/);
});

test('a scene is deleted after a question, and the address says so then', async ({ page, request }) => {
  const { scene } = (await (await request.get('/api/scenes/picture-house')).json()) as {
    scene: { title: string };
  };
  const copy = await request.post('/api/scenes/picture-house/copy', {
    data: { scene: { ...scene, title: 'Passing' } },
  });
  const { id } = (await copy.json()) as { id: string };
  await page.goto('/');
  await page.getByRole('article').filter({ hasText: 'Passing (copy)' }).hover();
  await page.getByRole('button', { name: 'Delete Passing (copy)' }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByText('Passing (copy)')).toHaveCount(0);
  await page.goto(`/scenes/${id}`);
  await expect(page.getByRole('heading', { name: 'This scene is not here' })).toBeVisible();
});
