import { AxeBuilder } from '@axe-core/playwright';
import { expect, openStage, ownDemo, saved, SEARCHED, test } from './support.js';
import type { APIRequestContext, Page } from '@playwright/test';

interface Placement {
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
  readonly length: number;
  readonly width: number;
  readonly shape?: readonly (readonly number[])[];
  readonly part: string;
  readonly spoiled: boolean;
  readonly locked: boolean;
}
interface Kept {
  readonly material: string;
  readonly sheets: readonly {
    readonly id: string;
    readonly done: readonly string[];
    readonly placements: readonly Placement[];
  }[];
}
interface Cutting {
  readonly keptPlans: readonly Kept[];
  readonly waste: readonly { readonly part: string; readonly reason: string; readonly remedy: string }[];
  readonly offcuts: readonly { readonly id: string; readonly length: number }[];
}

async function cuttingOf(request: APIRequestContext, id: string): Promise<Cutting> {
  return ((await (await request.get(`/api/projects/${id}`)).json()) as { project: Cutting }).project;
}
const kept = (cutting: Cutting, material: string): Kept => {
  const plan = cutting.keptPlans.find((candidate) => candidate.material === material);
  if (!plan) throw new Error(`nothing kept of ${material}`);
  return plan;
};
const choose = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Materials' }).getByRole('button', { name }).click();

test('a sheet is cut at the bench, one cut at a time, and one part wrong', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'cut');
  await choose(page, 'Birch plywood 15');
  const before = kept(await cuttingOf(request, id), 'birch-15');
  await page.keyboard.press('b');
  const bench = page.getByRole('main', { name: 'Bench view' });
  await expect(bench).toBeVisible();
  const numeral = bench.locator('.bench-numeral');
  expect(await numeral.evaluate((element) => parseFloat(getComputedStyle(element).fontSize))).toBeGreaterThanOrEqual(
    64,
  );

  // by button and by key, until the second sheet is in pieces
  const counter = bench.locator('.bench-head .figures');
  const number = async (): Promise<number> => Number(/cut (\d+) of/.exec((await counter.textContent()) ?? '')?.[1]);
  const first = await number();
  await bench.getByRole('button', { name: 'Done' }).click();
  await expect.poll(number).toBe(first + 1);
  await bench.focus();
  await page.keyboard.press('Enter');
  await expect.poll(number).toBe(first + 2);
  await page.keyboard.press('ArrowLeft');
  await expect.poll(number).toBe(first + 1);
  for (let i = 0; i < 60; i += 1) {
    const cutting = await cuttingOf(request, id);
    const begun = kept(cutting, 'birch-15').sheets.filter((sheet) => sheet.done.length > 0);
    const text = await counter.textContent();
    if (begun.length > 1 && begun.some((sheet) => sheet.done.length >= 9)) break;
    await bench.getByRole('button', { name: 'Done' }).click();
    await expect(counter).not.toHaveText(text ?? '');
    await saved(page);
  }
  await saved(page);
  const middle = kept(await cuttingOf(request, id), 'birch-15');
  // what is begun is where it was
  const laid = (plan: typeof middle): string[] =>
    plan.sheets
      .map(({ placements }) =>
        JSON.stringify(placements.map(({ part, x, y, turned, length, width }) => [part, x, y, turned, length, width])),
      )
      .sort();
  expect(laid(middle)).toEqual(laid(before));
  // and what was drawn on what is sawn now is kept with it: nothing for a rectangle, else its corners
  const shapes = new Map(middle.sheets.flatMap(({ placements }) => placements.map(({ part, shape }) => [part, shape])));
  expect(shapes.get('bench.bottom')).toEqual([]);
  expect(shapes.get('kitchen.bottom')?.[0]?.length).toBeGreaterThan(8);

  // a part comes out wrong: the reason is asked for, nothing typed is lost
  await bench.getByRole('button', { name: 'Cut wrong' }).click();
  await bench.getByRole('button', { name: 'Record it' }).click();
  await expect(bench).toContainText('Say in a few words what happened');
  await bench.getByLabel('What happened').fill('fence slipped, 4 short');
  await bench.getByRole('combobox', { name: 'What to do with it' }).click();
  await page.getByRole('option', { name: /keep this piece for something smaller/ }).click();
  await bench.getByLabel('Piece as it is, along the grain, mm').fill('300');
  await bench.getByLabel('Piece as it is, along the grain, mm').press('Enter');
  const wrongPart = (await bench.getByRole('combobox', { name: 'Part' }).textContent()) ?? '';
  await bench.getByRole('button', { name: 'Record it' }).click();
  await expect(bench.getByRole('status')).toContainText(`${wrongPart} is now cut from`);
  await saved(page);
  const after = await cuttingOf(request, id);
  expect(after.waste.at(-1)).toMatchObject({ part: wrongPart, reason: 'fence slipped, 4 short', remedy: 'smaller' });
  expect(after.offcuts.some((offcut) => offcut.length === 300)).toBe(true);
  const spoiled = kept(after, 'birch-15')
    .sheets.flatMap((sheet) => sheet.placements)
    .filter((placed) => placed.spoiled);
  expect(spoiled.map((placed) => placed.part)).toContain(wrongPart);

  // all of it can be undone
  await bench.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('u');
  await saved(page);
  expect((await cuttingOf(request, id)).waste.map((entry) => entry.part)).not.toContain(wrongPart);
});

