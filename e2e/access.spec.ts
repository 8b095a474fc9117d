import AxeBuilder from '@axe-core/playwright';
import sharp from 'sharp';
import { expect } from '@playwright/test';
import { copyOf, openEditor } from './support/editor';
import { test } from './support/kept-page';

/** What a step changes: the worksheet, and the picture with its marks. */
const STEP = ['aside', 'main'];

test('axe finds nothing serious on any view', async ({ page, request }) => {
  /** Looks at the whole page, or at those parts of it that are others than before. */
  const check = async (view: string, parts: readonly string[] = ['html']) => {
    const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
    for (const part of parts) axe.include(part);
    const { violations } = await axe.analyze();
    const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
    expect(
      serious.map(({ id, nodes }) => `${view}: ${id}: ${nodes.map((node) => node.html).join(' ')}`),
    ).toEqual([]);
  };
  const picture = sharp({ create: { width: 90, height: 90, channels: 3, background: '#888' } });
  const buffer = await picture.png().toBuffer();
  await page.goto('/');
  await expect(page.getByRole('article').first()).toBeVisible();
  await check('scenes');
  await page.getByRole('button', { name: 'Send out several' }).click();
  await page.getByRole('button', { name: 'All of them' }).click();
  await page.getByRole('button', { name: 'Send out…' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await check('several scenes that go out');
  await openEditor(page, await copyOf(request, 'ferry-steps'));
  const steps = ['Frame', 'Night', 'Mattes', 'Ground plan', 'Placed pictures', 'Sky', 'Fixtures'];
  for (const step of [...steps, 'Touch', 'Lens', 'Output']) {
    const head = page.getByRole('button', { name: new RegExp(`^${step}`) });
    if ((await head.getAttribute('aria-expanded')) !== 'true') await head.click();
    await check(step, STEP);
    if (step === 'Placed pictures') {
      await page
        .getByLabel('A picture to place')
        .setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer });
      await expect(page.getByTestId('cut-veil')).toHaveAttribute('data-left', 'true');
      await check('a picture that is cut out');
      await page.getByRole('button', { name: 'Done', exact: true }).click();
      await check('a placed picture', STEP);
    }
    if (step === 'Lens') {
      await page.getByRole('button', { name: /^Sources/ }).click();
      await expect(page.getByRole('button', { name: /^Source 1/ }).first()).toBeVisible();
      await check('sources of the lens', STEP);
    }
    if (step === 'Fixtures') {
      await page.getByRole('button', { name: /^Lamps of another scene/ }).click();
      await page.getByLabel('Scene whose lamps wait').selectOption({ label: 'Picture-house' });
      await expect(page.getByRole('button', { name: 'Take its night, sky, lens and desk' })).toBeVisible();
      await check('lamps of another scene', STEP);
    }
    if (step === 'Output') {
      await page.getByRole('button', { name: /^Switching on/ }).click();
      await check('the lights coming on', STEP);
      await page.getByRole('button', { name: /^Night for other photos/ }).click();
      await check('a night for other photos', STEP);
    }
    if (step !== 'Sky') continue;
    await page.getByText('The hour’s sky', { exact: true }).click();
    await page.getByRole('button', { name: /^Stars/ }).click();
    await check('stars of the sky', STEP);
  }
  await page.getByRole('button', { name: /^Fixtures/ }).click();
  await page.getByRole('button', { name: 'Quay lamp 2', exact: true }).press('Enter');
  await check('a chosen fixture');
  await page.getByRole('button', { name: /^Quay, 2 fixtures/ }).click();
  await check('an open strip');
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await expect(page.getByLabel('Do anything by name')).toBeVisible();
  await check('deeds');
});
