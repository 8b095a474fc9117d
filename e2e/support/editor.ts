import { expect, type APIRequestContext, type Page } from '@playwright/test';
import type { OpenScene } from '@/core/scene/opened-scene';

/** A copy of a demo scene for one test to work on. Returns its id. */
export async function copyOf(request: APIRequestContext, id: string): Promise<string> {
  const { scene } = await sceneOf(request, id);
  const answer = await request.post(`/api/scenes/${id}/copy`, { data: { scene } });
  return ((await answer.json()) as { id: string }).id;
}

export async function sceneOf(request: APIRequestContext, id: string): Promise<OpenScene> {
  return (await (await request.get(`/api/scenes/${id}`, { maxRetries: 2 })).json()) as OpenScene;
}

/** Opens a scene in the editor and waits for its picture: from another scene as the application itself does, else by its address. */
export async function openEditor(page: Page, id: string): Promise<void> {
  const path = `/scenes/${id}`;
  if (!(await goesTo(page, path))) await page.goto(path);
  await pictureReady(page);
}

/** Goes from one scene to another without loading the page anew, once the first one is gone. Returns whether there was one to go from. */
async function goesTo(page: Page, path: string): Promise<boolean> {
  const before = page.getByTestId('night');
  if (!/\/scenes\//.test(page.url()) || page.url().endsWith(path) || (await before.count()) === 0)
    return false;
  const night = await before.elementHandle();
  await page.evaluate((to) => (window as unknown as WithRouter).next.router.push(to), path);
  await page.waitForURL(`**${path}`);
  await page.waitForFunction((canvas) => !canvas.isConnected, night);
  return true;
}

/** What the framework lays open of itself. */
interface WithRouter {
  next: { router: { push: (path: string) => void } };
}

/** How long a picture may take before a test gives up: no measure of speed, for the machine may be busy. */
const PATIENCE = { timeout: 90_000 };

/** Waits until the picture shows the finest frame of what the scene is now: looked at in the page, frame by frame. */
export async function pictureReady(page: Page): Promise<void> {
  await page.waitForFunction(
    () => {
      const night = document.querySelector<HTMLElement>('[data-testid=night]');
      return night?.dataset.frames !== undefined && night.dataset.busy === 'false';
    },
    undefined,
    PATIENCE,
  );
}

/** Waits until all is saved: what was done last is on the screen by then. */
export async function saved(page: Page): Promise<void> {
  await page.evaluate(
    () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
  );
  await expect(page.locator('header [role=status]')).toHaveText('saved');
}

/** A place of the picture in page coordinates. */
export async function onPicture(page: Page, u: number, v: number): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId('marks').boundingBox())!;
  return { x: box.x + u * box.width, y: box.y + v * box.height };
}

export async function dragTo(
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
  steps = 8,
): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps });
  await page.mouse.up();
}

/** Opens a step of the worksheet, or a part of one. */
export const openStep = (page: Page, name: RegExp) => page.getByRole('button', { name }).first().click();

/** Drags on the picture from one place to another, and waits for its picture. */
export async function dragOn(
  page: Page,
  from: readonly [u: number, v: number],
  to: readonly [u: number, v: number],
): Promise<void> {
  await dragTo(page, await onPicture(page, ...from), await onPicture(page, ...to));
  await pictureReady(page);
}

/** Draws on the picture through places of it, without letting go between them. */
export async function drawThrough(page: Page, places: readonly (readonly number[])[]): Promise<void> {
  const [from, ...rest] = await Promise.all(places.map(([u, v]) => onPicture(page, u, v)));
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 5 });
  await page.mouse.up();
}

/** Opens a part of the step that is open. */
export const openPart = (page: Page, name: RegExp) =>
  page.getByRole('complementary').getByRole('button', { name }).last().click();

/** Types into a field as it names itself, and waits for its picture. */
async function typeInto(page: Page, label: string, value: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.keyboard.press('Enter');
  await pictureReady(page);
}

/** Sets a row of the worksheet. */
export const setRow = (page: Page, label: string, value: string) => typeInto(page, `${label}, value`, value);

/** Sets a fader of the desk, stops. */
export const setFader = (page: Page, name: string, stops: string) => typeInto(page, `${name}, stops`, stops);

/** The same by a number. */
export const typeNumber = (page: Page, label: string, value: number) => setRow(page, label, String(value));

/** The middle of whatever carries a label. */
export async function middleOf(page: Page, label: string): Promise<{ x: number; y: number }> {
  const box = (await page.getByLabel(label, { exact: true }).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

export interface Tone {
  r: number;
  g: number;
  b: number;
}

/** Mean codes of the night picture in a square around a place. */
export function toneAt(page: Page, u: number, v: number, reach = 0.012): Promise<Tone> {
  return page.getByTestId('night').evaluate(
    (canvas: HTMLCanvasElement, [u, v, reach]) => {
      const half = Math.max(1, Math.round(reach * canvas.width));
      const side = 2 * half + 1;
      const [x, y] = [Math.round(u * canvas.width) - half, Math.round(v * canvas.height) - half];
      const { data } = canvas.getContext('2d')!.getImageData(x, y, side, side);
      const sum = [0, 0, 0];
      for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i];
      const [r, g, b] = sum.map((s) => s / (side * side));
      return { r, g, b };
    },
    [u, v, reach] as const,
  );
}

export const brightness = ({ r, g, b }: Tone) => 0.21 * r + 0.72 * g + 0.07 * b;
export const warmth = ({ r, b }: Tone) => r - b;
