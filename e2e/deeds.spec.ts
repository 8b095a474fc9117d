import { expect, type Page } from '@playwright/test';
import {
  brightness,
  copyOf,
  onPicture,
  openEditor,
  openStep,
  pictureReady,
  saved,
  sceneOf,
  toneAt,
  typeNumber,
  warmth,
} from './support/editor';
import { test } from './support/kept-page';

const lamp = (page: Page, name: string) => page.getByRole('button', { name, exact: true });

test('faders of sky, haze and warmth change what they say, at once, and cues keep them', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const [sky, paving] = [() => toneAt(page, 0.3, 0.08), () => toneAt(page, 0.47, 0.72)];
  const before = { sky: brightness(await sky()), paving: brightness(await paving()) };
  const set = async (label: string, value: string) => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press('Enter');
    await pictureReady(page);
  };
  await set('Sky, stops', '-2');
  expect(brightness(await sky())).toBeLessThan(before.sky - 8);
  expect(Math.abs(brightness(await paving()) - before.paving)).toBeLessThan(1);
  const cues = page.getByRole('region', { name: 'Cues' });
  await cues.getByRole('button', { name: 'keep this' }).click();
  await page.getByRole('button', { name: /^Quay, 2 fixtures/ }).click();
  const warm = warmth(await paving());
  await set('Quay warmth, mired', '-120');
  expect(warmth(await paving())).toBeLessThan(warm - 10);
  await set('Sky, stops', '1');
  const cool = { paving: warmth(await paving()), sky: brightness(await sky()) };

  // Held, the cue shows; let go, the desk is as it was, and nothing was saved of it.
  const look = cues.getByRole('button', { name: 'Look at Cue 1 while held' });
  await look.hover();
  await page.mouse.down();
  await pictureReady(page);
  await expect.poll(async () => warmth(await paving())).toBeGreaterThan(cool.paving + 10);
  expect(brightness(await sky())).toBeLessThan(cool.sky - 10);
  await page.mouse.up();
  await expect.poll(async () => brightness(await sky())).toBeCloseTo(cool.sky, 0);
  await saved(page);
  const { desk, circuits } = (await sceneOf(request, id)).scene;
  expect([desk.sky, circuits[0].warmth]).toEqual([1, -120]);
});

test('circuits change places by keys and by hand, and fixtures go from one to another', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  await lamp(page, 'Quay lamp 2').click();
  await page.getByLabel('Circuit', { exact: true }).selectOption('A new circuit');
  const names = async () => {
    await saved(page);
    return (await sceneOf(request, id)).scene.circuits.map(({ name }) => name);
  };
  expect(await names()).toEqual(['Quay', 'Circuit 1']);
  await page.getByRole('slider', { name: 'Circuit 1', exact: true }).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  expect(await names()).toEqual(['Circuit 1', 'Quay']);
  const strip = (name: string) => page.getByRole('region', { name: `Circuit ${name}`, exact: true });
  await strip('Quay')
    .getByRole('button', { name: /^Quay,/ })
    .dragTo(strip('Circuit 1'));
  expect(await names()).toEqual(['Quay', 'Circuit 1']);
  await strip('Circuit 1')
    .getByRole('button', { name: /^Circuit 1,/ })
    .click();
  await page
    .getByRole('group', { name: 'Fixtures of Circuit 1' })
    .getByRole('button', { name: 'Quay lamp 2' })
    .dragTo(strip('Quay'));
  expect(await names()).toEqual(['Quay']);
  await page.keyboard.press('Control+z');
  expect(await names()).toEqual(['Quay', 'Circuit 1']);
});

