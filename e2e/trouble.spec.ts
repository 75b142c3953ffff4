import { writeFileSync } from 'node:fs';
import { OTHER_NAME } from './chromium.js';
import { expect, openStage, ownDemo, projectOf, ready, saved, say, test } from './support.js';

test('two tabs change the same thing: both changes are kept, and the second is told', async ({
  page,
  request,
  context,
  consoleClean,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  // somebody else, not in this browser
  const other = await request.post(`/api/projects/${id}/operations`, {
    data: {
      revision: 0,
      steps: [{ id: crypto.randomUUID(), name: 'changeUnit', payload: { id: 'kitchen', changes: { height: 910 } } }],
    },
  });
  expect(other.status()).toBe(200);
  await say(page, 'bench forward 60');
  await expect(page.locator('.notice')).toContainText('changed this project elsewhere');
  await saved(page);
  const { project, revision } = await projectOf(request, id);
  expect(revision).toBe(2);
  expect(project.layout.units.find((unit) => unit.id === 'kitchen')?.body.to).toBe(910);
  expect(project.layout.units.find((unit) => unit.id === 'bench')?.body.x).toBe(1440);
  // a second tab of the same browser follows by itself
  const tab = await context.newPage();
  await openStage(tab, id, 'layout');
  await say(page, 'bench at 1400');
  await tab.getByRole('button', { name: 'Bench', exact: true }).click();
  await expect(tab.getByLabel('From the front, mm')).toHaveValue('1400');
  // the browser itself reports the conflict that was settled
  consoleClean.splice(0, consoleClean.length, ...consoleClean.filter((line) => !line.includes('status of 409')));
});

test('without the server work goes on, and is sent when it answers again', async ({ page, request, consoleClean }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  await page.route('**/operations', (route) => route.abort());
  await say(page, 'bench forward 60');
  await expect(page.locator('.saved')).toHaveAttribute('data-state', 'waiting');
  await expect(page.locator('.tape-mark').nth(2)).toContainText('6 units, part known');
  // the tab is closed and opened again before the server is back
  await page.reload();
  await ready(page);
  await expect(page.locator('.tape-mark').nth(2)).toContainText('6 units, part known');
  await page.unroute('**/operations');
  await expect(page.locator('.saved')).toHaveAttribute('data-state', 'saved');
  expect((await projectOf(request, id)).project.layout.units.find((unit) => unit.id === 'bench')?.body.x).toBe(1440);
  // the browser itself reports the refused connections
  consoleClean.splice(0, consoleClean.length, ...consoleClean.filter((line) => !line.includes('ERR_FAILED')));
});

test('under another name, plainly asked, a build opens, is changed and kept', async ({ page, request, baseURL }) => {
  const id = await ownDemo(request);
  const other = (baseURL ?? '').replace('127.0.0.1', OTHER_NAME);
  await page.goto(`${other}/build/${id}/layout`);
  await ready(page);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  await say(page, 'bench forward 60');
  await saved(page);
  expect((await projectOf(request, id)).project.layout.units.find((unit) => unit.id === 'bench')?.body.x).toBe(1440);
});

test('a file of the wrong kind, broken or too large is refused with its place, and nothing is lost', async ({
  page,
  request,
  consoleClean,
}, testInfo) => {
  await ownDemo(request);
  await page.goto('/');
  const give = async (name: string, text: string): Promise<void> =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await give('half.json', '{ "format": "nest-plank-file",\n "version": 1, "project": {');
  await expect(page.getByRole('alert')).toContainText('half.json: Line 2, column');
  await give('job.json', '{"format":"cut-job","version":1}');
  await expect(page.getByRole('alert')).toContainText('This is a cut-job, not a nest-plank-file.');
  await give('later.json', '{"format":"nest-plank-file","version":9}');
  await expect(page.getByRole('alert')).toContainText('version 9');
  const huge = testInfo.outputPath('huge.json');
  writeFileSync(huge, Buffer.alloc(50 * 1024 * 1024, ' '));
  await page.locator('input[type=file]').setInputFiles(huge);
  await expect(page.getByRole('alert')).toContainText('50 MB');
  await expect(page.getByRole('link', { name: /Open Wren/ }).first()).toBeVisible();
  consoleClean.splice(0, consoleClean.length, ...consoleClean.filter((line) => !line.includes('status of 400')));
});

test('plans that cannot be: each gets one clear message at its place', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  await say(page, 'bed length 4200');
  await expect(page.locator('.notes')).toContainText('past the end of the floor');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.notes')).not.toContainText('past the end of the floor');
  // a negative size is refused where it is typed and stays typed
  await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
  const length = page.getByLabel('Length, mm');
  await length.fill('-20');
  await length.press('Enter');
  await expect(page.getByText(/.20 cannot be right here: between 1 and 100.000 is allowed/)).toBeVisible();
  await expect(length).toHaveValue('-20');
  // layers thicker than the room
  await openStage(page, id, 'layers');
  const ceiling = page.getByRole('region', { name: 'Ceiling' });
  await ceiling.getByRole('button', { name: 'Grooved pine boards 9' }).click();
  await ceiling.getByLabel('Thickness, mm').fill('490');
  await ceiling.getByLabel('Thickness, mm').press('Enter');
  const floor = page.getByRole('region', { name: 'Floor' });
  await expect(ceiling).toContainText('takes 490');
  for (let i = 0; i < 3; i += 1) {
    await floor.getByRole('button', { name: 'Add a layer' }).click();
    await floor.getByLabel('Thickness, mm').fill('499');
    await floor.getByLabel('Thickness, mm').press('Enter');
    await expect(floor.getByLabel('Thickness, mm')).toHaveValue('499');
  }
  await expect(page.getByRole('alert')).toContainText('The layers leave no room');
  await expect(page.locator('.tape-mark').nth(1)).toContainText('no room left');
});

test('a station behind the end of the floor is named and left out', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByLabel(/^A few letters/).fill('datum to rib 5');
  await page.getByRole('button', { name: 'Again: Front datum to Rib 5, along the centre line' }).click();
  await page.locator('.big-entry').fill('3960');
  await page.locator('.big-entry').press('Enter');
  await expect(page.locator('.side')).toContainText(
    /Rib 5, 3.960 from the front datum, is not on the floor, which ends at 3.690/,
  );
});

test('a part larger than any sheet is named with what would fit', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await page.getByRole('button', { name: 'Bed', exact: true }).click();
  await page.getByRole('combobox', { name: 'Boards' }).click();
  await page.getByRole('option', { name: 'Birch plywood 18' }).click();
  await page.getByLabel('Widest board, mm').fill('1400');
  await page.getByLabel('Widest board, mm').press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /Cut/ }).click();
  await expect(page.getByRole('alert').filter({ hasText: /bed.board-1 is 1.350 wide/ })).toBeVisible();
  await expect(page.locator('.tape-mark').nth(4)).toContainText('1 cannot be cut');
});

for (const [name, width, height] of [
  ['tablet', 820, 1180],
  ['phone', 390, 844],
] as const) {
  test(`every stage can be read on a ${name}: nothing runs out of the window sideways`, async ({ page, request }) => {
    await page.setViewportSize({ width, height });
    const id = await ownDemo(request);
    for (const stage of ['measure', 'layers', 'layout', 'build', 'cut', 'buy', 'work']) {
      await openStage(page, id, stage);
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(`${stage} ${over}`).toBe(`${stage} 0`);
    }
  });
}
