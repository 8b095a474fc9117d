import { expect, type FileChooser, type Page } from '@playwright/test';

/** What a person hands over in the browser's dialog for files. */
interface ChosenFile {
  name: string;
  mimeType: string;
  buffer: Buffer;
}

/**
 * Presses a button that asks for a file, and hands one over. Where the browser opens no dialog, as it does not when the press falls
 * between two states of a busy page, it is pressed again, as a person would.
 */
export async function chooseFile(page: Page, button: string, file: ChosenFile): Promise<void> {
  let chooser: FileChooser | undefined;
  const keep = (opened: FileChooser) => (chooser = opened);
  page.on('filechooser', keep);
  await expect(async () => {
    await page.getByRole('button', { name: button }).press('Enter');
    await expect.poll(() => chooser, { timeout: 10_000 }).toBeDefined();
  }).toPass();
  page.off('filechooser', keep);
  await chooser!.setFiles(file);
}
