// Development: the compiler, the server and the pages, each started again by itself when something changes.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureFolder, install, run, serverArguments } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
install(root);
run('npx', ['tsc', '-b'], { cwd: root });
ensureFolder(join(root, 'data'));
const start = (command, args, cwd, env = {}) =>
  spawn(command, args, { stdio: 'inherit', cwd, env: { ...process.env, ...env } });
const children = [
  start('npx', ['tsc', '-b', '--watch', '--preserveWatchOutput'], root),
  start(process.execPath, ['--watch', ...serverArguments(root)], root, {
    NEST_PLANK_DB: join(root, 'data/dev.sqlite'),
    NEST_PLANK_DEMO: join(root, 'demo'),
  }),
  start('npx', ['vite'], join(root, 'apps/web')),
];
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const child of children) child.kill(signal);
    process.exit(0);
  });
