// Takes the pictures of docs/screenshots anew from the demo, or one picture for a look:
// node scripts/pictures.mjs
// node scripts/pictures.mjs --out /tmp/look --only measure --size 820x1180 --theme dark --units in
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { chromium } from '@playwright/test';
import { VIEWS } from './views.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const { values } = parseArgs({
  options: {
    out: { type: 'string', default: join(root, 'docs/screenshots') },
    only: { type: 'string', multiple: true },
    size: { type: 'string', default: '1280x800' },
    theme: { type: 'string', default: 'light' },
    units: { type: 'string', default: 'mm' },
  },
});
const [width, height] = values.size.split('x').map(Number);
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-pictures-'));
mkdirSync(values.out, { recursive: true });
const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
  env: {
    ...process.env,
    PORT: '0',
    NEST_PLANK_DB: join(folder, 'pictures.sqlite'),
    NEST_PLANK_PAGES: join(root, 'apps/web/dist'),
    NEST_PLANK_DEMO: join(root, 'demo'),
  },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const base = await new Promise((resolve) => {
  server.stdout.on('data', (data) => {
    const found = /http:\/\/\S+/.exec(String(data))?.[0];
    if (found) resolve(found);
  });
});
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--disable-background-networking'],
});
try {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.addInitScript((theme) => window.localStorage.setItem('nest-plank.theme', theme), values.theme);
  const projects = await (await fetch(`${base}/api/projects`)).json();
  for (const [name, view] of Object.entries(VIEWS)) {
    if (values.only && !values.only.includes(name)) continue;
    const project = projects.find((candidate) => candidate.name.startsWith(view.project ?? 'Wren'));
    if (values.units === 'in' && project) {
      const { revision } = await (await fetch(`${base}/api/projects/${project.id}`)).json();
      await fetch(`${base}/api/projects/${project.id}/operations`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          revision,
          steps: [{ id: randomUUID(), name: 'changeSettings', payload: { changes: { units: 'in' } } }],
        }),
      });
    }
    await page.setViewportSize({ width: view.size?.[0] ?? width, height: view.size?.[1] ?? height });
    await page.goto(view.path.startsWith('/') ? `${base}${view.path}` : `${base}/build/${project.id}/${view.path}`);
    await page.waitForLoadState('networkidle');
    if (!view.path.startsWith('/'))
      await page.waitForFunction(
        () => window.document.querySelector('.tape-mark')?.textContent?.includes('working it out') === false,
      );
    await view.act?.(page);
    await page.evaluate(() => document.fonts.ready);
    // a drawing takes its last size in a frame after what stands beside it, and without a monitor frames have to be asked for
    await page.evaluate(async () => {
      for (let frame = 0; frame < 40; frame += 1) await new Promise((done) => requestAnimationFrame(done));
    });
    await page.screenshot({ path: join(values.out, `${name}.png`), animations: 'disabled' });
    process.stdout.write(`${name}\n`);
  }
} finally {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
