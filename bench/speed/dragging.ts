// Prints how many frames a second there are while a lamp of each demo scene is dragged in the browser.
import { chromium, type Page } from '@playwright/test';
import { onPicture, openEditor, openStep, sceneOf } from '../../e2e/support/editor';
import { ownServer } from '../../e2e/support/server';
import { findChromium } from '../../scripts/chromium.mjs';

const PORT = 4396;
const SCENES = ['tannery-court', 'picture-house', 'market-row', 'ferry-steps', 'brickyard-lane'];

/** Kinds of lamps that are dragged by one drop, how long, milliseconds, and in how large a circle, fractions of the picture. */
const KINDS: readonly string[] = ['globe', 'lantern'];
const FOR = 4000;
const CIRCLE = 0.03;

const framesOf = (page: Page) =>
  page.evaluate(() => Number(document.querySelector<HTMLElement>('[data-testid=night]')!.dataset.frames));

/** Frames a second while a place of the picture is dragged round and round. */
async function dragged(page: Page, at: { u: number; v: number }): Promise<number> {
  const [start, one] = [await onPicture(page, at.u, at.v), await onPicture(page, at.u + 1, at.v + 1)];
  const [width, height] = [one.x - start.x, one.y - start.y];
  await page.mouse.click(start.x, start.y);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  const before = await framesOf(page);
  const from = performance.now();
  while (performance.now() - from < FOR) {
    const turn = ((performance.now() - from) / 1000) * Math.PI;
    const [du, dv] = [CIRCLE * Math.sin(turn), CIRCLE * (1 - Math.cos(turn))];
    await page.mouse.move(start.x + du * width, start.y + dv * height);
  }
  const frames = (await framesOf(page)) - before;
  const seconds = (performance.now() - from) / 1000;
  await page.mouse.up();
  return frames / seconds;
}

const server = await ownServer(PORT, 'demo');
await server.start();
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});
console.log('Frames a second while a lamp is dragged, software-drawn Chromium, 1280 x 800\n');
for (const id of SCENES) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
  const { scene } = await sceneOf(page.request, id);
  const lamp = scene.fixtures.find(({ kind }) => KINDS.includes(kind));
  if (!lamp) continue;
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  console.log(id.padEnd(22), lamp.kind.padEnd(8), (await dragged(page, lamp.at)).toFixed(1).padStart(6));
  await page.close();
}
await browser.close();
await server.kill();
process.exit(0);
