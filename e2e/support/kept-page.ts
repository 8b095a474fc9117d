import { test as base, type Page } from '@playwright/test';

/**
 * Tests whose page goes on from one to the next, as a window does in which a person opens scene after scene. What the scripts are, and
 * what was found in a plate, need not be made anew. For what is not about a window just opened, nor about a second one.
 */
export const test = base.extend<object, { keptPages: Map<number, Page> }>({
  keptPages: [
    async ({}, use) => {
      const pages = new Map<number, Page>();
      await use(pages);
      for (const page of pages.values()) await page.context().close();
    },
    { scope: 'worker' },
  ],
  page: async ({ browser, keptPages, deviceScaleFactor }, use, info) => {
    const factor = deviceScaleFactor ?? 1;
    const page = keptPages.get(factor) ?? (await browser.newPage());
    keptPages.set(factor, page);
    await use(page);
    if (info.status === info.expectedStatus && !(await leavesSomething(page))) return;
    keptPages.delete(factor);
    await page.context().close();
  },
});

/** Whether a test leaves on its page what the next one would meet. What the browser was asked to remember is forgotten. */
async function leavesSomething(page: Page): Promise<boolean> {
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.mouse.up();
  return page.evaluate(() => {
    localStorage.clear();
    return document.querySelector('[role=alert], [role=dialog], .mantine-Notification-root') !== null;
  });
}
