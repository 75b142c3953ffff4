import { AxeBuilder } from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { expect, openStage, ownDemo, test } from './support.js';
import { CHROMIUM, IN_THE_ROUND } from './chromium.js';

// three dimensions are drawn in software where there is no graphics card
test.use({ launchOptions: { ...CHROMIUM, args: [...CHROMIUM.args, ...IN_THE_ROUND] } });

test('the room in the round: seen, walked in by keys, opened by a press, cut away, saved', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  await page.getByRole('button', { name: 'In place of the fold-out' }).click();
  const room = page.getByRole('region', { name: 'Room' });
  const drawing = room.getByRole('application');
  await expect(drawing.locator('canvas')).toBeVisible();
  // something is drawn: a picture of one colour is a few kilobytes
  const drawn = async (): Promise<number> => (await drawing.screenshot()).length;
  await expect.poll(drawn).toBeGreaterThan(14_000);
  await room.getByRole('combobox', { name: 'Seen' }).click();
  await page.getByRole('option', { name: 'standing in it' }).click();
  await expect(room).toContainText('above the head');
  await drawing.focus();
  for (let step = 0; step < 30; step += 1) await page.keyboard.press('ArrowUp');
  await expect(room).toContainText('is in the way there');
  await page.keyboard.press('ArrowDown');
  await expect(room).toContainText('above the head');
  // one of its fronts is opened by its name
  await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
  const door = room.getByRole('button', { name: /door 1/ }).first();
  await door.click();
  await expect(door).toHaveAttribute('aria-pressed', 'true');
  await room.getByRole('combobox', { name: 'Seen' }).click();
  await page.getByRole('option', { name: 'from outside' }).click();
  await room.getByRole('button', { name: 'cut: rear stays' }).click();
  await expect.poll(drawn).toBeGreaterThan(14_000);
  // the boards of the lining stand in it when they are asked for
  const before = await drawing.screenshot();
  await room.getByRole('button', { name: 'Linings', exact: true }).click();
  await expect.poll(async () => (await drawing.screenshot()).equals(before)).toBe(false);
  const loading = page.waitForEvent('download');
  await room.getByRole('button', { name: 'Save as glTF' }).click();
  const file = readFileSync(await (await loading).path());
  expect(file.subarray(0, 4).toString()).toBe('glTF');
  const json = JSON.parse(file.subarray(20, 20 + file.readUInt32LE(12)).toString()) as { nodes: { name: string }[] };
  expect(json.nodes.map(({ name }) => name)).toEqual(expect.arrayContaining(['Kitchen', 'lining']));
  const { violations } = await new AxeBuilder({ page }).include('.room').analyze();
  expect(violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  await page.getByRole('button', { name: 'Back to the drawings' }).click();
  await expect(page.locator('.gap-ground')).toBeVisible();
});
