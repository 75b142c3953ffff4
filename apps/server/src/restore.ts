import { existsSync, writeFileSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { backupFault, backupFolder, backupsOf, copyDatabase, keepBefore } from './backups/backup-files.js';
import { EverythingService } from './backups/everything.service.js';
import { createApp } from './app.js';
import { logger } from './logger.js';
import { putInPlace } from './backups/backups.service.js';
import { lockDatabase, LockedError } from './database/lock.js';

logger.level = 'silent';

/** Saves out what can be read of a damaged database before another takes its place; says where, or why not. */
async function savedOut(database: string, file: string): Promise<string> {
  try {
    const app = await createApp({ database });
    try {
      writeFileSync(file, await app.get(EverythingService).archive());
      return ` What of it can be read is in ${file}, to be taken in where it is wanted.`;
    } finally {
      await app.close();
    }
  } catch (problem) {
    return ` Nothing of it could be saved out: ${problem instanceof Error ? problem.message : String(problem)}`;
  }
}

/** Puts a backup in place of the database, after a look through it; what is there is kept as a backup first. */
async function restore(database: string, wanted: string | undefined): Promise<string> {
  if (wanted === undefined) {
    const list = backupsOf(database).map(
      ({ name, bytes, ahead }) =>
        `${name}  ${(bytes / 1e6).toFixed(1)} MB${ahead ? '  (made under a clock that was ahead)' : ''}`,
    );
    return list.length === 0 ? `There are no backups of ${database}.` : list.join('\n');
  }
  const path = existsSync(wanted) ? resolve(wanted) : join(backupFolder(database), wanted);
  if (!existsSync(path)) throw new Error(`There is no backup ${wanted}. Without a name they are listed.`);
  const fault = backupFault(path);
  if (fault !== null) throw new Error(`${wanted} is not put in place. ${fault}`);
  const lock = lockDatabase(database);
  try {
    let kept = '';
    if (existsSync(database)) {
      const before = await keepBefore(database, (to) => copyDatabase(database, to), basename(path));
      kept =
        before.backup === null
          ? ` What was there was not whole; the file is kept as ${before.kept}.${await savedOut(database, `${before.kept}.zip`)}`
          : ` What was there is kept as ${before.kept}.`;
    }
    putInPlace(path, database);
    return `${wanted} is in place.${kept}`;
  } finally {
    lock.release();
  }
}

try {
  const database = resolve(process.env['NEST_PLANK_DB'] ?? 'data/nest-plank.sqlite');
  process.stdout.write(`${await restore(database, process.argv[2])}\n`);
} catch (problem) {
  const said = problem instanceof LockedError || problem instanceof Error ? problem.message : String(problem);
  process.stderr.write(`${said}\n`);
  process.exitCode = 1;
}
