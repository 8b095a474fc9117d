// Prints how soon each demo scene is there in the browser: for the first time, and again.
import type { Page } from '@playwright/test';
import { ownBrowser } from './own-browser';

const SCENES = [
  'tannery-court',
  'tannery-court-storm',
  'picture-house',
  'market-row',
  'ferry-steps',
  'brickyard-lane',
];

/** Milliseconds until a picture of the scene is seen, and until its fine frame is. */
async function open(page: Page, url: string): Promise<{ seen: number; fine: number }> {
  const from = performance.now();
  await page.goto(url, { waitUntil: 'commit' });
  const after = async (test: () => boolean) => {
    await page.waitForFunction(test, undefined, { polling: 'raf', timeout: 120_000 });
    return performance.now() - from;
  };
  const seen = await after(() => {
    const night = document.querySelector<HTMLCanvasElement>('[data-testid=night]');
    const served = document.querySelector<HTMLImageElement>('img[src$="of=opening"]');
    return Number(night?.dataset.frames ?? 0) > 0 || (!!served?.complete && served.naturalWidth > 0);
  });
  const fine = await after(() => {
    const night = document.querySelector<HTMLCanvasElement>('[data-testid=night]');
    return night?.dataset.busy === 'false' && Number(night.dataset.frames) > 0;
  });
  return { seen, fine };
}

/** Whether the browser keeps the picture for the next visit. */
const isKept = (page: Page) =>
  page.evaluate(async () => {
    for (const name of await caches.keys()) {
      if (name.startsWith('pictures of ') && (await (await caches.open(name)).keys()).length > 0) return true;
    }
    return false;
  });

const { url, browser, close } = await ownBrowser('demo');
console.log('Milliseconds to a picture, and to the fine frame, software-drawn Chromium, 1280 x 800\n');
for (const scene of SCENES) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const place = `${url}/scenes/${scene}`;
  const first = await open(page, place);
  while (!(await isKept(page))) await page.waitForTimeout(200);
  await page.goto('about:blank');
  const again = await open(page, place);
  const cell = ({ seen, fine }: typeof first) =>
    `${seen.toFixed(0).padStart(6)} ${fine.toFixed(0).padStart(6)}`;
  console.log(scene.padEnd(22), 'first', cell(first), '  again', cell(again));
  await context.close();
}
await close();
process.exit(0);
