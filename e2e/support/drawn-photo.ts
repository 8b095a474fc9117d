import type { Page } from '@playwright/test';
import { drawnStreet } from '../../test/drawn-street';
import { chooseFile } from './choose-file';
import { pictureReady } from './editor';

/** Begins a scene with a photo that nobody has seen: the drawn street. Returns its id. */
export async function beginDrawn(page: Page): Promise<string> {
  const buffer = await drawnStreet();
  await page.goto('/');
  await chooseFile(page, 'Choose a photo', { name: 'street.jpg', mimeType: 'image/jpeg', buffer });
  await page.waitForURL(/\/scenes\//);
  await pictureReady(page);
  return page.url().split('/').at(-1)!;
}
