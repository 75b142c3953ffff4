import { expect, openStage, projectOf, ready, saved, say, SEARCHED, test } from './support.js';
import type { Page } from '@playwright/test';

/** A van with leaning walls as a person would type it: by the height that is asked for, the place across, the number of the station. */
interface Typed {
  readonly length: string;
  readonly x: readonly string[];
  readonly wall: Readonly<Record<string, string>>;
  readonly roof: { readonly middle: string; readonly side: string };
  readonly diagonal: string;
}
const MM: Typed = {
  length: '3600',
  x: ['100', '780', '1460', '2140', '2820', '3500'],
  wall: { '0': '890', '450': '915', '900': '925', '1 350': '895', '1 650': '820' },
  roof: { middle: '1880', side: '1860' },
  diagonal: '4016',
};
const INCHES: Typed = {
  length: '141 3/4',
  x: ['4', '30 3/4', '57 1/2', '84 1/4', '111', `11' 5 7/8"`],
  wall: { '0': '35', '17 11/16': '36', '35 7/16': '36 3/8', '53 1/8': '35 1/4', '64 15/16': '32 1/4' },
  roof: { middle: '74', side: '73 1/4' },
  diagonal: '158 1/8',
};

/** What is typed for the reading that the heading asks for. */
function answerTo(heading: string, typed: Typed, arch: readonly string[]): string {
  const plain = heading.replace(/[\u202f\u00a0]/g, ' ');
  const station = /Front datum to Station (\d)/.exec(plain);
  const wall = /(?:left|right) wall, (.+?)(?: in)? up/.exec(plain);
  if (/Floor length/.test(plain)) return typed.length;
  if (station) return typed.x[Number(station[1]) - 1] ?? '';
  if (wall) return typed.wall[wall[1] ?? ''] ?? '';
  if (/to roof/.test(plain)) return /of the centre line/.test(plain) ? typed.roof.side : typed.roof.middle;
  if (/diagonal/.test(plain)) return typed.diagonal;
  if (/to the front of the/.test(plain)) return arch[0] ?? '';
  if (/to the rear of the/.test(plain)) return arch[1] ?? '';
  if (/Height of the/.test(plain)) return arch[2] ?? '';
  return /face of the/.test(plain) ? (arch[3] ?? '') : '';
}

/** Takes every reading the walk asks for, but the diagonals, which cannot be reached. */
async function takeReadings(page: Page, readings: Typed, arch: readonly string[]): Promise<void> {
  const entry = page.locator('.big-entry');
  const heading = page.getByRole('heading', { level: 1 });
  for (let i = 0; i < 90; i += 1) {
    const asked = (await heading.textContent()) ?? '';
    if (/diagonal/.test(asked)) await page.getByRole('button', { name: 'Cannot reach' }).click();
    else {
      await entry.fill(answerTo(asked, readings, arch));
      await entry.press('Enter');
    }
    await expect(async () => {
      const now = (await heading.count()) === 0 ? null : await heading.textContent();
      expect(now).not.toBe(asked);
    }).toPass();
    if ((await heading.count()) === 0) return;
  }
}

