import { AxeBuilder } from '@axe-core/playwright';
import { expect, openStage, ownDemo, projectOf, ready, saved, say, test } from './support.js';

const STAGES = ['measure', 'layers', 'layout', 'build', 'cut', 'buy', 'work'];

for (const theme of ['light', 'dark', 'sun']) {
  test(`no serious accessibility fault in any stage, ${theme} theme`, async ({ page, request }) => {
    await page.addInitScript((name) => localStorage.setItem('nest-plank.theme', name), theme);
    const id = await ownDemo(request);
    for (const stage of STAGES) {
      await openStage(page, id, stage);
      await page.waitForLoadState('networkidle');
      // the page is the same page in every theme but for its colours
      const axe = new AxeBuilder({ page });
      const { violations, passes } = await (theme === 'light' ? axe : axe.withRules(['color-contrast'])).analyze();
      expect(passes.map(({ id: rule }) => rule)).toContain('color-contrast');
      const serious = violations.filter(
        (violation) => violation.impact === 'serious' || violation.impact === 'critical',
      );
      expect(
        serious.map(
          (violation) =>
            `${stage}: ${violation.id} ${violation.nodes
              .map((node) => node.html)
              .join(' | ')
              .slice(0, 600)}`,
        ),
      ).toEqual([]);
    }
  });
}

test('no serious accessibility fault on the first page and in the dialogs', async ({ page, request }) => {
  const id = await ownDemo(request);
  const check = async (): Promise<void> => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(
      violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map(
          (v) =>
            `${v.id} ${v.nodes
              .map((n) => n.html)
              .join(' | ')
              .slice(0, 400)}`,
        ),
    ).toEqual([]);
  };
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Open Wren/ }).first()).toBeVisible();
  await check();
  await page.getByRole('button', { name: 'Start a build' }).click();
  await check();
  await openStage(page, id, 'layout');
  for (const name of ['People and settings', 'Versions', 'Files', 'Keys']) {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await check();
    await page.getByRole('button', { name: 'Close' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
  }
});

test('the keyboard alone goes everywhere, moves a unit, takes it back and puts it again', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  for (const [i, stage] of STAGES.entries()) {
    await page.keyboard.press(String(i + 1));
    await expect(page).toHaveURL(new RegExp(`/${stage}$`));
    if (stage === 'measure') await page.keyboard.press('Escape');
  }
  await page.keyboard.press('3');
  await page.locator('[data-unit=bench]').focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await saved(page);
  const x = async (): Promise<number | undefined> =>
    (await projectOf(request, id)).project.layout.units.find((unit) => unit.id === 'bench')?.body.x;
  expect(await x()).toBe(1390);
  await expect(page.locator('.tape-mark').nth(2)).toContainText('6 units, part known');
  await page.keyboard.press('u');
  await expect.poll(x).toBe(1490);
  // undo outlives a reload
  await page.reload();
  await ready(page);
  await page.keyboard.press('u');
  await expect.poll(x).toBe(1500);
  await page.keyboard.press('Shift+U');
  await expect.poll(x).toBe(1490);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('move the chosen unit');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Space');
  await expect(page.locator('#the-line')).toBeFocused();
});

test('the line says what it understood, completes, remembers, answers and refuses', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  const line = page.locator('#the-line');
  const understood = page.locator('.line-understood');
  await line.fill('kitchen left 30');
  await expect(understood).toHaveText(/Kitchen: front from centre line 370.mm → 400.mm/);
  await line.fill('kit');
  await line.press('Tab');
  await expect(line).toHaveValue('kitchen ');
  await line.fill('kitchen up about');
  await line.press('Enter');
  await expect(understood).toContainText('is not a length');
  await expect(line).toHaveValue('kitchen up about');
  await line.fill('why headroom');
  await expect(understood).toContainText(/headroom 1.843.mm/);
  await line.fill('rule bed-length clear=1838 stature=1752');
  await expect(understood).toContainText('34 short of good');
  await say(page, 'slice 2640');
  await expect(page.getByRole('slider', { name: /Slice at/ })).toHaveAttribute('aria-valuenow', '2640');
  await say(page, 'cut');
  await expect(page).toHaveURL(new RegExp(`/build/${id}/cut$`));
  await expect(page.getByRole('button', { name: 'Search for fewer sheets' })).toBeVisible();
  await line.press('ArrowUp');
  await expect(line).toHaveValue('cut');
});

