import { expect, test as base, type APIRequestContext, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

/** Every test fails when the page says something on the console that it should not. */
export const test = base.extend<{ consoleClean: string[] }>({
  consoleClean: [
    async ({ page }, use) => {
      const said: string[] = [];
      page.on('console', (message) => {
        if (message.type() === 'error' || message.type() === 'warning')
          said.push(`${message.type()}: ${message.text()}`);
      });
      page.on('pageerror', (error) => said.push(`fault: ${error.message}`));
      await use(said);
      expect(said).toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

/** Every material of a demo is searched in turn, each for as long as the settings let it. */
export const SEARCHED = { timeout: 150_000 };

const demo = (name: string): string => readFileSync(new URL(`../demo/${name}.json`, import.meta.url), 'utf8');

/** Takes in a demo of the test's own, so that tests do not meet. */
export async function ownDemo(request: APIRequestContext, name = 'wren'): Promise<string> {
  const response = await request.post('/api/projects/import', { data: { text: demo(name) } });
  expect(response.status()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}

/** Opens a stage and waits until everything is worked out. */
export async function openStage(page: Page, id: string, stage: string): Promise<void> {
  await page.goto(`/build/${id}/${stage}`);
  await ready(page);
}

export async function ready(page: Page): Promise<void> {
  await expect(page.locator('.tape-mark').first()).not.toContainText('working it out');
}

/** Waits until the server has acknowledged everything. */
export async function saved(page: Page): Promise<void> {
  await expect(page.locator('.saved')).toHaveAttribute('data-state', 'saved');
}

/** Types into the line and presses Enter. */
export async function say(page: Page, words: string): Promise<void> {
  const line = page.locator('#the-line');
  await line.fill(words);
  await line.press('Enter');
}

export async function projectOf(
  request: APIRequestContext,
  id: string,
): Promise<{
  revision: number;
  project: {
    layout: {
      dens?: { pet: string; at: { x: number; y: number; turned: boolean } }[];
      units: { id: string; body: { x: number; front?: number; to: number } }[];
    };
    survey: { readings: Record<string, { value: number; repeats?: number[] }[]> };
    settings: { units: string };
  };
}> {
  return (await (await request.get(`/api/projects/${id}`)).json()) as never;
}

/** Opens a section that is folded up, by its title. */
export async function unfold(page: Page, title: string): Promise<void> {
  await page.locator('.fold > summary').filter({ hasText: title }).click();
}
