import { AxeBuilder } from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import type { APIRequestContext, Page } from '@playwright/test';
import { expect, openStage, ownDemo, projectOf, saved, say, test, unfold } from './support.js';

/** Wren with nothing standing in it: the shell as it was measured, the layers as they are. */
async function emptyVan(request: APIRequestContext): Promise<string> {
  const file = JSON.parse(readFileSync(new URL('../demo/wren.json', import.meta.url), 'utf8')) as {
    project: Record<string, unknown>;
  };
  const { variants, stored, wishes, ...project } = file.project;
  void [variants, stored, wishes];
  const text = JSON.stringify({ ...file, project: { ...project, layout: { units: [] }, keptPlans: [], waits: [] } });
  const response = await request.post('/api/projects/import', { data: { text } });
  expect(response.status()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}
const unitsOf = async (request: APIRequestContext, id: string) =>
  (await projectOf(request, id)).project.layout.units as unknown as {
    id: string;
    family: string;
    body: { stands: string; x: number; length: number };
  }[];

/** Presses at a share of the fold-out's length and width until what fits there is offered: what was placed before may still move it. */
async function pressAt(page: Page, across: number, along: number): Promise<void> {
  await expect(async () => {
    const box = await page.locator('.gap-ground').boundingBox();
    if (!box) throw new Error('there is no fold-out');
    await page.mouse.click(box.x + box.width * across, box.y + box.height * along);
    await expect(page.locator('.gap-offers')).toBeVisible({ timeout: 2000 });
  }).toPass();
}

test('an empty van is laid out with the pointer alone', async ({ page, request }) => {
  const id = await emptyVan(request);
  await openStage(page, id, 'layout');
  const tall = await page.locator('.gap-ground').boundingBox();
  // in the middle of the rear a bed fits, from wall to wall
  await pressAt(page, 0.5, 0.85);
  const offers = page.locator('.gap-offers');
  await expect(offers).toContainText('Free here');
  await offers.getByRole('button', { name: /Bed platform/ }).click();
  await expect(page.locator('[data-unit=bed]')).toBeVisible();
  // on the left before it a kitchen
  await pressAt(page, 0.3, 0.35);
  await offers.getByRole('button', { name: /Base run/ }).click();
  await expect(page.locator('[data-unit=cupboard]')).toBeVisible();
  // on the right, behind the door, a seat
  await pressAt(page, 0.74, 0.5);
  await offers.getByRole('button', { name: /Seat/ }).click();
  await expect(page.locator('[data-unit=seat]')).toBeVisible();
  // high up on the left wall a cupboard
  await pressAt(page, 0.06, 0.3);
  await offers.getByRole('button', { name: /High cupboard/ }).click();
  await expect(page.locator('[data-unit=high-cupboard]')).toBeVisible();
  await saved(page);
  const units = await unitsOf(request, id);
  expect(units.map(({ family }) => family)).toEqual(['bed-platform', 'base-run', 'seat', 'high-cupboard']);
  // what fails is mended by pressing, and taken back by pressing
  const mark = page.locator('.tape-mark').nth(2);
  await page.locator('[data-unit=seat]').click();
  // the drawing stands still while things are put in and when one is taken hold of
  await expect(page.locator('.unit-figures input').first()).toBeVisible();
  expect(await page.locator('.gap-ground').boundingBox()).toEqual(tall);
  const fails = page.locator('.notes [data-grade=fails]');
  await expect(fails).toHaveCount(0);
  const box = await page.locator('[data-unit=seat]').boundingBox();
  if (!box) throw new Error('the seat is not drawn');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 6 });
  await page.mouse.up();
  await expect(mark).toContainText(/do not fit|does not fit/);
  await expect(fails.first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: false }).first().click();
  await expect(fails).toHaveCount(0);
});

test('an empty van is laid out with the line alone', async ({ page, request }) => {
  const id = await emptyVan(request);
  await openStage(page, id, 'layout');
  const understood = page.locator('.line-understood');
  await page.locator('#the-line').fill('add sofa');
  await expect(understood).toContainText('nothing that can be put in by name');
  await say(page, 'add bed');
  await expect(page.locator('[data-unit=bed]')).toBeVisible();
  await page.locator('#the-line').fill('add cupboard left 1400');
  await expect(understood).toContainText(/Put in Cupboard: from .* 1.400.mm long/);
  await page.locator('#the-line').press('Enter');
  await expect(page.locator('[data-unit=cupboard]')).toBeVisible();
  await say(page, 'add seat right 700');
  await expect(page.locator('[data-unit=seat]')).toBeVisible();
  await say(page, 'add seat left 3000');
  await expect(understood).toContainText('no free stretch');
  await page.locator('#the-line').fill('');
  await say(page, 'seat back 20');
  await saved(page);
  const units = await unitsOf(request, id);
  expect(units.map(({ id: own, body }) => [own, body.stands])).toEqual([
    ['bed', 'across'],
    ['cupboard', 'left'],
    ['seat', 'right'],
  ]);
  expect(units.map(({ body }) => body.length).slice(1)).toEqual([1400, 700]);
});

