import { readFile } from 'node:fs/promises';
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, openStage, ownDemo, saved, test, unfold } from './support.js';

const group = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const section = (page: Page, title: string) =>
  page.locator('.side section').filter({ has: page.getByRole('heading', { name: title, exact: true }) });

async function noSeriousFindings(page: Page): Promise<void> {
  const found = await new AxeBuilder({ page }).analyze();
  expect(found.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
}
async function put(page: Page, title: string, label: string, value: string): Promise<void> {
  const field = section(page, title).getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

test('a place for a high cupboard: the ceiling stops in front of it, the wall says what it hides', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'build');
  await group(page, 'Ceiling');
  const kept = section(page, 'Kept for high cupboards');
  await expect(kept).toContainText('Nothing kept yet.');
  await kept.getByLabel('Name').fill('Chart locker');
  await kept.getByRole('button', { name: 'Add' }).click();
  await expect(page.locator('.side')).toContainText('Chart locker: the ceiling runs through behind it');
  await kept.getByRole('combobox', { name: 'The ceiling' }).click();
  await page.getByRole('option', { name: 'stops in front of it' }).click();
  await expect(page.locator('.side')).toContainText('Chart locker: the ceiling stops in front of it');
  await expect(page.locator('.board').getByText('Chart locker')).toBeVisible();
  await put(page, 'Kept for high cupboards', 'Down from the ceiling, mm', 'deep');
  await expect(kept).toContainText('deep');
  await expect(kept.getByLabel('Down from the ceiling, mm')).toHaveValue('deep');
  await put(page, 'Kept for high cupboards', 'Length, mm', '2900');
  await put(page, 'Kept for high cupboards', 'Down from the ceiling, mm', '900');
  await group(page, 'Left wall');
  await expect(page.locator('.side')).toContainText(/Chart locker would hang \d+ in front of Side window/);
  await noSeriousFindings(page);
  await saved(page);
  await page.getByRole('button', { name: /undo/i }).click();
  await expect(page.locator('.side')).not.toContainText('would hang');
  await kept.getByRole('button', { name: /^Chart locker/ }).click();
  await kept.getByRole('button', { name: 'Remove Chart locker' }).click();
  await expect(page.locator('.board').getByText('Chart locker')).toHaveCount(0);
});

test('a box between wall and ceiling: its corners make its faces, and it says when it hangs before a door', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await group(page, 'Left wall');
  const boxes = section(page, 'Box between wall and ceiling');
  await boxes.getByRole('button', { name: /^Cable loom/ }).click();
  await expect(boxes).toContainText('Face 3:');
  await boxes.getByRole('button', { name: 'Remove corner 2 of Cable loom' }).click();
  await expect(boxes).not.toContainText('Face 3:');
  await boxes.getByRole('button', { name: 'One more corner' }).click();
  await expect(boxes).toContainText('Face 3:');
  await group(page, 'Right wall');
  await boxes.getByLabel('Name').fill('Door rail');
  await boxes.getByRole('button', { name: 'Add' }).click();
  await expect(boxes.getByRole('alert')).toContainText('below the head of Sliding door');
  await saved(page);
  // the boards are parts like any other
  await expect(section(page, 'Parts of it')).toContainText('header board');
});

test('door panels: one for each leaf, their inset, and what waits for a reading', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await group(page, 'Doors');
  const doors = section(page, 'Door panels');
  await expect(doors).toContainText(/Rear doors, left: 730 × 1.670/);
  await expect(page.locator('.board')).toContainText('Rear doors: door panel 2');
  await put(page, 'Door panels', 'Kept back from the edge, mm', '40');
  await expect(doors).toContainText(/Rear doors, left: 700 × 1.640/);
  await noSeriousFindings(page);
  const bus = await ownDemo(request, 'bulrush');
  await openStage(page, bus, 'build');
  await group(page, 'Doors');
  await expect(section(page, 'Door panels')).toContainText('Waiting for readings: Stage hatch.');
});

test('a bare floor is coated: how often, when, in which order, and in the order of work', async ({ page, request }) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'build');
  const coats = section(page, 'Left bare and coated');
  await expect(coats).toContainText('coat 3 of 3');
  await expect(coats).toContainText('out by Rear door');
  const count = coats.getByLabel('Coats');
  await count.fill('2');
  await count.press('Enter');
  await expect(coats).not.toContainText('coat 3');
  await expect(section(page, 'Other finishes').getByRole('row')).toHaveCount(7);
  await saved(page);
  await openStage(page, id, 'work');
  await expect(page.locator('main')).toContainText('coat 2 of 2');
});