test('a part is moved by hand, locked, and the rest found again around it', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'cut');
  await choose(page, 'Birch plywood 15');
  // the first part of the first sheet for which there is another free place
  const places = page.getByRole('button', { name: /^sheet [A-Z], at/ });
  let part = '';
  for (const sheet of ['B', 'C', 'D', 'E']) {
    await page.getByRole('button', { name: new RegExp(`Birch plywood 15, sheet ${sheet}`) }).click();
    for (const move of await page.getByRole('button', { name: /^Move / }).all()) {
      part = ((await move.getAttribute('aria-label')) ?? '').replace('Move ', '');
      await move.focus();
      await page.keyboard.press('Enter');
      await expect(page.getByText(/could go\. A moved part|no other free place/)).toBeVisible();
      if ((await places.count()) > 0) break;
      await page.keyboard.press('Enter');
    }
    if ((await places.count()) > 0) break;
  }
  await places.first().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tabpanel').getByRole('status')).toContainText(`${part} moved`);
  await saved(page);
  const at = (cutting: Cutting) =>
    kept(cutting, 'birch-15')
      .sheets.flatMap((sheet) => sheet.placements)
      .find((placed) => placed.part === part);
  const moved = at(await cuttingOf(request, id));
  expect(moved).toMatchObject({ locked: true });
  await page.getByRole('button', { name: 'Search for fewer sheets' }).click();
  await expect(page.getByRole('button', { name: 'Search for fewer sheets' })).toBeVisible(SEARCHED);
  await saved(page);
  expect(at(await cuttingOf(request, id))).toEqual(moved);
});

test('an offcut is put in stock and used; a part waits for its reading', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'cut');
  await choose(page, 'Birch plywood 18');
  await page.getByRole('tab', { name: 'Offcuts' }).click();
  const panel = page.getByRole('tabpanel');
  await panel.getByRole('combobox', { name: 'Part that waits' }).click();
  await page.getByRole('option').first().click();
  await expect(panel).toContainText('waits for its reading');
  await expect(page.getByRole('group', { name: 'Materials' })).toContainText('Birch plywood 18 · 0');
  const length = panel.getByLabel('Length along the grain, mm').last();
  const width = panel.getByLabel('Width, mm').last();
  await length.fill('900');
  await length.press('Enter');
  await width.fill('400');
  await width.press('Enter');
  await expect(panel).toContainText('read: 900 × 400');
  await expect(page.getByRole('group', { name: 'Materials' })).toContainText('Birch plywood 18 · 1');
  // an offcut of that size makes the sheet unnecessary
  await panel.getByLabel('Length along the grain, mm').first().fill('1000');
  await panel.getByLabel('Length along the grain, mm').first().press('Enter');
  await panel.getByLabel('Width, mm').first().fill('450');
  await panel.getByLabel('Width, mm').first().press('Enter');
  await panel.getByLabel('Where it stands').fill('under the bench');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(panel).toContainText('1 000 × 450 under the bench'.replace(' 000', '\u202f000'));
  await page.getByRole('button', { name: 'Search for fewer sheets' }).click();
  await expect(panel).toContainText('planned on', SEARCHED);
});

test('what if: cases side by side, stopped when asked', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'cut');
  await choose(page, 'Birch plywood 18');
  await page.getByRole('tab', { name: 'What if' }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByRole('row', { name: /as it is/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /prices up by 10 %/ })).toBeVisible();
  const results = await new AxeBuilder({ page }).analyze();
  expect(results.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
});

test('the bench view can be read on a phone, and has no serious findings', async ({ page, request }) => {
  const id = await ownDemo(request);
  await page.setViewportSize({ width: 390, height: 844 });
  await openStage(page, id, 'cut');
  await page.getByRole('button', { name: 'Bench view' }).click();
  await expect(page.locator('.bench-button.main')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBe(0);
  const results = await new AxeBuilder({ page }).analyze();
  expect(results.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
});

test('a label leads to its part', async ({ page, request }) => {
  const id = await ownDemo(request);
  await page.goto(`/build/${id}/build?part=bench.top`);
  await expect(page.locator('.side')).toContainText(/Top/);
  await expect(page.getByRole('button', { name: 'Bench', exact: true })).toHaveAttribute('aria-pressed', 'true');
});
