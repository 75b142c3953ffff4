import { AxeBuilder } from '@axe-core/playwright';
import { expect, openStage, ownDemo, projectOf, ready, saved, test } from './support.js';
import type { Page } from '@playwright/test';

/** Measures what is asked for with the linked laser until it is taken, whatever goes wrong on the way. */
async function measureOnce(page: Page): Promise<void> {
  const heading = page.getByRole('heading', { level: 1 });
  const asked = await heading.textContent();
  for (let tries = 0; tries < 8; tries += 1) {
    const relink = page.getByRole('button', { name: 'Link again' });
    if (await relink.isVisible()) await relink.click();
    const measure = page.getByRole('button', { name: 'Measure', exact: true });
    await expect(measure.or(relink)).toBeEnabled();
    if (await relink.isVisible()) continue;
    await measure.click();
    await page.waitForFunction(
      (before) =>
        document.querySelector('h1')?.textContent !== before || document.querySelector('[role=alert]') !== null,
      asked,
      { polling: 40 },
    );
    if ((await heading.count()) === 0 || (await heading.textContent()) !== asked) return;
    if ((await page.getByRole('alert').first().textContent())?.includes('no such thing')) {
      await page.getByRole('button', { name: 'Cannot reach' }).click();
      return;
    }
  }
}

test('the walk through a practice vehicle with the simulated laser, and how near it came', async ({
  page,
  request,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start a build' }).click();
  await page.getByLabel('Name of the build').fill('Practice van');
  await page.getByLabel('A practice vehicle, with simulated instruments').check();
  await page.getByLabel('Vehicle number').fill('3');
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await page.waitForURL(/\/measure$/);
  await ready(page);
  const id = /build\/([^/]+)\//.exec(page.url())?.[1] ?? '';
  await page.getByRole('button', { name: 'Link the practice laser' }).click();
  const heading = page.getByRole('heading', { level: 1 });
  for (let i = 0; i < 75 && (await heading.count()) > 0; i += 1) await measureOnce(page);
  await expect(page.getByText('Every reading is taken')).toBeVisible();
  // one more where it helps most
  const quality = page.getByRole('region', { name: 'How good is it?' });
  if (await quality.getByRole('button', { name: 'Ask for it' }).isVisible()) {
    await quality.getByRole('button', { name: 'Ask for it' }).click();
    await expect(heading).toBeVisible();
  }
  await page.getByRole('button', { name: 'Compare with the true shape' }).click();
  const near = page.getByRole('region', { name: 'Practice' });
  await expect(near).toContainText('95 of 100 places of the walls');
  const figure = /walls?within (\d+)/.exec((await near.textContent())?.replace(/[\u202f\u00a0]/g, ' ') ?? '');
  expect(Number(figure?.[1])).toBeLessThanOrEqual(4);
  const { project } = await projectOf(request, id);
  expect(Object.values(project.survey.readings).length).toBeGreaterThanOrEqual(55);
});

test('a slip is named, the figure it meant is offered, and what moved is listed', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByLabel(/^A few letters/).fill('left 700 rib 3');
  await page.getByRole('button', { name: /^Again: Centre line to left wall, 700 up, at Rib 3/ }).click();
  await page.locator('.big-entry').fill('834');
  await page.locator('.big-entry').press('Enter');
  await expect(page.locator('.side')).toContainText('one digit wrong?');
  await page.getByRole('button', { name: /^Take 934/ }).click();
  await expect(page.locator('.side')).not.toContainText('one digit wrong?');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByLabel(/^A few letters/).fill('left 700 rib 3');
  await page.getByRole('button', { name: /^What moved: Centre line to left wall, 700 up, at Rib 3/ }).click();
  await expect(page.locator('.moved')).toContainText('834 became 934');
  await expect(page.locator('.moved')).toContainText('kitchen');
});

test('by keypad and with repeats: the mean is taken and the repeats are kept', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByRole('button', { name: /^Again: Floor length/ }).click();
  await page.getByRole('button', { name: 'Keypad' }).click();
  const pad = page.getByRole('group', { name: 'Keypad' });
  for (const key of ['3', '6', '9', '0']) await pad.getByRole('button', { name: key, exact: true }).click();
  await page.getByRole('button', { name: 'Hold, read again' }).click();
  for (const key of ['3', '6', '9', '9']) await pad.getByRole('button', { name: key, exact: true }).click();
  await pad.getByRole('button', { name: 'Erase the last sign' }).click();
  await pad.getByRole('button', { name: '2', exact: true }).click();
  await pad.getByRole('button', { name: /Take it/ }).click();
  await saved(page);
  const { project } = (await (await request.get(`/api/projects/${id}`)).json()) as {
    project: { survey: { readings: Record<string, { value: number; repeats?: number[] }[]> } };
  };
  expect(project.survey.readings['floor/length']?.at(-1)).toMatchObject({ value: 3691, repeats: [3690, 3692] });
});

