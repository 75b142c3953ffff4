import { defineConfig } from '@playwright/test';
import { CHROMIUM, FLAT, OTHER_NAME } from './chromium.js';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const port = 4391;

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  timeout: 300_000,
  expect: { timeout: 60_000 },
  // pages wait for the server and for their workers about a third of the time
  workers: 3,
  fullyParallel: false,
  retries: 0,
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ?? join(root, 'test-results/browser.json') }],
  ],
  outputDir: join(root, 'test-results/browser'),
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { ...CHROMIUM, args: [...CHROMIUM.args, ...FLAT] },
  },
  webServer: {
    command: `${process.execPath} ${join(root, 'apps/server/dist/main.js')}`,
    url: `http://127.0.0.1:${port}/api/health`,
    env: {
      PORT: String(port),
      NEST_PLANK_DB: join(tmpdir(), `nest-plank-e2e-${process.pid}-${Date.now()}.sqlite`),
      NEST_PLANK_PAGES: join(root, 'apps/web/dist'),
      NEST_PLANK_DEMO: join(root, 'demo'),
      LOG_LEVEL: 'silent',
      NEST_PLANK_HOSTS: OTHER_NAME,
    },
    reuseExistingServer: false,
  },
});
