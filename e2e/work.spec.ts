import { AxeBuilder } from '@axe-core/playwright';
import { expect, openStage, ownDemo, projectOf, ready, saved, test, unfold } from './support.js';

interface Recorded {
  readonly record?: {
    readonly tasks: readonly { task: string; done: string | null; minutes: number }[];
    readonly log: readonly { kind: string; text: string; task: string | null; photo: string | null }[];
  };
}

test('a day on a phone: begun, ticked, a mistake, a photo, with the server away for half of it', async ({
  page,
  request,
  consoleClean,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await ownDemo(request);
  const record = async (): Promise<NonNullable<Recorded['record']>> =>
    ((await projectOf(request, id)).project as unknown as Recorded).record ?? { tasks: [], log: [] };
  await openStage(page, id, 'work');
  const card = page.getByRole('article');
  const done = page.getByRole('button', { name: 'Done', exact: true }).first();
  // under the thumb without scrolling
  await expect(done).toBeInViewport();
  const first = await card.getByRole('heading', { level: 2 }).textContent();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await done.click();
  await expect(card.getByRole('heading', { level: 2 })).not.toHaveText(first ?? '');
  await expect(page.getByText(/^1 of \d+ done · /)).toBeVisible();
  await saved(page);
  expect((await record()).tasks.map((own) => own.done !== null)).toEqual([true]);

  const buffer = await page.screenshot();
  await page.getByLabel('Photo for the logbook').setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer });
  await expect(page.getByRole('img', { name: /^Photo of / })).toBeVisible();
  await saved(page);

  // the server is away: what is written and ticked stays, over a reload too
  await page.route('**/operations', (route) => route.abort());
  await page.getByRole('button', { name: 'Went wrong' }).click();
  await page.getByRole('textbox', { name: 'Write or say' }).fill('drilled 4 too deep beside the lamp');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.locator('.saved')).toHaveAttribute('data-state', 'waiting');
  await done.click();
  await page.reload();
  await ready(page);
  await expect(page.getByText('drilled 4 too deep beside the lamp')).toBeVisible();
  await expect(page.getByText(/^2 of \d+ done · /)).toBeVisible();
  await page.unroute('**/operations');
  await saved(page);
  const kept = await record();
  expect(kept.tasks.filter((own) => own.done !== null)).toHaveLength(2);
  expect(kept.log).toMatchObject([
    { kind: 'photo', text: '' },
    { kind: 'mistake', text: 'drilled 4 too deep beside the lamp' },
  ]);

  // a tick is taken back, by keyboard, and one press undoes that too
  await unfold(page, 'Done');
  await page
    .getByRole('button', { name: /^Not done after all: / })
    .first()
    .press('Enter');
  await expect(page.getByText(/^1 of \d+ done · /)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^2 of \d+ done · /)).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  // the browser itself reports the refused connections
  consoleClean.splice(0, consoleClean.length, ...consoleClean.filter((line) => !line.includes('ERR_FAILED')));
});