test('found things with a photo, the leak test, and what is open before a surface is covered', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Found' }).click();
  const before = page.getByRole('region', { name: /Before you cover/ });
  await expect(before).toContainText('leak test is not done');
  await page.getByRole('button', { name: 'Add what you found' }).click();
  const find = page.getByRole('region', { name: 'What was found' }).getByRole('listitem').last();
  await find.getByRole('button', { name: 'Point at it on the drawing' }).click();
  const drawn = await page.locator('[data-pointing]').boundingBox();
  if (!drawn) throw new Error('the fold-out waits to be pointed at');
  await page.mouse.click(drawn.x + drawn.width / 2 - 40, drawn.y + drawn.height / 2);
  await expect(find.getByRole('combobox', { name: /^Surface/ })).toHaveText('floor');
  await expect(find.getByLabel('From the front, mm')).not.toHaveValue('0');
  await find.getByRole('combobox', { name: /^Surface/ }).click();
  await page.getByRole('option', { name: 'left wall' }).click();
  await find.getByLabel('Name').fill('Rust at the sill');
  await find.getByLabel('Name').press('Enter');
  await expect(before).toContainText('Rust at the sill');
  const png = await page.screenshot({ clip: { x: 0, y: 0, width: 200, height: 150 } });
  await find.locator('input[type=file]').setInputFiles({ name: 'rust.png', mimeType: 'image/png', buffer: png });
  await expect(find.getByRole('img', { name: 'Photo of Rust at the sill' })).toBeVisible();
  await find.getByLabel('done').check();
  await expect(before).not.toContainText('Rust at the sill');
  await page.getByRole('combobox', { name: 'Leak test' }).click();
  await page.getByRole('option', { name: 'dry' }).click();
  // a joint is tried, a photo is taken: nothing holds the wall any more but what has a task of its own
  await page.getByRole('button', { name: /^Tee behind the sink/ }).click();
  await page.getByRole('checkbox', { name: 'Tried under pressure' }).check();
  await expect(before).not.toContainText('Tee behind the sink');
  await before.locator('input[type=file]').setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer: png });
  await expect(before.getByRole('img', { name: 'Photo of the left wall, bare' })).toBeVisible();
  await expect(before.getByRole('button', { name: /Go on all the same/ })).toHaveCount(0);
  // what cannot wait is overruled with a reason, which stays when the page is opened again
  await before.getByRole('combobox').click();
  await page.getByRole('option', { name: 'ceiling' }).click();
  const drip = before.getByRole('listitem').filter({ hasText: 'Drip at the roof seam' });
  await drip.getByRole('button', { name: /Go on all the same/ }).click();
  await drip.getByLabel('Why it may be covered all the same').fill('Sealed from outside');
  await drip.getByRole('button', { name: 'Go on all the same' }).click();
  await saved(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Found' }).click();
  await before.getByRole('combobox').click();
  await page.getByRole('option', { name: 'ceiling' }).click();
  await expect(drip).toContainText('Overruled: Sealed from outside');
});

test('readings in from CSV with rows that cannot be right, typed back from the sheet, and an outline', async ({
  page,
  request,
}) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'In and out' }).click();
  const rows = [
    'address,value,unit,method',
    'station/s3/left/700,36 3/4,in,tape',
    'station/s3/left/0,tape,893,mm',
    'bogus,1,,',
  ];
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'readings.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await expect(page.locator('.side')).toContainText('1 of 3 rows can be taken.');
  await expect(page.locator('.side')).toContainText('Row 3: “mm” is not a way of measuring');
  await expect(page.locator('.side')).toContainText('Row 4: “bogus” is no place');
  await page.getByRole('button', { name: 'Take them' }).click();
  await saved(page);
  const { project } = await projectOf(request, id);
  expect(project.survey.readings['station/s3/left/700']?.at(-1)?.value).toBeCloseTo(933.45, 6);
  // the skylight's four boxes are the open ones of the sheet
  await page.getByRole('textbox', { name: 'Type the sheet back in' }).fill('1200\n1600\nx');
  await expect(page.locator('.side')).toContainText('“x” is not a length');
  await page.getByRole('textbox', { name: 'Type the sheet back in' }).fill('1200\n1600');
  await page.getByRole('button', { name: 'Take 2 readings' }).click();
  await saved(page);
  expect((await projectOf(request, id)).project.survey.readings['opening/o6/from']?.at(-1)?.value).toBe(1200);
  await page
    .locator('input[type=file]')
    .nth(1)
    .setInputFiles({
      name: 'floor.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg width="3690mm" viewBox="0 0 3690 1785"><path d="M0 0 H3690 V1785 H0 Z"/></svg>'),
    });
  await expect(page.locator('.side')).toContainText('15 readings taken off the outline');
});