test('the drawing follows: slice stepped and dragged, mend taken, ceiling swapped, inches shown', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  const slice = page.getByRole('slider', { name: /Slice at/ });
  await expect(slice).toHaveAttribute('aria-valuenow', '1845');
  await page.keyboard.press(']');
  await expect(slice).toHaveAttribute('aria-valuenow', '2010');
  await page.keyboard.press('[');
  await expect(slice).toHaveAttribute('aria-valuenow', '1380');
  // the drawing gets its last size when the strip of units stands below it
  await expect(page.getByRole('button', { name: /Put in by name/ })).toBeVisible();
  await expect(page.getByRole('group', { name: 'Modes' })).toBeVisible();
  const size = await slice.boundingBox();
  await slice.hover({ position: { x: 10, y: (size?.height ?? 0) / 2 } });
  const handle = await slice.boundingBox();
  if (!handle) throw new Error('no slice');
  await page.mouse.move(handle.x + 10, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(handle.x + 10, handle.y + handle.height / 2 + 60, { steps: 5 });
  await page.mouse.up();
  // the drawing follows the hand when it has time to
  await expect.poll(async () => Number(await slice.getAttribute('aria-valuenow'))).toBeGreaterThan(1600);
  await expect(page.locator('.tape-mark').nth(2)).toContainText('1 does not fit');
  await page.getByRole('button', { name: 'Mend: Move Bench 50 to the front' }).click();
  await expect(page.locator('.tape-mark').nth(2)).toContainText('6 units, part known');
  await page.keyboard.press('c');
  await expect(page.getByRole('img', { name: 'Roof fan' })).toBeVisible();
  await page.keyboard.press('c');
  await page.keyboard.press('i');
  await expect(page.locator('.tape-mark').nth(1)).toContainText('−2 3/16 ↕ −11/16 ↔');
});

test('a reading that cannot be right stays typed, with the reason beside it', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByLabel(/^A few letters/).fill('left 700 rib 4');
  await page.getByRole('button', { name: 'Again: Centre line to left wall, 700 up, at Rib 4' }).click();
  const entry = page.locator('.big-entry');
  await entry.fill('about 93');
  await entry.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“about 93” is not a length');
  await expect(entry).toHaveValue('about 93');
  await entry.fill('-40');
  await entry.press('Enter');
  await expect(page.getByRole('alert')).toContainText('between 50 and 2');
  // a slip is caught when it is taken, and can be taken back
  await entry.fill('299');
  await expect(page.locator('.walk')).toContainText('off by');
  await entry.fill('992');
  await entry.press('Enter');
  await expect(page.locator('.side')).toContainText('Look again');
  await page.locator('.side').getByRole('tab', { name: 'Walk' }).focus();
  await page.keyboard.press('u');
  await expect(page.locator('.side')).not.toContainText('Look again');
});

test('a price is changed where it stands and everything follows', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'buy');
  const price = page.getByRole('textbox', { name: 'Price of Birch plywood 18' });
  const total = page.locator('.side .figures').first();
  const cents = async (): Promise<number> =>
    Math.round(100 * Number(((await total.textContent()) ?? '').replace(/[^\d.]/g, '')));
  const before = await cents();
  expect(before).toBeGreaterThan(100_000);
  await price.fill('dear');
  await price.press('Enter');
  await expect(page.getByText('A price such as 64.00.')).toBeVisible();
  await expect(price).toHaveValue('dear');
  await price.fill('83');
  await price.press('Enter');
  // one sheet of it is bought, at 63.00 before
  await expect.poll(cents).toBe(before + 2000);
});

