import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { createApp } from './app.js';
import { EverythingService } from './backups/everything.service.js';
import { lockDatabase } from './database/lock.js';
import { logger } from './logger.js';

logger.level = 'silent';

/** Takes everything out into an archive of open files, or takes such an archive in. The server must not be running. */
async function archive(database: string, direction: string | undefined, file: string | undefined): Promise<string> {
  if ((direction !== 'out' && direction !== 'in') || file === undefined)
    throw new Error('Say “out FILE.zip” to take everything out, “in FILE.zip” to take an archive in.');
  const given = direction === 'in' ? readFileSync(file) : null;
  const lock = lockDatabase(database);
  try {
    const app = await createApp({ database });
    try {
      const everything = app.get(EverythingService);
      if (!given) {
        const content = await everything.archive();
        writeFileSync(file, content);
        return `${file} holds everything, ${(content.length / 1e6).toFixed(1)} MB.`;
      }
      const { ids, refused } = await everything.takeIn(given);
      const lines = refused.map((one) => `Not taken in: ${one.file}: ${one.why}`);
      return [`Taken in: ${ids.join(', ')}.`, ...lines].join('\n');
    } finally {
      await app.close();
    }
  } finally {
    lock.release();
  }
}

try {
  const database = resolve(process.env['NEST_PLANK_DB'] ?? 'data/nest-plank.sqlite');
  process.stdout.write(`${await archive(database, process.argv[2], process.argv[3])}\n`);
} catch (problem) {
  process.stderr.write(`${problem instanceof Error ? problem.message : String(problem)}\n`);
  process.exitCode = 1;
}