test('layers: a school, the damp, depths, and two sets side by side', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'layers');
  const left = page.getByRole('region', { name: 'Left wall' });
  await left.getByRole('button', { name: 'Start from a school' }).click();
  await page.getByRole('menuitem', { name: 'Sealed, foil on the warm side; boards on battens' }).click();
  await expect(left).toContainText('Vapour barrier foil');
  await page.getByRole('tab', { name: 'Warmth' }).click();
  await expect(page.getByRole('tabpanel')).toContainText('The metal is at');
  await expect(page.locator('.apexcharts-canvas')).toBeVisible();
  const loss = page.getByRole('heading', { name: /Heat that is lost/ });
  const before = await loss.textContent();
  await page.getByLabel('Outside, °C').fill('-15');
  await page.getByLabel('Outside, °C').press('Enter');
  await expect(loss).not.toHaveText(before ?? '');
  await page.getByRole('tab', { name: 'Depths' }).click();
  await expect(page.getByRole('region', { name: 'Window reveals' })).toContainText('Kitchen window');
  await expect(page.getByRole('img', { name: /Plan of the floor battens/ })).toBeVisible();
  await page.getByRole('tab', { name: 'Compare' }).click();
  const table = page.locator('table.compare');
  await expect(table).toContainText('Sealed, on battens');
  await page.getByRole('button', { name: 'Use Sealed, on battens' }).click();
  await expect(left).toContainText('Sound-deadening mat 2');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(left).not.toContainText('Sound-deadening mat 2');
});

test('the datum with this vehicle’s figures, its ribs and its level', async ({ page, request }) => {
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Datum' }).click();
  const marks = page.getByRole('region', { name: 'Find the centre line' });
  await expect(marks).toContainText(/Mark 89\d\.\d mm from the left wall/);
  await expect(marks).toContainText('the left rear corner lies further back');
  await expect(page.getByRole('region', { name: 'Ribs and sections' })).toContainText(
    'Kitchen window runs across rib 3',
  );
  await expect(page.getByRole('region', { name: 'The vehicle is not level' })).toContainText('Along: -0.8°');
  const line = page.getByRole('region', { name: 'String line for overheads' });
  await line.getByLabel('Height above the floor, mm').fill('1500');
  await line.getByLabel('Height above the floor, mm').press('Enter');
  await expect(line).toContainText(/1.500.mm up from the floor at the front and 1.500.mm at the rear/);
  await expect(line).toContainText('too high at the rear');
  // a slope is typed as a slope and refused as a length
  await page.getByRole('button', { name: 'Read it along' }).click();
  await page.locator('.big-entry').fill('steep');
  await page.locator('.big-entry').press('Enter');
  await expect(page.getByRole('alert')).toContainText('“steep” is not a slope');
  await page.locator('.big-entry').fill('1:50');
  await page.locator('.big-entry').press('Enter');
  await saved(page);
  expect((await projectOf(request, id)).project.survey.readings['level/along']?.at(-1)?.value).toBeCloseTo(1.146, 2);
});

test('readings that contradict each other and a window above the roof are said, pair by pair', async ({
  page,
  request,
}) => {
  const bulrush = ((await (await request.get('/api/projects')).json()) as { id: string; name: string }[]).find(
    (project) => project.name === 'Bulrush',
  );
  await openStage(page, bulrush?.id ?? '', 'measure');
  const side = page.locator('.side');
  await expect(side).toContainText(/43.in \+ 43 15\/16.in = 86 15\/16.in, taped 88.in! 1 1\/16 does not close/);
  await expect(side).toContainText('an inch off?');
  await expect(side).toContainText('Floor diagonals');
  const id = await ownDemo(request);
  await openStage(page, id, 'measure');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.getByLabel(/^A few letters/).fill('upper kitchen');
  await page.getByRole('button', { name: 'Again: Floor to the upper edge of Kitchen window' }).click();
  await page.locator('.big-entry').fill('2440');
  await page.locator('.big-entry').press('Enter');
  await expect(side).toContainText(/Kitchen window reaches 2.440 up, above the roof at 1.9\d\d/);
});

test('vehicles side by side, and a shell to start from', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Compare vehicles' }).click();
  const choose = page.getByRole('group', { name: 'Vehicles to compare' });
  await choose.getByRole('button', { name: 'Bulrush' }).last().click();
  await expect(page.getByRole('columnheader', { name: /Bulrush/ })).toBeVisible();
  // one system side by side, whatever each was measured in; the other on request
  const step = page.getByRole('row', { name: /Step at the door/ });
  await expect(step).toContainText('279 mm');
  await page.getByRole('group', { name: 'Millimetres or inches' }).getByRole('button', { name: 'inches' }).click();
  await expect(step).toContainText('11 in');
  await expect(page.getByRole('row', { name: /^Floor length/ })).not.toContainText('mm');
  const scan = await new AxeBuilder({ page }).analyze();
  expect(scan.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
});

for (const [stage, tabs] of [
  ['measure', ['Look round', 'Walk', 'Readings', 'Things', 'Datum', 'Found', 'In and out']],
  ['layers', ['Warmth', 'Depths', 'Compare']],
] as const) {
  test(`every part of ${stage} is free of serious accessibility findings`, async ({ page, request }) => {
    const id = await ownDemo(request);
    await openStage(page, id, stage);
    for (const tab of tabs) {
      await page.getByRole('tab', { name: tab }).click();
      await expect(page.getByRole('tabpanel')).not.toBeEmpty();
      const scan = await new AxeBuilder({ page }).analyze();
      const serious = scan.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
      expect(serious.map((v) => `${tab}: ${v.id} ${v.nodes[0]?.html ?? ''}`)).toEqual([]);
    }
  });
}
