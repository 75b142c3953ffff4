import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, ready, saved, test } from './support.js';

const root = fileURLToPath(new URL('..', import.meta.url));
const READINGS = 60;
const TICKS = 20;

interface Kept {
  readonly survey: { readonly readings: Record<string, { value: number }[]> };
  readonly keptPlans: { readonly material: string; readonly sheets: { readonly done: unknown[] }[] }[];
}

const ticked = ({ keptPlans }: Kept): number =>
  keptPlans
    .find(({ material }) => material === 'birch-15')
    ?.sheets.reduce((sum, sheet) => sum + sheet.done.length, 0) ?? 0;

/** A server of the test's own, which can be killed. */
function serve(folder: string, port: string): Promise<{ server: ChildProcess; base: string }> {
  const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
    env: {
      ...process.env,
      PORT: port,
      NEST_PLANK_DB: join(folder, 'own.sqlite'),
      NEST_PLANK_PAGES: join(root, 'apps/web/dist'),
      NEST_PLANK_DEMO: join(root, 'demo/wren.json'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`ended with ${String(code)}`)));
    server.stdout.on('data', (data: Buffer) => {
      const base = /http:\/\/\S+/.exec(data.toString())?.[0];
      if (base) resolve({ server, base });
    });
  });
}

/** Readings go to two places in turn: one place keeps so many. */
const PLACES = [
  { letters: 'floor length', again: /^Again: Floor length/, address: 'floor/length', from: 2900 },
  { letters: 'diagonal', again: /^Again: Floor diagonal, front left/, address: 'floor/diagonal-a', from: 3900 },
] as const;

test('readings and ticks made while the server is killed and started again arrive whole and in order', async ({
  page,
  consoleClean,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'nest-plank-own-'));
  let { server, base } = await serve(folder, '0');
  const stop = async (): Promise<void> => {
    server.removeAllListeners('exit');
    server.kill('SIGKILL');
    await expect.poll(() => server.signalCode).toBe('SIGKILL');
  };
  const startAgain = async (): Promise<void> => {
    await expect(page.locator('.saved')).toContainText(/\d+ not saved: the server does not answer/);
    ({ server, base } = await serve(folder, new URL(base).port));
  };
  const arrived = async (): Promise<void> => {
    await page.locator('.saved').click();
    const now = page.getByRole('dialog').getByRole('button', { name: 'Try now' });
    // what has been sent by itself meanwhile takes the button away
    if (await now.isVisible()) await now.click({ timeout: 3000 }).catch(() => undefined);
    await page.keyboard.press('Escape');
    await saved(page);
  };
  const kept = async (): Promise<Kept> =>
    ((await (await page.request.get(`${base}/api/projects/wren`)).json()) as { project: Kept }).project;
  try {
    await page.goto(`${base}/build/wren/measure`);
    await ready(page);
    const line = page.locator('#the-line');
    for (let i = 0; i < READINGS; i += 1) {
      const place = PLACES[i % 2] ?? PLACES[0];
      await page.getByRole('tab', { name: 'Readings' }).click();
      await page.getByLabel(/^A few letters/).fill(place.letters);
      await page.getByRole('button', { name: place.again }).click();
      if (i === 15) await stop();
      await line.fill(String(place.from + i));
      await line.press('Enter');
      await expect(line).toHaveValue('');
      if (i === 40) await startAgain();
    }
    await arrived();
    const { survey } = await kept();
    for (const [n, { address, from }] of PLACES.entries()) {
      const typed = Array.from({ length: READINGS / 2 }, (_, i) => from + n + 2 * i);
      expect(survey.readings[address]?.map(({ value }) => value).slice(-typed.length)).toEqual(typed);
    }

    const before = ticked(await kept());
    await page.goto(`${base}/build/wren/cut`);
    await ready(page);
    await page.getByRole('group', { name: 'Materials' }).getByRole('button', { name: 'Birch plywood 15' }).click();
    await page.keyboard.press('b');
    const bench = page.getByRole('main', { name: 'Bench view' });
    const counter = bench.locator('.bench-head .figures');
    for (let i = 0; i < TICKS; i += 1) {
      if (i === 5) await stop();
      const number = (await counter.textContent()) ?? '';
      await bench.getByRole('button', { name: 'Done' }).click();
      await expect(counter).not.toHaveText(number);
    }
    await bench.getByRole('button', { name: 'Close' }).click();
    await startAgain();
    await arrived();
    expect(ticked(await kept())).toBe(before + TICKS);
  } finally {
    server.removeAllListeners('exit');
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
  // the browser itself reports the refused connections, and an answer that the end of the server cut short
  consoleClean.splice(
    0,
    consoleClean.length,
    ...consoleClean.filter((line) => !/ERR_CONNECTION|ERR_INCOMPLETE/.test(line)),
  );
});
