import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  drawThrough,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  setFader,
  setRow,
  toneAt,
  warmth,
} from './support/editor';
import { test } from './support/kept-page';

/** Dark paving of the ferry steps, away from lamps. */
const FROM = [0.12, 0.85] as const;
const TO = [0.3, 0.88] as const;
const ON = [0.2, 0.864] as const;
const SKY = [0.3, 0.08] as const;

async function openTouch(page: Page, id: string): Promise<void> {
  await openEditor(page, id);
  await openStep(page, /^Touch/);
  await page.getByLabel('What pressure sets').selectOption('none');
  await setRow(page, 'Brush size', '0.04');
  await setRow(page, 'Flow', '0.2');
}

async function stroke(page: Page, places: readonly (readonly number[])[] = [FROM, TO]): Promise<void> {
  await drawThrough(page, places);
  await pictureReady(page);
}

const strokes = (page: Page) => page.getByRole('button', { name: /^Stroke \d+/ });
const tone = async (page: Page) => brightness(await toneAt(page, ...ON));

/** What the brush shows at a place while a stroke is under way, over the night: red, green, blue and whether it shows anything. */
const liveAt = (page: Page, u: number, v: number) =>
  page
    .getByTestId('live')
    .evaluate(
      (live: HTMLCanvasElement, [u, v]) => [
        ...live.getContext('2d')!.getImageData(u * live.width, v * live.height, 1, 1).data,
      ],
      [u, v],
    );

test('light is laid on stroke by stroke, follows the brush, and stays after a reload', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openTouch(page, id);
  const dark = await toneAt(page, ...ON);
  const [from, to] = [await onPicture(page, ...FROM), await onPicture(page, ...TO)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 12 });
  // The light is there before the stroke is let go.
  await expect.poll(async () => (await liveAt(page, ...ON))[3]).toBe(255);
  const live = await liveAt(page, ...ON);
  await page.mouse.up();
  await pictureReady(page);
  const lit = await toneAt(page, ...ON, 0.002);
  expect(brightness(lit)).toBeGreaterThan(brightness(dark) + 12);
  expect(warmth(lit)).toBeGreaterThan(warmth(dark) + 5);
  expect(Math.abs(lit.g - live[1])).toBeLessThan(12);
  const once = await tone(page);
  await stroke(page);
  const twice = await tone(page);
  expect(twice).toBeGreaterThan(once + 4);
  await expect(strokes(page)).toHaveCount(2);
  await saved(page);

  await page.reload();
  await pictureReady(page);
  expect(Math.abs((await tone(page)) - twice)).toBeLessThan(1.5);
  await page.keyboard.press('Control+z');
  await pictureReady(page);
  expect(Math.abs((await tone(page)) - once)).toBeLessThan(1.5);
});

test('any stroke is weakened, recoloured, put on another circuit or removed later', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openTouch(page, id);
  const dark = await tone(page);
  await stroke(page);
  await stroke(page);
  const both = await tone(page);
  await strokes(page).first().click();
  await setRow(page, 'Strength', '0.3');
  const weaker = await tone(page);
  expect(weaker).toBeLessThan(both - 2);
  await page.getByRole('button', { name: 'Make it a touch of its own' }).click();
  await pictureReady(page);
  await page.getByRole('button', { name: 'Frost' }).click();
  await pictureReady(page);
  await page.getByLabel('Circuit of the touch').selectOption({ label: 'A new circuit' });
  await pictureReady(page);
  await page.getByRole('button', { name: 'Remove the touch' }).click();
  await pictureReady(page);
  await expect(page.getByRole('list', { name: 'Touches' }).getByRole('button')).toHaveCount(1);
  expect(await tone(page)).toBeGreaterThan(dark + 8);
  await page.getByRole('list', { name: 'Touches' }).getByRole('button').click();
  await strokes(page).click();
  await page.getByRole('button', { name: 'Remove the stroke' }).click();
  await pictureReady(page);
  expect(Math.abs((await tone(page)) - dark)).toBeLessThan(1.5);
});

test('a touch dims with its circuit, glows in the air, lifts, and is taken off again', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openTouch(page, id);
  const dark = await tone(page);
  await stroke(page);
  const lit = await tone(page);
  await setFader(page, 'Master', '-6');
  expect(await tone(page)).toBeLessThan(lit - 8);
  await setFader(page, 'Master', '0');
  await page.getByText('Take off', { exact: true }).click();
  await setRow(page, 'Flow', '0.9');
  await stroke(page);
  expect(await tone(page)).toBeLessThan(dark + 4);
  await setRow(page, 'Flow', '0.2');
  await page.getByText('Lay on', { exact: true }).click();

  const sky = brightness(await toneAt(page, ...SKY));
  await page.getByText('In the air').click();
  await stroke(page, [
    [0.2, 0.08],
    [0.4, 0.08],
  ]);
  expect(brightness(await toneAt(page, ...SKY))).toBeGreaterThan(sky + 15);
  await page.getByText('Lift and hold').click();
  await stroke(page);
  expect(await tone(page)).toBeGreaterThan(dark + 1);
  await setRow(page, 'Amount', '-3');
  expect(await tone(page)).toBeLessThan(dark - 1);
});

test('a pen’s pressure sets the flow, keys lay dabs, and the wheel sets the size', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openTouch(page, id);
  await page.getByLabel('What pressure sets').selectOption('flow');
  const marks = page.getByTestId('marks');
  async function penStroke(v: number, pressure: number): Promise<void> {
    const send = async (type: string, u: number) => {
      const { x, y } = await onPicture(page, u, v);
      const at = {
        clientX: x,
        clientY: y,
        bubbles: true,
        pointerId: 1,
        pointerType: 'pen',
        pressure,
        button: 0,
      };
      await marks.dispatchEvent(type, at);
    };
    await send('pointerdown', 0.1);
    for (const u of [0.15, 0.2, 0.25, 0.3]) await send('pointermove', u);
    await send('pointerup', 0.3);
    await pictureReady(page);
  }
  const at = async (v: number) => brightness(await toneAt(page, 0.2, v));
  const before = [await at(0.8), await at(0.92)];
  await penStroke(0.8, 1);
  await penStroke(0.92, 0.1);
  const gained = [(await at(0.8)) - before[0], (await at(0.92)) - before[1]];
  expect(gained[0]).toBeGreaterThan(2 * gained[1]);

  const key = page.getByRole('button', { name: /^Brush/ });
  await key.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Enter');
  await pictureReady(page);
  await expect(strokes(page)).toHaveCount(3);
  const place = await onPicture(page, 0.5, 0.3);
  await page.mouse.move(place.x, place.y);
  await page.keyboard.down('Alt');
  await page.mouse.wheel(0, -100);
  await page.keyboard.up('Alt');
  await saved(page);
  await key.focus();
  await page.keyboard.press('Enter');
  await saved(page);
  const [touch] = (await sceneOf(request, id)).scene.touches;
  expect(touch.strokes.map(({ size }) => Number(size.toFixed(4)))).toEqual([0.04, 0.04, 0.04, 0.0448]);
});
