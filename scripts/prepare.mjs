// Installs and builds what is missing or out of date.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const WATCHED = ['packages', 'apps'];
const SKIPPED = new Set(['node_modules', 'dist', 'dist-types']);

export function run(command, args, options = {}) {
  const result = spawnSync(command, args, {
    stdio: options.quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit',
    cwd: options.cwd,
    env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1', ...options.env },
  });
  if (result.status !== 0) {
    process.stderr.write(`${command} ${args.join(' ')} failed.\n`);
    process.exit(result.status ?? 1);
  }
}

/** A fingerprint of everything the build is made from. */
function fingerprint(root) {
  const hash = createHash('sha256');
  const walk = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) {
        if (!SKIPPED.has(entry.name)) walk(path);
      } else if (!entry.name.endsWith('.tsbuildinfo')) hash.update(path.slice(root.length)).update(readFileSync(path));
    }
  };
  for (const folder of WATCHED) walk(join(root, folder));
  return hash.digest('hex');
}

const readStamp = (path) => (existsSync(path) ? readFileSync(path, 'utf8') : '');

export function install(root, options = {}) {
  const stamp = join(root, 'node_modules', '.nest-plank-installed');
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (readStamp(stamp) === lock) return;
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, ...options });
  writeFileSync(stamp, lock);
}

/** Installs and builds; does nothing when both are up to date. */
export function prepare(root, options = {}) {
  install(root, options);
  const stamp = join(root, 'node_modules', '.nest-plank-built');
  const now = fingerprint(root);
  const built =
    existsSync(join(root, 'apps/web/dist/index.html')) &&
    existsSync(join(root, 'apps/server/dist/main.js')) &&
    existsSync(join(root, 'apps/cli/dist/bundle/main.js'));
  if (built && readStamp(stamp) === now) return;
  // with its output gone the compiler would still trust what it noted of the last build
  run('npx', ['tsc', '-b', ...(built ? [] : ['--force'])], { cwd: root, ...options });
  for (const part of ['apps/web', 'apps/cli'])
    run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, part), ...options });
  writeFileSync(stamp, now);
}

/** How the server is started: a small young generation keeps its memory low at no cost that can be measured. */
export const serverArguments = (root) => ['--max-semi-space-size=2', join(root, 'apps/server/dist/main.js')];

export function ensureFolder(path) {
  if (!existsSync(path) || !statSync(path).isDirectory()) mkdirSync(path, { recursive: true });
}