test('the bus is mended all at once, says what it changed, and one undo takes it back', async ({ page, request }) => {
  const id = await ownDemo(request, 'bulrush');
  await openStage(page, id, 'layout');
  const mark = page.locator('.tape-mark').nth(2);
  const before = await mark.textContent();
  await page.getByRole('button', { name: 'Mend all' }).click();
  await expect(page.getByText(/After these nothing fails/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Make these changes' }).click();
  await expect(mark).not.toContainText('not fit');
  await page.keyboard.press('u');
  await expect(mark).toHaveText(before ?? '');
  // a check put aside counts no more, and its reason stays beside it
  const said = (await page.locator('.notes li').first().getAttribute('data-check')) ?? '';
  // by what it says, not by its place: the list is sorted anew when all of it is worked out again
  const note = page.locator(`.notes [data-check="${said}"]`);
  await note.getByRole('button', { name: 'Put aside' }).click();
  await note.getByLabel('Why it may stay so').fill('it is taken out at night');
  await note.getByRole('button', { name: 'Put it aside' }).click();
  await expect(page.locator(`[data-check="${said}"]`)).toContainText('Put aside: it is taken out at night');
  await page.locator(`[data-check="${said}"]`).getByRole('button', { name: 'Take it up again' }).click();
  await expect(page.locator(`[data-check="${said}"]`)).not.toContainText('taken out at night');
});

test('modes are shown, stepped through and changed; variants, data sheets, goods and weight are at hand', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request, 'thimble');
  await openStage(page, id, 'layout');
  await page.getByRole('group', { name: 'Modes' }).getByRole('button', { name: 'Night' }).click();
  await expect(page.getByRole('img', { name: 'Bed, drawn out' })).toBeVisible();
  await page.getByRole('group', { name: 'Modes' }).getByRole('button', { name: 'Charts' }).click();
  await expect(page.getByRole('region', { name: 'Charts' })).toContainText(/leaf/);
  await page.locator('[data-unit=desk]').click();
  await page.getByRole('group', { name: /leaf/ }).getByRole('button', { name: 'shut' }).click();
  await expect(page.getByRole('region', { name: 'Charts' })).toContainText('Nothing moves.');

  await unfold(page, 'Appliances and things');
  await page.getByRole('combobox', { name: 'Usual in the trade' }).click();
  await page.getByRole('option', { name: 'Battery 100 Ah' }).click();
  await page.getByLabel('Empty, kg').fill('14');
  await page.getByLabel('Empty, kg').press('Enter');
  await unfold(page, 'What is kept in it');
  await page.getByRole('textbox', { name: 'What', exact: true }).fill('Star atlas');
  await page.getByRole('region', { name: 'What is kept in it' }).getByRole('button', { name: 'Add' }).click();
  await unfold(page, 'Weight');
  await expect(page.getByRole('img', { name: /Left against right/ })).toBeVisible();
  await unfold(page, 'Other layouts');
  await page.getByLabel('What it is called').fill('As it is');
  await page.getByRole('button', { name: 'Keep as it stands' }).click();
  await page.getByRole('button', { name: 'Set them beside each other' }).click();
  await expect(page.getByRole('table').filter({ hasText: 'worktop' })).toContainText('As it is');
  await saved(page);
  const { project } = (await projectOf(request, id)) as unknown as {
    project: { things: { name: string; mass: number }[]; stored: { name: string }[]; variants: { name: string }[] };
  };
  expect(project.things.find(({ name }) => name === 'Battery 100 Ah')?.mass).toBe(14);
  expect(project.stored.map(({ name }) => name)).toContain('Star atlas');
  expect(project.variants.map(({ name }) => name)).toEqual(['As it is']);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(
    violations.filter(({ impact }) => impact === 'serious' || impact === 'critical').map(({ id: rule }) => rule),
  ).toEqual([]);
});

