// Prints how many frames a second there are while a lamp, and its circuit's fader, of each demo scene is dragged in the browser.
import type { Page } from '@playwright/test';
import { onPicture, openEditor, openStep, sceneOf } from '../../e2e/support/editor';
import { ownBrowser } from './own-browser';

const SCENES = ['tannery-court', 'picture-house', 'market-row', 'ferry-steps', 'brickyard-lane'];

/** Kinds of lamps that are dragged by one drop, and in how large a circle, fractions of the picture. */
const KINDS: readonly string[] = ['globe', 'lantern'];
const CIRCLE = 0.03;

/** How long is dragged, and how long a turn takes, milliseconds. */
const FOR = 4000;
const TURN = 2000;

const framesOf = (page: Page) =>
  page.evaluate(() => Number(document.querySelector<HTMLElement>('[data-testid=night]')!.dataset.frames));

/** Frames a second while the pointer, once it is down at a place, goes where `way` says: by turns, from there, pixels. */
async function dragged(
  page: Page,
  start: { x: number; y: number },
  way: (turn: number) => { x: number; y: number },
): Promise<number> {
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  const before = await framesOf(page);
  const from = performance.now();
  while (performance.now() - from < FOR) {
    const { x, y } = way((performance.now() - from) / TURN);
    await page.mouse.move(start.x + x, start.y + y);
  }
  const frames = (await framesOf(page)) - before;
  const seconds = (performance.now() - from) / 1000;
  await page.mouse.up();
  return frames / seconds;
}

/** A lamp that is dragged round and round. */
async function lampDragged(page: Page, { u, v }: { u: number; v: number }): Promise<number> {
  const [start, one] = [await onPicture(page, u, v), await onPicture(page, u + CIRCLE, v + CIRCLE)];
  const [wide, high] = [one.x - start.x, one.y - start.y];
  await page.mouse.click(start.x, start.y);
  return dragged(page, start, (turn) => ({
    x: wide * Math.sin(2 * Math.PI * turn),
    y: high * (1 - Math.cos(2 * Math.PI * turn)),
  }));
}

/** A fader that is dragged up and down. */
async function faderDragged(page: Page, name: string): Promise<number> {
  const box = (await page.getByRole('slider', { name, exact: true }).boundingBox())!;
  const start = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  return dragged(page, start, (turn) => ({ x: 0, y: (box.height / 3) * Math.sin(2 * Math.PI * turn) }));
}

const { url, browser, close } = await ownBrowser('demo');
console.log('Frames a second while something is dragged, software-drawn Chromium, 1280 x 800\n');
console.log(''.padEnd(22), 'lamp'.padStart(8), 'fader'.padStart(8));
for (const id of SCENES) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: url });
  const { scene } = await sceneOf(page.request, id);
  const lamp = scene.fixtures.find(({ kind }) => KINDS.includes(kind));
  if (!lamp) continue;
  const { name } = scene.circuits.find((circuit) => circuit.id === lamp.circuit)!;
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  const rates = [await lampDragged(page, lamp.at), await faderDragged(page, name)];
  console.log(id.padEnd(22), ...rates.map((rate) => rate.toFixed(1).padStart(8)));
  await page.close();
}
await close();
process.exit(0);
