import { mkdirSync } from 'node:fs';
import type { Server } from 'node:http';
import { dirname, resolve } from 'node:path';
import { createApp } from './app.js';
import { lockDatabase, LockedError, type Lock } from './database/lock.js';
import { OpeningError } from './database/before-opening.js';

/** Streams that are still open are cut after this long when the server is asked to end, ms. */
const CUT_AFTER_MS = 1000;

/** One line that says what to do. */
function saidOf(problem: unknown, port: number): string {
  if (problem instanceof LockedError || problem instanceof OpeningError) return problem.message;
  const code = problem instanceof Error && 'code' in problem ? String(problem.code) : '';
  if (code === 'EADDRINUSE') return `Port ${port} is in use. End what uses it, or choose another with PORT.`;
  if (code === 'EACCES') return `This may not be opened: ${problem instanceof Error ? problem.message : ''}.`;
  return problem instanceof Error ? problem.message : String(problem);
}

function portOf(text: string | undefined): number {
  const port = Number(text ?? 4310);
  if (Number.isInteger(port) && port >= 0 && port <= 65_535) return port;
  throw new OpeningError(`PORT is “${text ?? ''}”; a whole number from 0 to 65535 is wanted.`);
}

/** Opens the port; a port that is in use is an error like others, told once. */
function listening(server: Server, port: number): Promise<string> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      server.off('error', reject);
      const at = server.address();
      resolve(`http://127.0.0.1:${typeof at === 'object' && at ? at.port : port}`);
    });
  });
}

async function start(lock: Lock, database: string, port: number): Promise<void> {
  const app = await createApp({
    database,
    pages: process.env['NEST_PLANK_PAGES'],
    demo: process.env['NEST_PLANK_DEMO'],
    hosts: (process.env['NEST_PLANK_HOSTS'] ?? '').split(',').filter(Boolean),
  });
  const url = await listening(app.getHttpServer(), port);
  lock.tell(url);
  process.stdout.write(`Nest Plank is at ${url}\n`);
  const end = async (): Promise<void> => {
    const server = app.getHttpServer();
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), CUT_AFTER_MS).unref();
    await app.close();
    lock.release();
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void end());
}

let port = 0;
let lock: Lock | null = null;
try {
  port = portOf(process.env['PORT']);
  const database = resolve(process.env['NEST_PLANK_DB'] ?? 'data/nest-plank.sqlite');
  mkdirSync(dirname(database), { recursive: true });
  lock = lockDatabase(database);
  await start(lock, database, port);
} catch (problem) {
  lock?.release();
  process.stderr.write(`${saidOf(problem, port)}\n`);
  process.exit(1);
}
