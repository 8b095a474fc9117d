import { chromium, type Page } from '@playwright/test';
import { ownServer } from '../e2e/support/server';
import { onPicture, openEditor, pictureReady } from '../e2e/support/editor';
import { findChromium } from './chromium.mjs';

/** Takes the pictures of the main views that the README shows, with the demo data, into docs/screenshots. */
const PORT = 4396;
const FOLDER = 'docs/screenshots';

const server = await ownServer(PORT, 'demo');
await server.start();
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
const page = await context.newPage();

/** Waits until fonts and fades are done, then takes the picture. */
async function shoot(name: string, on: Page = page): Promise<void> {
  await on.evaluate(() => document.fonts.ready);
  await on.waitForFunction(() => document.getAnimations().every(({ playState }) => playState !== 'running'));
  await on.screenshot({ path: `${FOLDER}/${name}.png` });
}

await openEditor(page, 'picture-house');
await page.getByRole('button', { name: 'Neon V', exact: true }).focus();
await page.keyboard.press('Enter');
await page.mouse.move(760, 500);
await pictureReady(page);
await shoot('neon');

await openEditor(page, 'tannery-court');
await page.getByRole('button', { name: 'Lantern', exact: true }).focus();
await page.keyboard.press('Enter');
await page.getByRole('button', { name: /^Grip/ }).click();
await page.locator('[data-testid=grip] path[d^="M0 50"]').waitFor();
await page.mouse.move(100, 730);
await pictureReady(page);
await shoot('court');

await page.keyboard.press('Escape');
await page
  .getByRole('button', { name: /^Placed pictures/ })
  .first()
  .click();
await page.getByRole('list', { name: 'Placed pictures' }).getByRole('button').first().click();
await page.mouse.move(100, 730);
await pictureReady(page);
await shoot('placed');

await openEditor(page, 'brickyard-lane');
await page.getByRole('button', { name: 'Van headlamps', exact: true }).focus();
await page.keyboard.press('Enter');
await page.mouse.move(760, 300);
await pictureReady(page);
await shoot('lane');

await page.keyboard.press('Escape');
await page.getByRole('button', { name: /^Sky/ }).first().click();
await page.getByRole('complementary').getByRole('button', { name: /^Moon/ }).click();
await page.mouse.move(100, 730);
await pictureReady(page);
await shoot('sky');

await page
  .getByRole('button', { name: /^Touch/ })
  .first()
  .click();
await page
  .getByRole('complementary')
  .getByRole('button', { name: /^Drifts/ })
  .click();
await page.getByRole('list', { name: 'Drifts' }).getByRole('button').first().click();
await page.mouse.move(760, 200);
await pictureReady(page);
await shoot('drifts');

await openEditor(page, 'tannery-court-storm');
await page.getByRole('button', { name: /^Fixtures/ }).click();
await page.mouse.move(100, 730);
await pictureReady(page);
await shoot('storm');

await openEditor(page, 'ferry-steps');
await page.getByRole('button', { name: 'Quay lamp 1', exact: true }).focus();
await page.keyboard.press('Enter');
await page.mouse.move(760, 560);
await pictureReady(page);
await shoot('fixtures');

await page.keyboard.press('Escape');
await page.getByRole('button', { name: /^Lens/ }).first().click();
await page.mouse.move(100, 730);
await pictureReady(page);
await shoot('lens');

await openEditor(page, 'ferry-steps');
await page
  .getByRole('button', { name: /^Touch/ })
  .first()
  .click();
await page.getByRole('list', { name: 'Touches' }).getByRole('button').first().click();
await page.mouse.move(660, 420);
await pictureReady(page);
await shoot('touch');

await page.getByRole('button', { name: /^Mattes/ }).click();
await page
  .getByRole('button', { name: /^Traveller/ })
  .first()
  .click();
await pictureReady(page);
await page.mouse.move(760, 730);
// The thumbnails follow the picture after a rest.
await page.waitForFunction(() =>
  [...document.querySelectorAll<HTMLCanvasElement>('[aria-label=Mattes] canvas')].every((canvas) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return data.some((value, i) => i % 4 === 0 && value > 128);
  }),
);
await shoot('mattes');

await page.getByRole('button', { name: /^Ground plan/ }).click();
await page
  .getByRole('list', { name: 'Surfaces' })
  .getByRole('button', { name: /^Kiosk wall/ })
  .click();
await pictureReady(page);
await page.mouse.move(560, 400);
await shoot('ground-plan');
await page.getByRole('button', { name: 'Say what is what' }).click();
await page.getByTestId('place-tint').waitFor();
await page.mouse.move(760, 480);
await shoot('say');
await page.keyboard.press('Escape');

await page.getByRole('button', { name: /^Night/ }).click();
await page.getByRole('button', { name: 'Start from a nocturne' }).click();
await page.getByRole('button', { name: 'Blue hour', exact: true }).click();
await pictureReady(page);
await page.waitForFunction(() => [...document.images].every((image) => image.complete));
await page.mouse.move(760, 730);
await shoot('nocturnes');
await page.getByRole('button', { name: 'Start from a nocturne' }).click();
await page.getByRole('button', { name: /^Tones/ }).click();
await page.keyboard.press('v');
const paving = await onPicture(page, 0.49, 0.72);
await page.mouse.move(paving.x, paving.y);
await page.getByTestId('probe').getByText('lx').waitFor();
await shoot('night');
await page.keyboard.press('v');

await page.getByRole('button', { name: /^Frame/ }).click();
await page.getByLabel('Turn, value', { exact: true }).fill('-2');
await page.keyboard.press('Enter');
await page.getByLabel('Ratio').selectOption(String(5 / 4));
await pictureReady(page);
await page.mouse.move(760, 300);
await shoot('frame');
await page.getByRole('button', { name: 'The whole plate' }).click();

await page.getByRole('button', { name: /^Output/ }).click();
const download = page.waitForEvent('download');
await page.getByRole('button', { name: /^Send out/ }).click();
await download;
await page.getByRole('button', { name: /^Switching on/ }).click();
await page.getByRole('button', { name: /^Send out \d+ pictures/ }).scrollIntoViewIfNeeded();
await shoot('output');

await page.goto('/', { waitUntil: 'domcontentloaded' });
const isWhole = () => document.images.length > 0 && [...document.images].every((image) => image.complete);
await page.waitForFunction(isWhole, undefined, { timeout: 120_000 });
const card = (await page.getByRole('link', { name: 'Open Ferry steps' }).boundingBox())!;
await page.mouse.move(card.x + card.width * 0.45, card.y + card.height / 2);
await shoot('scenes');

// Where nothing is to move, the pop-up stands still.
await page.emulateMedia({ reducedMotion: 'reduce' });
await page.locator('input[type=file]').first().setInputFiles('demo/plates/market-row.jpg');
await page.waitForURL('**/scenes/**');
await page.getByRole('region', { name: 'First guess' }).getByText('things that stand').waitFor();
await pictureReady(page);
await page.waitForFunction(
  () => Number(document.querySelector<HTMLCanvasElement>('[data-testid=pop-up]')?.dataset.frames) > 0,
);
await shoot('first-guess');

await browser.close();
await server.kill();
process.exit(0);
