// Sets everything up and serves the application with its API on one address.
// npm start              the database in data/, with the demo when it is new
// npm start -- --demo    a fresh demo in a database of its own
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureFolder, prepare, serverArguments } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
prepare(root);
const data = join(root, 'data');
ensureFolder(data);
const demo = process.argv.includes('--demo');
const database = demo
  ? join(data, `demo-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`)
  : (process.env.NEST_PLANK_DB ?? join(data, 'nest-plank.sqlite'));
const server = spawn(process.execPath, serverArguments(root), {
  stdio: 'inherit',
  env: {
    ...process.env,
    NEST_PLANK_DB: database,
    NEST_PLANK_PAGES: join(root, 'apps/web/dist'),
    NEST_PLANK_DEMO: join(root, 'demo'),
  },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