test('a floor off a roll: the pieces that are cut round something have templates', async ({ page, request }) => {
  const id = await ownDemo(request, 'bulrush');
  await openStage(page, id, 'build');
  await group(page, 'Floor');
  const finish = section(page, 'Finish');
  await expect(finish).toContainText('m off the roll');
  // so many pages are made only where they are meant
  const button = finish.getByRole('button', { name: 'Template of finish-1-1' });
  await expect(button).toHaveCount(0);
  await finish.getByRole('checkbox').first().check();
  const download = page.waitForEvent('download');
  await button.click();
  const file = await (await download).path();
  expect((await readFile(file)).subarray(0, 5).toString()).toBe('%PDF-');
  await finish.getByRole('combobox', { name: 'Lay it' }).click();
  await page.getByRole('option', { name: 'only where feet go' }).click();
  await saved(page);
});

test('an arch box bears what it is asked to, and a curtain steps over what stands on the floor', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request, 'bulrush');
  await openStage(page, id, 'build');
  await group(page, 'Arch boxes');
  const boxes = section(page, 'Boxes');
  await expect(boxes).toContainText('under somebody sitting (1000 N)');
  await boxes.getByRole('combobox', { name: 'An arch box bears' }).click();
  await page.getByRole('option', { name: 'things stored on it' }).click();
  const stored = boxes.getByLabel('Stored, kg');
  await stored.fill('1500');
  await stored.press('Enter');
  await expect(boxes).toContainText('under what is stored (14715 N)');
  await noSeriousFindings(page);
  await group(page, 'Ceiling');
  const curtain = section(page, 'Curtains across the body');
  await curtain.getByLabel('A curtain, by name').fill('Bunk curtain');
  await curtain.getByRole('button', { name: 'Add' }).click();
  await expect(curtain.getByRole('status')).toContainText('brackets');
  await put(page, 'Curtains across the body', 'From the front, in', '100');
  // the galley on the left, the dinette on the right: the hem steps up on both sides
  await expect.poll(() => curtain.getByRole('row').count()).toBeGreaterThan(3);
  await put(page, 'Curtains across the body', 'Rail above the floor, in', '100');
  await expect(curtain.getByRole('alert')).toContainText('above the ceiling');
  await expect(curtain.getByRole('status')).toHaveCount(0);
});

test('grooves, a bent corner, and a floor laid loose each say what they ask for', async ({ page, request }) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'build');
  await group(page, 'Left wall');
  const grooves = section(page, 'Grooves');
  await expect(grooves).toContainText('25 grooves; 55 shows before the first');
  await unfold(page, 'Grooves');
  await grooves.getByRole('combobox', { name: 'They run' }).click();
  await page.getByRole('option', { name: 'level' }).click();
  await expect(page.locator('.side')).toContainText('The grooves run across the grain');
  await put(page, 'Grooves', 'Depth, mm', '3');
  await expect(page.locator('.side').getByRole('alert').first()).toContainText('splits the face');

  const corners = section(page, 'Round a corner');
  await corners.getByLabel('Name').fill('Door post');
  await corners.getByRole('button', { name: 'Add' }).click();
  await expect(corners.getByRole('status')).toContainText('on the flat.');
  await put(page, 'Round a corner', 'Leg 2, outside, mm', '20');
  await expect(corners.getByRole('alert')).toContainText('each leg has to be 60');
  await put(page, 'Round a corner', 'Leg 2, outside, mm', '100');
  await expect(section(page, 'Parts of it')).toContainText('piece to try the cuts on');
  await noSeriousFindings(page);

  await group(page, 'Floor');
  const close = section(page, 'Before you close the floor');
  await close.getByRole('combobox', { name: 'The board is' }).click();
  await page.getByRole('option', { name: 'laid loose, held by furniture' }).click();
  await expect(close).toContainText(/Nothing stands on subfloor 1/);
  await saved(page);
  await openStage(page, id, 'work');
  await expect(page.locator('main')).toContainText('Lay the floor board loose');
});
