import { AxeBuilder } from '@axe-core/playwright';
import type { APIRequestContext, Page } from '@playwright/test';
import { expect, openStage, ownDemo, saved, test, unfold } from './support.js';

interface Lined {
  readonly linings: {
    readonly left: { readonly seams: readonly number[] | null; readonly school: string };
  };
  readonly floor: { readonly direction: string | null };
  readonly buildUps: { readonly left: readonly { readonly material: string }[] };
  readonly fittings: readonly { readonly id: string; readonly name: string; readonly wired: boolean }[];
  readonly scribes: readonly { readonly part: string; readonly gaps: readonly number[] }[];
  readonly patterns: readonly { readonly name: string; readonly made: readonly { readonly part: string }[] }[];
  readonly measured: readonly { readonly material: string; readonly thickness: number }[];
}
const linedOf = async (request: APIRequestContext, id: string): Promise<Lined> =>
  ((await (await request.get(`/api/projects/${id}`)).json()) as { project: Lined }).project;
const group = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const field = (page: Page, name: string) => page.locator('.side').getByLabel(name, { exact: true });

async function noSeriousFindings(page: Page): Promise<void> {
  const found = await new AxeBuilder({ page }).analyze();
  expect(found.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
}

test('a wall of sheets: a seam is moved by hand, judged, and put back', async ({ page, request }) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'build');
  await group(page, 'Left wall');
  const side = page.locator('.side');
  await expect(side).toContainText('On post 2: both edges are fixed there.');
  await expect(side).toContainText('3 panels, 0.00 m backed');
  await expect(page.locator('[data-piece^="left.panel"]')).toHaveCount(3);
  await noSeriousFindings(page);

  // by typing: between posts it needs a strip behind it
  await unfold(page, 'Seams');
  const seam = field(page, 'Seam 1 from the front, mm');
  await seam.fill('900');
  await seam.press('Enter');
  await expect(side).toContainText('Moved by hand. A strip is glued behind it.');
  await expect(side).toContainText(/3 panels, 1\.\d\d m backed/);
  await expect(side).toContainText('Found: 3 panels, 0.00 m backed');
  await saved(page);
  expect((await linedOf(request, id)).linings.left.seams).toEqual([900, 1999]);

  // out of reach of a sheet: it says so and keeps what was typed
  await seam.fill('300');
  await seam.press('Enter');
  await expect(side).toContainText('A panel is wider than the sheet');
  await side.getByRole('button', { name: 'Back to the seams found' }).click();
  await expect(side).toContainText('On post 2: both edges are fixed there.');

  // by pointer: dragged towards the front, that is to the right on a left wall; it catches on nothing there
  const drawing = page.getByRole('group', { name: 'Left wall, laid flat' });
  const line = drawing.locator('line[stroke=transparent]').first();
  const box = await line.boundingBox();
  if (!box) throw new Error('no seam');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y, { steps: 4 });
  await page.mouse.up();
  await expect(side).toContainText('Moved by hand.');
  await saved(page);
  const moved = (await linedOf(request, id)).linings.left.seams?.[0] ?? 0;
  expect(moved).toBeGreaterThan(850);
  expect(moved).toBeLessThan(1000);
  await page.keyboard.press('u');
  await expect(side).toContainText('On post 2: both edges are fixed there.');
});

test('lamps and cables are cut out where they are said to be, and other ways are held against this one', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'build');
  await group(page, 'Left wall');
  const side = page.locator('.side');
  const list = side.getByRole('region', { name: 'Lamps, outlets, cables' });
  await list.getByLabel('Name').fill('Reading lamp');
  await list.getByRole('button', { name: 'Add' }).click();
  await expect(list.getByRole('button', { name: /Reading lamp/, expanded: true })).toBeVisible();
  const panel = page.locator('[data-piece="left.panel.from-post-2"]');
  await panel.click({ position: { x: 40, y: 40 } });
  await expect(side).toContainText('Reading lamp: ');
  await expect(side).toContainText('hole 60');
  // put where the drawing is pressed: in the middle of that panel, at another height than it was given
  await list.getByRole('button', { name: 'Point at it on the drawing' }).click();
  await expect(list.getByRole('status')).toContainText('Press on the drawing where it is: Reading lamp');
  const box = await panel.boundingBox();
  if (!box) throw new Error('the panel is drawn');
  await page.mouse.click(box.x + box.width * 0.6, box.y + box.height * 0.3);
  await expect(list.getByLabel('Up from the bare floor, mm')).not.toHaveValue('1200');
  await expect(side).toContainText('Reading lamp: ');
  await list.getByLabel('its cable is connected at both ends already').check();
  await expect(side).toContainText('Cut a slot, not a hole: Reading lamp.');
  await saved(page);
  expect((await linedOf(request, id)).fittings).toMatchObject([{ name: 'Reading lamp', wired: true }]);

  const ways = side.locator('section').filter({ hasText: 'Other ways to line it' });
  await ways.getByRole('button', { name: 'Work them out' }).click();
  const boards = ways.getByRole('row').filter({ hasText: 'Grooved pine boards 9' });
  await expect(boards).toBeVisible();
  await expect(ways.getByRole('progressbar')).toHaveCount(0);
  await expect(ways.getByRole('row').filter({ hasText: '✓ now' })).toContainText('large sheets');
  await boards.getByRole('button', { name: 'Take' }).click();
  await expect(page.locator('[data-piece^="left.board"]').first()).toBeVisible();
  await expect(side).toContainText('Story stick from the lower edge');
  await saved(page);
  expect((await linedOf(request, id)).buildUps.left.at(-1)?.material).toBe('boards-9');
});

