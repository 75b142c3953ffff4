// Runs the command line, building it first when it has not been built.
import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const entry = `${root}/apps/cli/dist/bundle/main.js`;
if (!existsSync(entry)) {
  const { prepare } = await import('./prepare.mjs');
  prepare(root, { quiet: true });
}
const run = spawnSync(process.execPath, [entry, ...process.argv.slice(2)], { stdio: 'inherit' });
process.exitCode = run.status ?? 1;