test('arrangements are suggested while one waits, can be stopped, and one is started from', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  await unfold(page, 'Suggest arrangements');
  for (const name of ['Bed platform', 'Base run', 'Seat'])
    await page.getByRole('checkbox', { name, exact: true }).setChecked(true);
  await page.getByRole('button', { name: 'Look for arrangements' }).click();
  await expect(page.getByText('Arrangement 1', { exact: true })).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Stop here' }).click();
  await page.getByRole('button', { name: 'Start from this' }).first().click();
  await expect(page.locator('.tape-mark').nth(2)).not.toContainText('not fit');
  await saved(page);
  const { project } = (await projectOf(request, id)) as unknown as { project: { variants: { name: string }[] } };
  expect(project.variants.map(({ name }) => name)).toContain('Before');
});

test('a dog is laid where there is room, moved by keys and by hand, and told when it lies in the way', async ({
  page,
  request,
}) => {
  const id = await emptyVan(request);
  await openStage(page, id, 'layout');
  await unfold(page, 'Animals');
  const panel = page.locator('.fold[open]').filter({ hasText: 'Animals' });
  await panel.getByRole('textbox', { name: 'Name' }).fill('Wool');
  await panel.getByRole('textbox', { name: 'Name' }).press('Enter');
  await panel.getByRole('combobox', { name: 'Lies: Wool' }).click();
  await page.getByRole('option', { name: 'on the floor' }).click();
  const dog = page.locator('[data-pet]');
  await expect(dog).toBeVisible();
  await expect(page.locator('[data-check="pet-place:pet1"]')).toHaveCount(0);
  const densOf = async () => (await projectOf(request, id)).project.layout.dens ?? [];
  await saved(page);
  const [first] = await densOf();
  // by keys: towards the left wall until it lies against it
  await dog.focus();
  for (let i = 0; i < 7; i += 1) await page.keyboard.press('Shift+ArrowLeft');
  const note = page.locator('[data-check="pet-place:pet1"]');
  await expect(note).toContainText('Wool has');
  await saved(page);
  expect((await densOf())[0]?.at.y).toBe((first?.at.y ?? 0) - 700);
  await page.keyboard.press('Enter');
  await saved(page);
  expect((await densOf())[0]?.at.turned).toBe(true);
  // one press lays it where it has room
  await note.getByRole('button', { name: /Mend: Lay Wool/ }).click();
  await expect(note).toHaveCount(0);
  // by hand
  const box = await dog.boundingBox();
  if (!box) throw new Error('the dog is not drawn');
  const before = (await densOf())[0]?.at.x ?? 0;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 40, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  expect((await densOf())[0]?.at.x).toBeGreaterThan(before);
  // by the line, and taken away with its unit or by hand
  await say(page, 'lay wool at 900 across');
  await saved(page);
  expect((await densOf())[0]?.at).toEqual({ x: 900, y: 0, turned: true });
  const found = await new AxeBuilder({ page }).include('.side').analyze();
  expect(found.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
});

test('a group is dragged: each goes as far as the hand, and the drawing keeps its size under it', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request, 'wren');
  const before = new Map((await unitsOf(request, id)).map((unit) => [unit.id, unit.body.x]));
  await openStage(page, id, 'layout');
  await page.locator('[data-unit=bench]').click();
  await page.keyboard.down('Shift');
  await page.locator('[data-unit=kitchen]').click();
  await page.keyboard.up('Shift');
  await expect(page.getByText(/^Moved together/)).toBeVisible();
  const ground = await page.locator('.gap-ground').boundingBox();
  const box = await page.locator('[data-unit=bench]').boundingBox();
  if (!box) throw new Error('the bench is not drawn');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  // free of what they could be drawn to, they stay under the hand
  await page.keyboard.down('Alt');
  await page.mouse.down();
  await page.mouse.move(x, y - 40, { steps: 8 });
  expect(await page.locator('.gap-ground').boundingBox()).toEqual(ground);
  const fromHand = async (): Promise<number> => {
    const now = await page.locator('[data-unit=bench]').boundingBox();
    // its middle: an outline is drawn round it once it is taken hold of
    return now ? Math.abs(now.y + now.height / 2 - (y - 40)) : Infinity;
  };
  // to the nearest step of five mm, which is less than a pixel
  await expect.poll(fromHand).toBeLessThan(1);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await saved(page);
  const moved = (await unitsOf(request, id)).map((unit) => unit.body.x - (before.get(unit.id) ?? 0));
  const far = moved.filter((by) => Math.abs(by) > 1);
  expect(far).toHaveLength(2);
  expect(far[0]).toBeLessThan(-100);
  expect(far[1]).toBeCloseTo(far[0] ?? 0, 6);
});