test('several fixtures are chosen, nudged, set and copied into a scene of another ground plan', async ({
  page,
  request,
}) => {
  const [id, other] = [await copyOf(request, 'ferry-steps'), await copyOf(request, 'tannery-court')];
  await openEditor(page, id);
  const { fixtures: before } = (await sceneOf(request, id)).scene;
  await lamp(page, 'Quay lamp 2').click();
  await lamp(page, 'Quay lamp 3').click({ modifiers: ['Shift'] });
  await expect(page.getByText('2 fixtures are chosen')).toBeVisible();
  await lamp(page, 'Quay lamp 2').focus();
  await page.keyboard.press('ArrowRight');
  await typeNumber(page, 'Halo', 2);
  await saved(page);
  const { fixtures } = (await sceneOf(request, id)).scene;
  fixtures.slice(0, 2).forEach((fixture, i) => {
    expect(fixture.at.u).toBeCloseTo(before[i].at.u + 0.001, 6);
    expect(fixture.foot.u).toBeCloseTo(before[i].foot.u + 0.001, 6);
    expect(fixture.halo).toBe(2);
  });
  await lamp(page, 'Quay lamp 2').focus();
  await page.keyboard.press('Control+c');
  await expect(page.getByText('2 fixtures copied.')).toBeVisible();

  await openEditor(page, other);
  await page.keyboard.press('Control+v');
  await expect(page.getByText('This ground plan is another')).toBeVisible();
  await pictureReady(page);
  await saved(page);
  const { scene } = await sceneOf(request, other);
  expect(scene.fixtures.map(({ kind }) => kind)).toEqual(['globe', 'globe']);
  expect(scene.circuits.map(({ name }) => name)).toEqual(['Quay']);
  expect(
    brightness(await toneAt(page, scene.fixtures[0].at.u, scene.fixtures[0].at.v, 0.004)),
  ).toBeGreaterThan(150);
  await lamp(page, scene.fixtures[0].name).focus();
  await page.keyboard.press('Delete');
  await saved(page);
  expect((await sceneOf(request, other)).scene.fixtures).toEqual([]);
});

test('everything is done by its name', async ({ page, request }) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const say = async (name: string) => {
    await page.keyboard.press('/');
    await page.getByLabel('Do anything by name').fill(name);
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Do anything by name')).toHaveCount(0);
  };
  const paving = async () => brightness(await toneAt(page, 0.47, 0.72));
  const lit = await paving();
  await say('Mute Quay');
  await pictureReady(page);
  expect(await paving()).toBeLessThan(lit - 15);
  await say('Undo');
  await pictureReady(page);
  expect(await paving()).toBeCloseTo(lit, 0);
  await say('Choose all on Quay');
  await expect(page.getByText('2 fixtures are chosen')).toBeVisible();
  await say('Light next: fire');
  await expect(page.getByRole('radio', { name: 'fire' })).toBeChecked();
  await say('Open Ground plan');
  await expect(page.getByLabel('Eye height, value')).toBeVisible();
  await page.keyboard.press('/');
  await page.getByLabel('Do anything by name').fill('zzz');
  await expect(page.getByText('Nothing is called that here.')).toBeVisible();
  await page.keyboard.press('Escape');
});

test('the list of deeds goes with its scene', async ({ page }) => {
  const asked = page.getByLabel('Do anything by name');
  await page.goto('/');
  for (const title of ['Ferry steps', 'Tannery court']) {
    await page.getByRole('link', { name: `Open ${title}`, exact: true }).click();
    await page.waitForURL(/\/scenes\//);
    await pictureReady(page);
    await expect(asked).toHaveCount(0);
    await page.keyboard.press('/');
    await expect(asked).toBeVisible();
    await page.goBack();
    await expect(page.getByRole('link', { name: 'Open Ferry steps', exact: true })).toBeVisible();
    await expect(asked).toHaveCount(0);
  }
});

test('a circuit that is soloed and loses its last fixture leaves the others burning', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  await openEditor(page, id);
  const paving = async () => brightness(await toneAt(page, 0.47, 0.72));
  const lit = await paving();
  await openStep(page, /^Fixtures/);
  await page.getByRole('radio', { name: 'globe', exact: true }).click();
  const at = await onPicture(page, 0.9, 0.3);
  await page.mouse.click(at.x, at.y);
  await page.getByLabel('Circuit', { exact: true }).selectOption('A new circuit');
  await page.getByRole('button', { name: 'Solo Circuit 1' }).click();
  await pictureReady(page);
  expect(await paving()).toBeLessThan(lit - 15);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await pictureReady(page);
  expect(await paving()).toBeCloseTo(lit, 0);
});
