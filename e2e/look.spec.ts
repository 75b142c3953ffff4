import { AxeBuilder } from '@axe-core/playwright';
import { expect, openStage, ownDemo, projectOf, ready, saved, test } from './support.js';
import type { Page } from '@playwright/test';

/** Starts a build of one's own from the first page. */
async function ownBuild(page: Page, name: string): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start a build' }).click();
  await page.getByLabel('Name of the build').fill(name);
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await page.waitForURL(/\/measure$/);
  await ready(page);
  return /build\/([^/]+)\//.exec(page.url())?.[1] ?? '';
}

interface Seen {
  readonly survey: {
    readonly ribs: { on: string; rough?: { x: number } }[];
    readonly openings: { kind: string; surface: string; swing: string; rough?: { x: number; along: number } }[];
    readonly keepOuts: { reason: string }[];
    readonly looked?: Record<string, string>;
  };
  readonly people: { stature: number }[];
}

test('a look round: taps on the sketch, the walk asks for what is there, and what is not said is told', async ({
  page,
  request,
}) => {
  const id = await ownBuild(page, 'First van');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What is there?');
  const sketch = page.locator('[data-sketch]');
  const tap = async (x: number, y: number): Promise<void> => {
    const box = await sketch.boundingBox();
    if (!box) throw new Error('no sketch');
    await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
  };
  // two ribs one after the other, without choosing again
  await page.getByRole('button', { name: 'Rib all round' }).click();
  await tap(0.2, 0.4);
  await tap(0.2, 0.7);
  await page.getByRole('button', { name: 'Sliding door' }).click();
  // the floor is no place for a door: nothing comes of it
  await tap(0.5, 0.5);
  await tap(0.8, 0.5);
  await expect(sketch.getByRole('img', { name: 'Sliding door 1' })).toBeVisible();
  const { project } = (await projectOf(request, id)) as unknown as { project: Seen };
  await saved(page);
  // by keyboard: a hatch is only counted, and what is under the floor is said to be nothing
  await page.getByRole('button', { name: 'Roof hatch' }).press('Enter');
  await page.getByRole('button', { name: 'Add one without pointing' }).press('Enter');
  await page.getByLabel('Nothing lies there that a screw could hit').press('Space');
  await expect(page.getByText('Not said yet: who will live in it')).toBeVisible();
  await page.getByRole('button', { name: 'Add an adult' }).press('Enter');
  await expect(page.getByText('Everything is said.')).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations.filter((v) => v.impact === 'serious')).toEqual([]);
  await saved(page);
  const now = ((await projectOf(request, id)) as unknown as { project: Seen }).project;
  expect(project).toBeDefined();
  expect(now.survey.ribs.map(({ on }) => on)).toEqual(['ring', 'ring']);
  expect(now.survey.ribs[1]?.rough?.x ?? 0).toBeGreaterThan(now.survey.ribs[0]?.rough?.x ?? 1);
  expect(now.survey.openings.map(({ kind, surface, swing }) => [kind, surface, swing])).toEqual([
    ['door', 'right', 'slides'],
    ['hatch', 'roof', 'fixed'],
  ]);
  expect(now.survey.openings[1]?.rough).toBeUndefined();
  expect(Object.keys(now.survey.looked ?? {})).toEqual(['under']);
  expect(now.people).toHaveLength(1);
  // the walk has them, and layers and layout say what has no place yet
  await page.getByRole('button', { name: 'Begin the walk' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Floor length');
  await page.goto(`/build/${id}/layout`);
  await ready(page);
  const missing = page.getByRole('region', { name: 'Not known' });
  await expect(missing).toContainText('Rib all round 1');
  await expect(missing).not.toContainText('ribs:');
  await missing.getByRole('link', { name: 'Go on with the walk' }).click();
  await expect(page.getByRole('tab', { name: 'Walk' })).toHaveAttribute('aria-selected', 'true');
});

/** A figure a plain van could have at the place that is asked for. */
function figureFor(asked: string): number {
  const station = /Front datum to Station (\d)/.exec(asked);
  if (station) return (Number(station[1]) - 1) * 600 + 20;
  if (asked.startsWith('Floor length')) return 3400;
  if (asked.startsWith('Front datum to the front')) return 2000;
  if (asked.startsWith('Front datum to the rear')) return 2700;
  if (asked.startsWith('Height')) return 250;
  return asked.includes('arch') ? 650 : 880;
}

test('layers of the whole vehicle are started from one school, and taken back by one undo', async ({
  page,
  request,
}) => {
  const id = await ownBuild(page, 'Layered van');
  await page.goto(`/build/${id}/layers`);
  await ready(page);
  const whole = page.getByRole('region', { name: 'The whole vehicle at once' });
  await whole.getByRole('combobox', { name: 'Floor' }).click();
  await page.getByRole('option', { name: /Glued/ }).click();
  await whole.getByRole('button', { name: 'Start all surfaces' }).click();
  await expect(whole).toHaveCount(0);
  await saved(page);
  const layers = async (): Promise<Record<string, { material: string }[]>> =>
    ((await projectOf(request, id)).project as unknown as { buildUps: Record<string, { material: string }[]> })
      .buildUps;
  const now = await layers();
  expect(now.floor?.map(({ material }) => material)).toEqual(['foam-30', 'birch-12', 'planks-5']);
  for (const surface of ['left', 'right', 'ceiling', 'doors']) expect(now[surface]?.length).toBeGreaterThan(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(whole).toBeVisible();
  await saved(page);
  expect((await layers()).floor ?? []).toEqual([]);
});

test('on a phone twenty readings are typed without scrolling once', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await ownBuild(page, 'Phone van');
  await page.getByRole('tab', { name: 'Walk' }).click();
  const entry = page.locator('.big-entry');
  const take = page.locator('.keypad-take');
  for (let i = 0; i < 20; i += 1) {
    const asked = (await page.getByRole('heading', { level: 1 }).textContent()) ?? '';
    // drawn, typed and taken within the window as it stands
    for (const part of [entry, take, page.getByRole('heading', { level: 1 })]) {
      const box = await part.boundingBox();
      expect(box && box.y >= 94 && box.y + box.height <= 790, `${asked}: ${JSON.stringify(box)}`).toBe(true);
    }
    const drawn = page.locator('.walk-slice svg:visible, .drawing svg:visible').first();
    await expect(drawn).toBeInViewport();
    const value = figureFor(asked);
    for (const digit of String(value)) await page.getByRole('button', { name: digit, exact: true }).click();
    await take.click();
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(asked);
    expect(await page.evaluate(() => window.scrollY)).toBe(0);
  }
  await saved(page);
  const { project } = await projectOf(request, id);
  expect(Object.keys(project.survey.readings)).toHaveLength(20);
});

test('on a phone the figure, its place and all keys of a tape in inches are seen at once', async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await ownDemo(request, 'bulrush');
  await openStage(page, id, 'measure');
  const keys = page.locator('.keypad button');
  await expect(keys).toHaveCount(18);
  for (const part of [page.locator('.big-entry'), keys.first(), keys.last()]) {
    const box = await part.boundingBox();
    expect(box && box.y >= 94 && box.y + box.height <= 790, JSON.stringify(box)).toBe(true);
  }
  // the whole slice, floor and roof
  const slice = await page.locator('.walk-slice svg').boundingBox();
  const drawn = await page.locator('.walk-slice .drawing').boundingBox();
  expect(slice?.height).toBe(drawn?.height);
});
