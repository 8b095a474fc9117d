import { rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { clearPicture } from './placed';
import { medianTime } from './time';
import { ownBrowser } from './own-browser';

const MOVES = 60;

interface Watch {
  tasks: number[];
}

/** Begins to note tasks of over 50 ms on the main thread. */
const watch = (page: Page) =>
  page.evaluate(() => {
    const seen: Watch = { tasks: [] };
    (window as unknown as { seen: Watch }).seen = seen;
    new PerformanceObserver((list) =>
      list.getEntries().forEach(({ duration }) => seen.tasks.push(duration)),
    ).observe({
      type: 'longtask',
    });
  });

const frames = (page: Page) =>
  page.getByTestId('night').evaluate((canvas: HTMLCanvasElement) => Number(canvas.dataset.frames));

const idle = (page: Page) =>
  page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=night]');
    return canvas?.dataset.busy === 'false' && Number(canvas.dataset.frames) > 0;
  });

/** Drags and reports frames a second, the main thread's long tasks, and how soon the fine frame follows. */
async function drag(
  page: Page,
  name: string,
  from: { x: number; y: number },
  step: { x: number; y: number },
) {
  await watch(page);
  const before = await frames(page);
  const start = performance.now();
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= MOVES; i++) await page.mouse.move(from.x + i * step.x, from.y + i * step.y);
  const made = (await frames(page)) - before;
  const seconds = (performance.now() - start) / 1000;
  await page.mouse.up();
  const released = performance.now();
  await idle(page);
  const settled = performance.now() - released;
  const { tasks } = await page.evaluate(() => (window as unknown as { seen: Watch }).seen);
  const longest = Math.max(0, ...tasks);
  console.log(
    `${name.padEnd(16)} ${(made / seconds).toFixed(1).padStart(6)} frames/s for ${(MOVES / seconds).toFixed(1)} moves/s, ` +
      `fine ${settled.toFixed(0)} ms after release, tasks over 50 ms: ${tasks.length} (longest ${longest.toFixed(0)} ms)`,
  );
}

const { url, browser, close } = await ownBrowser();
const page = await browser.newPage({ viewport: { width: 1980, height: 1280 } });
const opened = performance.now();
await page.goto(`${url}/scenes/ferry-steps`);
await idle(page);
console.log(
  `\nInterface, preview ${await page.getByTestId('night').getAttribute('width')} pixels wide, software-drawn Chromium`,
);
console.log(`open to fine frame, plate not seen before: ${(performance.now() - opened).toFixed(0)} ms\n`);

const track = (await page.getByRole('slider', { name: 'Quay', exact: true }).boundingBox())!;
await drag(
  page,
  'fader',
  { x: track.x + track.width / 2, y: track.y + track.height * (1 - 10 / 14) },
  { x: 0, y: track.height / 2 / MOVES },
);
const drop = (await page.getByRole('button', { name: 'Quay lamp 2', exact: true }).boundingBox())!;
await drag(page, 'lamp', { x: drop.x + drop.width / 2, y: drop.y + drop.height / 2 }, { x: 2, y: 0.7 });
await page.getByRole('button', { name: /^Night/ }).click();
await idle(page);
for (const name of ['Exposure', 'Kelvin', 'Hold bright', 'Even out']) {
  const row = (await page.getByRole('slider', { name, exact: true }).boundingBox())!;
  await drag(
    page,
    name,
    { x: row.x + row.width * 0.2, y: row.y + row.height / 2 },
    { x: (row.width * 0.6) / MOVES, y: 0 },
  );
}

/** Paints a stroke and reports how often the picture shows it growing. */
await page.getByRole('button', { name: /^Mattes/ }).click();
await page.getByRole('button', { name: 'Paint', exact: true }).first().click();
await idle(page);
const view = (await page.getByTestId('marks').boundingBox())!;
// As text: what is handed over as a function would bring names along that only this file's compiler knows.
await page.evaluate(`
  const seen = (window.painted = { draws: 0, frames: 0 });
  const put = CanvasRenderingContext2D.prototype.putImageData;
  CanvasRenderingContext2D.prototype.putImageData = function (...args) {
    if (args[0].width < 600) seen.draws++;
    return put.apply(this, args);
  };
  (function count() {
    seen.frames++;
    requestAnimationFrame(count);
  })();
`);
await watch(page);
const strokeStart = performance.now();
await page.mouse.move(view.x + 0.1 * view.width, view.y + 0.5 * view.height);
await page.mouse.down();
for (let i = 1; i <= 120; i++)
  await page.mouse.move(
    view.x + (0.1 + 0.006 * i) * view.width,
    view.y + (0.5 + 0.2 * Math.sin(i / 9)) * view.height,
  );
const strokeSeconds = (performance.now() - strokeStart) / 1000;
const painted = await page.evaluate(
  () => (window as unknown as { painted: { draws: number; frames: number } }).painted,
);
await page.mouse.up();
const { tasks } = await page.evaluate(() => (window as unknown as { seen: Watch }).seen);
console.log(
  `brush            ${(painted.draws / strokeSeconds).toFixed(1)} parts drawn/s, ${(painted.frames / strokeSeconds).toFixed(1)} frames/s for ${(120 / strokeSeconds).toFixed(1)} moves/s, tasks over 50 ms: ${tasks.length}`,
);

/** Places a picture of 24 megapixels and reports when it is first seen in its place, and when it stands there lit. */
const bytes = await clearPicture();
const file = join(tmpdir(), 'sundew-placed.png');
await writeFile(file, bytes);
const bare = await medianTime(3, () => sharp(bytes).raw().toBuffer());
await page.getByRole('button', { name: /^Placed pictures/ }).click();
await page.evaluate(() => document.body.insertAdjacentHTML('beforeend', '<input type=file id=bare>'));
const input = page.locator('#bare');
await input.setInputFiles(file);
/** What the browser takes to decode it and do nothing else. */
const own = await medianTime(3, () =>
  input.evaluate(async ({ files }: HTMLInputElement) => (await createImageBitmap(files![0])).close()),
);
const placing = performance.now();
await page.getByLabel('A picture to place').setInputFiles(file);
await page.getByRole('img', { name: 'sundew-placed.png, on its way in' }).waitFor();
const seen = performance.now() - placing;
await page.getByRole('button', { name: 'sundew-placed, foot' }).waitFor();
await idle(page);
const times = (took: number) => `${took.toFixed(0)} ms, ${(took / bare).toFixed(1)} x`;
console.log(
  `placed, 24 megapixels: first seen after ${times(seen)} libvips’ decode (${(seen / own).toFixed(1)} x the browser’s own, ${own.toFixed(0)} ms), lit after ${times(performance.now() - placing)}`,
);
await rm(file);
await close();
process.exit(0);
