import type { Page } from '@playwright/test';
import { DRAWN, drawnStreet } from '../../test/drawn-street';
import { chooseFile } from './choose-file';
import { pictureReady } from './editor';

/** Begins a scene with a photo that nobody has seen: the drawn street, its windows with bars or without. Returns its id. */
export async function beginDrawn(page: Page, barred = false): Promise<string> {
  const buffer = await drawnStreet(DRAWN, barred);
  await page.goto('/');
  await chooseFile(page, 'Choose a photo', { name: 'street.jpg', mimeType: 'image/jpeg', buffer });
  await page.waitForURL(/\/scenes\//);
  await pictureReady(page);
  return page.url().split('/').at(-1)!;
}