test('the floor: a hatch where a unit stands is refused in words, the board is laid the other way', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await group(page, 'Floor');
  const side = page.locator('.side');
  await expect(side).toContainText('Before you close the floor');
  await expect(side).toContainText('has to be closed first');
  const hatches = side.locator('section').filter({ hasText: 'A lid over whatever' });
  await hatches.getByLabel('Name').fill('Drain joint');
  await hatches.getByRole('button', { name: 'Add' }).click();
  const across = field(page, 'Right of the centre, mm');
  await across.fill('-800');
  await across.press('Enter');
  await expect(side.getByRole('alert')).toContainText('Drain joint');
  await across.fill('0');
  await across.press('Enter');
  await expect(side.getByRole('alert')).toHaveCount(0);
  for (const layer of ['Screws', 'Finish']) await group(page, layer);
  await side.getByRole('button', { name: 'Work them out' }).click();
  await expect(side.getByRole('row').filter({ hasText: 'largest offcut' }).first()).toBeVisible();
  await side.getByRole('combobox', { name: 'Board runs' }).click();
  await page.getByRole('option', { name: 'along the vehicle' }).click();
  await saved(page);
  expect((await linedOf(request, id)).floor.direction).toBe('along');
  await noSeriousFindings(page);
  await openStage(page, id, 'work');
  await expect(page.locator('.side')).toContainText('First: The leak test is not done');
});

test('a scribed edge: too small a blank is told before it is cut, a pass is logged, a pattern goes out of date', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await group(page, 'Bed');
  await page.locator('[data-part="bed.board-1"]').click();
  const side = page.locator('.side');
  const gaps = side.getByLabel('Gaps along the edge, held in place, mm').first();
  await gaps.fill('4; x');
  await gaps.press('Enter');
  await expect(side.getByText(/“x”/)).toBeVisible();
  await expect(gaps).toHaveValue('4; x');
  await gaps.fill('2; 60; 5');
  await gaps.press('Enter');
  await expect(side).toContainText('The blank is too small by');
  await expect(side.getByRole('button', { name: 'Cut along it and log the pass' }).first()).toBeDisabled();
  await gaps.fill('2; 9; 5');
  await gaps.press('Enter');
  await expect(side).toContainText('comes off: 7; 0; 4');
  await side.getByRole('button', { name: 'Cut along it and log the pass' }).first().click();
  await expect(side).toContainText('1 pass, 7 mm off');
  await saved(page);
  expect((await linedOf(request, id)).scribes).toMatchObject([{ part: 'bed.board-1', gaps: [2, 9, 5] }]);

  await field(page, 'Pattern').fill('Card of the bed’s edge');
  await side.getByRole('button', { name: 'Note it for bed.board-1' }).click();
  await expect(side).toContainText('bed.board-1: still of this shape');
  const scribe = field(page, 'Scribe allowance, mm');
  await scribe.fill('26');
  await scribe.press('Enter');
  await expect(side).toContainText('the pattern is out of date');
});

test('battens are cut from bars, and a sheet’s real thickness goes into everything', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'cut');
  await page
    .getByRole('group', { name: 'Materials' })
    .getByRole('button', { name: /Pine trim/ })
    .click();
  await expect(page.locator('.proof h2')).toContainText('3 bars');
  await expect(page.getByRole('list', { name: 'Fence settings in order' })).toContainText('crosscut at 45°');
  await page
    .getByRole('group', { name: 'Materials' })
    .getByRole('button', { name: /Birch plywood 18/ })
    .click();
  const thickness = field(page, 'Thickness as bought, mm');
  await thickness.fill('17.4');
  await thickness.press('Enter');
  await expect(page.locator('.side')).toContainText('Sold as 18 mm');
  await saved(page);
  expect((await linedOf(request, id)).measured).toEqual([{ material: 'birch-18', thickness: 17.4 }]);
  await thickness.fill('18');
  await thickness.press('Enter');
  await expect(page.locator('.side')).not.toContainText('Sold as 18 mm');
});