test('a material of one’s own: copied, given its real sizes and price, dearer with its group, and kept while it is used', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'buy');
  await page.getByRole('tab', { name: 'Price book' }).click();
  await page.getByLabel('Find a material').fill('birch plywood 18');
  await page.getByRole('button', { name: 'Birch plywood 18', exact: true }).click();
  const side = page.locator('.side');
  await side.getByRole('button', { name: 'Copy it' }).click();
  const own = side.getByRole('region', { name: 'Birch plywood 18 (2)' });
  await expect(own).toBeVisible();
  await own.getByLabel('Material', { exact: true }).fill('Yard ply 17');
  await own.getByLabel('Material', { exact: true }).press('Enter');
  const yard = side.getByRole('region', { name: 'Yard ply 17' });
  await yard.getByLabel('Real thickness, mm').fill('17.2');
  await yard.getByLabel('Real thickness, mm').press('Enter');
  await yard.getByLabel('Length, mm').first().fill('2440');
  await yard.getByLabel('Length, mm').first().press('Enter');
  await yard.getByLabel('Price', { exact: true }).first().fill('91.50');
  await yard.getByLabel('Price', { exact: true }).first().press('Enter');
  await yard.getByLabel('Density, kg/m³').fill('heavy');
  await yard.getByLabel('Density, kg/m³').press('Enter');
  await expect(yard.getByText(/A number between 0/)).toBeVisible();
  await expect(yard.getByLabel('Density, kg/m³')).toHaveValue('heavy');
  await yard.getByLabel('Density, kg/m³').fill('640');
  await yard.getByLabel('Density, kg/m³').press('Enter');
  await page.getByLabel('Find a material').fill('yard ply');
  const row = page.getByRole('row').filter({ hasText: 'Yard ply 17' });
  await expect(row).toContainText('17.2');
  await expect(row).toContainText('91.50');
  // a tenth dearer, with all sheets
  const level = side.locator('section').filter({ has: page.getByRole('heading', { name: 'Another price level' }) });
  await level.getByRole('combobox', { name: 'Group' }).click();
  await page.getByRole('option', { name: 'sheets' }).click();
  await level.getByLabel('Dearer by, %').fill('10');
  await level.getByLabel('Dearer by, %').press('Enter');
  await level.getByRole('button', { name: 'Move the prices' }).click();
  await expect(row).toContainText('100.65');
  const found = await new AxeBuilder({ page }).analyze();
  expect(found.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  // what a build is made of stays; what nothing is made of goes
  await page.getByLabel('Find a material').fill('');
  await page.getByLabel('Find a material').fill('birch plywood 12');
  await page.getByRole('button', { name: 'Birch plywood 12', exact: true }).click();
  await expect(side.getByRole('button', { name: 'Remove Birch plywood 12' })).toBeDisabled();
  await expect(side).toContainText('This build is made of it');
  await page.getByLabel('Find a material').fill('yard ply');
  await page.getByRole('button', { name: 'Yard ply 17', exact: true }).click();
  await side.getByRole('button', { name: 'Remove Yard ply 17' }).click();
  await expect(row).toHaveCount(0);
});

test('a version is kept, returned to, and the return taken back', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layout');
  const open = async (): Promise<void> => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Versions' }).click();
  };
  await open();
  await page.getByLabel('Name of the version').fill('Before the bench moved');
  await page.getByRole('button', { name: 'Keep this version' }).click();
  await expect(page.getByRole('cell', { name: 'Before the bench moved' })).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await say(page, 'bench forward 300');
  await saved(page);
  await open();
  await page.getByRole('button', { name: 'Return to it' }).click();
  await saved(page);
  const x = async (): Promise<number | undefined> =>
    (await projectOf(request, id)).project.layout.units.find((unit) => unit.id === 'bench')?.body.x;
  await expect.poll(x).toBe(1500);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(x).toBe(1200);
});

test('the price book out to a file and in from one with semicolons: what is wrong is named, the rest is taken', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'buy');
  await page.getByRole('tab', { name: 'Price book' }).click();
  const file = page.getByRole('region', { name: 'As a file' });
  const out = page.waitForEvent('download');
  await file.getByRole('button', { name: 'Price book as CSV' }).click();
  expect((await out).suggestedFilename()).toMatch(/^wren.*-price-book\.csv$/);
  await file.getByLabel('Take in a CSV').setInputFiles({
    name: 'yard.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'id;name;group;thickness;sizes\nyard-9;Yard ply 9;sheet;9,2;2440 x 1220 = 41,50\nyard-0;Yard ply 0;sheet;;2440 x 1220 = 12\n',
    ),
  });
  await expect(file).toContainText('1 of 2 rows can be taken, 1 of them new.');
  await expect(file).toContainText('Yard ply 0 is sold in sheets and has no thickness');
  await file.getByRole('button', { name: 'Take them' }).click();
  await page.getByLabel('Find a material').fill('yard');
  await expect(page.getByRole('row').filter({ hasText: 'Yard ply 9' })).toContainText('41.50');
});

test('a unit is drawn put together, turned, and a part of it chosen by a press on the drawing', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'build');
  await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
  await page.getByRole('button', { name: 'Put together' }).click();
  const drawing = page.getByRole('img', { name: /^Kitchen put together/ });
  await expect(drawing).toBeVisible();
  const order = (): Promise<string[]> =>
    drawing.locator('[data-face]').evaluateAll((faces) => faces.map((face) => face.getAttribute('data-face') ?? ''));
  const before = await order();
  await page.getByRole('button', { name: 'Turn' }).click();
  expect(await order()).not.toEqual(before);
  // on its edge: its middle is open where the sink hangs
  const edge = await drawing
    .locator('[data-face="kitchen.top"]')
    .last()
    .evaluate((face) => {
      if (!(face instanceof SVGGeometryElement)) throw new Error('a face is drawn');
      const matrix = face.getScreenCTM();
      const { x, y } = face.getPointAtLength(face.getTotalLength() / 9).matrixTransform(matrix ?? undefined);
      return { x, y };
    });
  await page.mouse.click(edge.x, edge.y);
  await expect(page.locator('.side').getByRole('heading', { level: 1 })).toContainText('top');
  const found = await new AxeBuilder({ page }).analyze();
  expect(found.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
});
