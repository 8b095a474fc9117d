import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  dragOn,
  onPicture,
  openEditor,
  openPart,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  setFader,
  setRow,
  toneAt,
} from './support/editor';
import { test } from './support/kept-page';

/** The near lamp of the ferry steps, and a place on one of its spikes once they lie level. */
const LAMP = { u: 0.486, v: 0.3643 };
const SPIKE = { u: 0.505, v: 0.3643 };

/** Opens a copy of the ferry steps with two strong level spikes on each lamp. */
async function openSpiked(page: Page, id: string): Promise<void> {
  await openEditor(page, id);
  await setFader(page, 'Spikes', '2');
  await openStep(page, /^Lens/);
  await page.getByText('By hand', { exact: true }).click();
  await setRow(page, 'Number', '2');
  await setRow(page, 'Turn', '0');
  await setRow(page, 'Thickness', '0.0020');
}

const sources = (page: Page) => page.getByRole('button', { name: /^Source \d+$/ });
const spikeTone = async (page: Page) => brightness(await toneAt(page, SPIKE.u, SPIKE.v, 0.003));

test('lamps have spikes, on their own fader, that of their circuit, and that of the lens', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const clear = await spikeTone(page);
  await openSpiked(page, id);
  const spiked = await spikeTone(page);
  expect(spiked).toBeGreaterThan(clear + 15);
  await setFader(page, 'Master', '-4');
  expect(await spikeTone(page)).toBeLessThan(spiked - 10);
  await setFader(page, 'Master', '0');
  await setFader(page, 'Spikes', '-2');
  expect(await spikeTone(page)).toBeLessThan(spiked - 8);
  await openPart(page, /^Grain/);
  const smooth = await toneAt(page, 0.3, 0.1, 0.001);
  await setRow(page, 'Sensitivity', '25600');
  expect(await toneAt(page, 0.3, 0.1, 0.001)).not.toEqual(smooth);
});

test('a veil lifts the dark around lamps, as far as it reaches', async ({ page, request }) => {
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  await setFader(page, 'Ambient', '-10');
  const clear = brightness(await toneAt(page, 0.51, 0.22, 0.005));
  await setFader(page, 'Veil', '4');
  expect(brightness(await toneAt(page, 0.51, 0.22, 0.005))).toBeGreaterThan(clear + 3);
});

test('spikes are taken away by a click, and brought back', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSpiked(page, id);
  await openPart(page, /^Sources/);
  await expect(sources(page).first()).toBeVisible();
  const spiked = await spikeTone(page);
  const lamp = await onPicture(page, LAMP.u, LAMP.v);
  await page.mouse.click(lamp.x, lamp.y);
  await pictureReady(page);
  expect(await spikeTone(page)).toBeLessThan(spiked - 15);
  await page.getByRole('button', { name: 'Bring back what was found' }).click();
  await pictureReady(page);
  expect(await spikeTone(page)).toBeCloseTo(spiked, 0);
});

test('a source is added where the picture is clicked: a tube has no spikes of its own', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await page.getByRole('radio', { name: 'tube', exact: true }).click();
  await dragOn(page, [0.7, 0.42], [0.76, 0.42]);
  await openSpiked(page, id);
  await openPart(page, /^Sources/);
  await expect(sources(page)).toHaveCount(2);
  const beside = async () => brightness(await toneAt(page, 0.685, 0.42, 0.003));
  const before = await beside();
  const tube = await onPicture(page, 0.702, 0.42);
  await page.mouse.click(tube.x, tube.y);
  await pictureReady(page);
  await expect(sources(page)).toHaveCount(3);
  expect(await beside()).toBeGreaterThan(before + 2);
  await saved(page);
  expect((await sceneOf(request, id)).scene.lens.points).toHaveLength(1);
  await page.keyboard.press('Control+z');
  await expect(sources(page)).toHaveCount(2);
});

test('a stroke takes the spikes of many sources away, and gives them back', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSpiked(page, id);
  await openPart(page, /^Sources/);
  const [from, to] = [
    [0.43, 0.45],
    [0.52, 0.31],
  ] as const;
  await dragOn(page, from, to);
  await pictureReady(page);
  await saved(page);
  const points = async () => (await sceneOf(request, id)).scene.lens.points;
  const taken = (await points()).length;
  expect(taken).toBeGreaterThanOrEqual(2);
  await page.getByText('Stroke adds', { exact: true }).click();
  await dragOn(page, from, to);
  await saved(page);
  expect(await points()).toHaveLength(0);
});

test('a stroke adds what is bright under it, and several sources are set together', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await openStep(page, /^Fixtures/);
  await page.getByRole('radio', { name: 'tube', exact: true }).click();
  await dragOn(page, [0.7, 0.42], [0.76, 0.42]);
  await openSpiked(page, id);
  await openPart(page, /^Sources/);
  await expect(sources(page)).toHaveCount(2);
  await page.getByText('Stroke adds').click();
  await dragOn(page, [0.69, 0.425], [0.77, 0.425]);
  await expect.poll(() => sources(page).count()).toBeGreaterThan(2);
  const list = page.getByRole('list', { name: 'Sources' }).getByRole('button', { name: /^Source/ });
  await list.nth(0).click();
  await list.nth(1).click({ modifiers: ['Shift'] });
  await expect(page.getByText('2 sources are chosen')).toBeVisible();
  await setRow(page, 'Strength', '-2');
  await saved(page);
  const { points } = (await sceneOf(request, id)).scene.lens;
  expect(points.filter(({ stops }) => stops === -2)).toHaveLength(2);
});

test('a source is parted by a drag, set apart by its own strength, and everything goes by keys', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openSpiked(page, id);
  await openPart(page, /^Sources/);
  await expect(sources(page).first()).toBeVisible();
  const count = await sources(page).count();
  await dragOn(page, [LAMP.u, LAMP.v], [LAMP.u, LAMP.v + 0.012]);
  await expect(sources(page)).toHaveCount(count + 1);
  await page.keyboard.press('Control+z');
  await expect(sources(page)).toHaveCount(count);

  const spiked = await spikeTone(page);
  const mark = sources(page).first();
  await mark.focus();
  for (let k = 0; k < 6; k++) await page.keyboard.press('-');
  await pictureReady(page);
  expect(await spikeTone(page)).toBeLessThan(spiked - 8);
  await expect(page.getByLabel('Strength, value')).toHaveValue(/^−3/);
  await mark.focus();
  await page.keyboard.press('Delete');
  await pictureReady(page);
  await saved(page);
  expect((await sceneOf(request, id)).scene.lens.points.map(({ stops }) => stops)).toEqual([-10]);
});
