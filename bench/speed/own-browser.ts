import { chromium, type Browser } from '@playwright/test';
import { ownServer } from '../../e2e/support/server';
import { findChromium } from '../../scripts/chromium.mjs';

const PORT = 4396;

/** A server of its own, and a browser that draws in software: what the interface is measured in. `scenes`: with which it begins. */
export async function ownBrowser(
  scenes?: string,
): Promise<{ url: string; browser: Browser; close: () => Promise<void> }> {
  const server = await ownServer(PORT, scenes);
  await server.start();
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
  });
  return {
    url: server.url,
    browser,
    close: async () => {
      await browser.close();
      await server.kill();
    },
  };
}