for (const [units, readings, arch] of [
  ['millimetres', MM, ['2500', '3200', '260', '700']],
  ['inches', INCHES, ['98 1/2', '126', '10 1/4', '27 1/2']],
] as const) {
  test(`the whole way from an empty vehicle to an ordered plan, in ${units}`, async ({ page, request }) => {
    // start an empty one
    await page.goto('/');
    await page.getByRole('button', { name: 'Start a build' }).click();
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await expect(page.getByText('A build needs a name.')).toBeVisible();
    await page.getByLabel('Name of the build').fill(`Sparrow ${units}`);
    await page.getByLabel('Vehicle', { exact: true }).fill('Halden Runabout');
    if (units === 'inches') {
      await page.getByRole('combobox', { name: 'Tape' }).click();
      await page.getByRole('option', { name: 'inches' }).click();
    }
    await page.getByRole('spinbutton', { name: 'Year' }).click();
    await page.keyboard.type('20261130');
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await page.waitForURL(/\/measure$/);
    const id = /build\/([^/]+)\//.exec(page.url())?.[1] ?? '';
    await ready(page);

    // measure
    await page.getByRole('tab', { name: 'Walk' }).click();
    await takeReadings(page, readings, arch);
    await expect(page.getByRole('group', { name: /Fold-out/ })).toBeVisible();
    await expect(page.locator('.tape-mark').first()).toContainText(/± .* to go|known to ±/);

    // layers
    await page.getByRole('link', { name: /Layers/ }).click();
    const floor = page.getByRole('region', { name: 'Floor' });
    await floor.getByRole('button', { name: 'Add a layer' }).click();
    await floor.getByRole('combobox', { name: 'Material' }).click();
    await page.getByRole('option', { name: 'Birch plywood 12', exact: true }).click();
    await floor.getByLabel('cut as subfloor').check();
    await expect(floor).toContainText(units === 'inches' ? 'takes 1/2' : 'takes 12');
    for (const wall of ['Left wall', 'Right wall']) {
      const sample = page.getByRole('region', { name: wall });
      await sample.getByRole('button', { name: 'Add a layer' }).click();
      await sample.getByRole('combobox', { name: 'Material' }).click();
      await page.getByRole('option', { name: 'Grooved pine boards 9' }).click();
    }
    await expect(page.getByRole('table').first()).toContainText('Standing height');

    // people, bed, cupboard
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'People and settings' }).click();
    await page.getByRole('button', { name: 'Add a person' }).click();
    await page.getByLabel(/Stature/).fill(units === 'inches' ? '67' : '1700');
    await page.getByLabel(/Stature/).press('Enter');
    await page.getByRole('button', { name: 'Close' }).click();
    await page.keyboard.press('3');
    for (const name of ['Bed across the rear', 'Base cupboard']) {
      await page.getByRole('button', { name: /Put in by name/ }).click();
      await page.getByRole('menuitem', { name }).click();
    }
    await expect(page.getByRole('button', { name: /^Cupboard,/ })).toBeVisible();
    // by the line
    await say(page, units === 'inches' ? 'cupboard back 4' : 'cupboard back 100');
    await saved(page);
    const moved = (await projectOf(request, id)).project.layout.units.find((unit) => unit.id === 'cupboard');
    expect(moved?.body.x).toBe(units === 'inches' ? 101.6 : 100);
    // by hand on the fold-out, once the menu before it has faded
    await expect(page.locator('.MuiPopover-root')).toHaveCount(0);
    const unit = page.locator('[data-unit=cupboard]');
    const box = await unit.boundingBox();
    if (!box) throw new Error('the cupboard is not drawn');
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 30, { steps: 6 });
    await page.mouse.up();
    // what is let go is sent in its own turn
    const standsAt = async (): Promise<number> =>
      (await projectOf(request, id)).project.layout.units.find((candidate) => candidate.id === 'cupboard')?.body.x ?? 0;
    await expect.poll(standsAt).toBeGreaterThan((moved?.body.x ?? 0) + 100);
    const dragged = await standsAt();
    await expect(page.locator('.notes')).toContainText(/Person 1/);

    // parts, cut, buy, work
    await page.keyboard.press('4');
    await expect(page.locator('[data-piece^="floor.board"]').first()).toBeVisible();
    await page.getByRole('button', { name: 'Bed', exact: true }).click();
    await page.locator('[data-part="bed.board-1"]').click();
    await expect(page.locator('.side')).toContainText('Scribe edge');
    await page.keyboard.press('5');
    await page.getByRole('button', { name: 'Search for fewer sheets' }).click();
    await expect(page.getByRole('button', { name: 'Search for fewer sheets' })).toBeVisible(SEARCHED);
    await expect(page.locator('.proof').first()).toContainText(/Proved|no plan is under/);
    const figure = await page.locator('.tape-mark').nth(4).textContent();
    await page.keyboard.press('6');
    await expect(page.getByRole('cell', { name: /Birch plywood 12/ }).first()).toBeVisible();
    await page.keyboard.press('7');
    await expect(page.locator('.side')).toContainText(/floor adhesive cures 34 h at 15 °C/);
    await saved(page);

    // come back tomorrow: all is as it was left
    await page.reload();
    await ready(page);
    await expect(page.locator('.tape-mark').nth(4)).toHaveText(figure ?? '');
    await openStage(page, id, 'layout');
    expect(
      (await projectOf(request, id)).project.layout.units.find((candidate) => candidate.id === 'cupboard')?.body.x,
    ).toBe(dragged);

    // take the drawings away
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Files' }).click();
    await page.getByRole('button', { name: 'Cut diagrams (PDF)' }).click();
    expect((await download).suggestedFilename()).toMatch(/cut-diagrams\.pdf$/);
  });
}
