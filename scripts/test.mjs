// Sets everything up, Debian's Chromium included, and runs types, lint, style, unit tests and browser tests.
// The last line says how many tests passed and failed.
import { Buffer } from 'node:buffer';
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { prepare } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const results = join(root, 'test-results');

function ensureChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    return (
      spawnSync(command, rest, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status === 0
    );
  };
  if (!apt('update') || !apt('install', '-y', 'chromium')) {
    process.stderr.write('Chromium is missing and could not be installed: apt-get install chromium\n');
    process.exit(1);
  }
}

function step(name, command, args, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const run = spawn(command, args, { stdio: 'inherit', cwd: root, env: { ...process.env, ...env } });
  return new Promise((resolve) => run.on('close', (code) => resolve({ name, ok: code === 0 })));
}

/** The same beside the others, behind them; what it said is shown when it has ended. */
function beside(name, command, args) {
  const run = spawn('nice', ['-n', '10', command, ...args], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  for (const stream of [run.stdout, run.stderr]) stream.on('data', (data) => said.push(data));
  return new Promise((resolve) => {
    run.on('close', (code) => {
      process.stdout.write(`\n== ${name}\n${Buffer.concat(said).toString()}`);
      resolve({ name, ok: code === 0 });
    });
  });
}

const readJson = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);

prepare(root);
ensureChromium();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
// types, lint and style take one core while the tests wait for servers and pages
const checked = beside('Types, lint and style', 'npm', ['run', '--silent', 'check']);
const steps = [
  await step('Unit tests', 'npx', [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${join(results, 'unit.json')}`,
  ]),
  await step('Browser tests', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: join(results, 'browser.json'),
  }),
  await checked,
];
const unit = readJson(join(results, 'unit.json'));
const browser = readJson(join(results, 'browser.json'));
let passed = (unit?.numPassedTests ?? 0) + (browser?.stats.expected ?? 0);
let failed = (unit?.numFailedTests ?? 0) + (browser?.stats.unexpected ?? 0) + (browser?.stats.flaky ?? 0);
for (const { name, ok } of steps) {
  if (!ok) process.stdout.write(`${name}: failed\n`);
  if (name.startsWith('Types')) ok ? (passed += 1) : (failed += 1);
}
if (steps.some(({ ok }) => !ok) && failed === 0) failed = 1;
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
