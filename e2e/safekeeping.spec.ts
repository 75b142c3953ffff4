import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, ready, test } from './support.js';

const root = fileURLToPath(new URL('..', import.meta.url));
const READINGS = 45;

/** A server of the test's own, which can be killed. */
function serve(folder: string, port: string): Promise<{ server: ChildProcess; base: string }> {
  const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
    env: {
      ...process.env,
      PORT: port,
      NEST_PLANK_DB: join(folder, 'own.sqlite'),
      NEST_PLANK_PAGES: join(root, 'apps/web/dist'),
      NEST_PLANK_DEMO: join(root, 'demo/thimble.json'),
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

test('readings typed while the server is killed and started again arrive whole and in order', async ({
  page,
  consoleClean,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'nest-plank-own-'));
  let { server, base } = await serve(folder, '0');
  try {
    await page.goto(`${base}/build/thimble/measure`);
    await ready(page);
    await page.getByRole('tab', { name: 'Readings' }).click();
    await page.getByLabel(/^A few letters/).fill('floor length');
    await page.getByRole('button', { name: /^Again: Floor length/ }).click();
    const line = page.locator('#the-line');
    for (let i = 0; i < READINGS; i += 1) {
      if (i === 15) {
        server.removeAllListeners('exit');
        server.kill('SIGKILL');
        await expect.poll(() => server.signalCode).toBe('SIGKILL');
      }
      // the same place again and again, each time another figure
      await line.fill(String(2900 + i));
      await line.press('Enter');
      await expect(line).toHaveValue('');
      if (i === 30) {
        await expect(page.locator('.saved')).toContainText(/\d+ not saved: the server does not answer/);
        ({ server, base } = await serve(folder, new URL(base).port));
      }
      await page.getByRole('tab', { name: 'Readings' }).click();
      await page.getByRole('button', { name: /^Again: Floor length/ }).click();
    }
    await page.locator('.saved').click();
    const now = page.getByRole('dialog').getByRole('button', { name: 'Try now' });
    if (await now.isVisible()) await now.click();
    await expect(page.locator('.saved')).toHaveAttribute('data-state', 'saved');
    const { project } = (await (await page.request.get(`${base}/api/projects/thimble`)).json()) as {
      project: { survey: { readings: Record<string, { value: number }[]> } };
    };
    const kept = project.survey.readings['floor/length']?.map((reading) => reading.value) ?? [];
    const typed = Array.from({ length: READINGS }, (_, i) => 2900 + i);
    expect(kept.slice(-Math.min(kept.length, READINGS))).toEqual(typed.slice(-kept.length));
    expect(kept.length).toBeGreaterThan(10);
  } finally {
    server.removeAllListeners('exit');
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
  // the browser itself reports the refused connections
  consoleClean.splice(0, consoleClean.length, ...consoleClean.filter((line) => !line.includes('ERR_CONNECTION')));
});
