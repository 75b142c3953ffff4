import { existsSync, statSync } from 'node:fs';
import Libsql from 'libsql';
import { copyDatabase, writeBackup } from '../backups/backup-files.js';
import { databaseOptions } from './database.module.js';

/** A database that cannot be opened as it is; its message says in one line what to do. */
export class OpeningError extends Error {}

/** The names of the migrations this release knows. */
function knownMigrations(): Set<string> {
  const { migrations } = databaseOptions('');
  return new Set(
    Object.values(migrations ?? {}).map((migration) => (typeof migration === 'function' ? migration.name : '')),
  );
}

/**
 * Looks at a database before it is opened: one that a later release has changed is refused, and before its tables are
 * changed by this release it is kept as a backup.
 * @throws OpeningError
 */
export async function beforeOpening(path: string): Promise<void> {
  if (!existsSync(path)) return;
  if (!statSync(path).isFile())
    throw new OpeningError(`${path} is a folder, not a database. Name a file in NEST_PLANK_DB.`);
  let database: Libsql.Database | null = null;
  try {
    database = new Libsql(path);
    const tables = database.prepare(`SELECT name FROM sqlite_master WHERE name = 'migrations'`).all() as unknown[];
    if (tables.length === 0) return;
    const done = (database.prepare('SELECT name FROM migrations').all() as { name: string }[]).map((row) => row.name);
    const known = knownMigrations();
    const later = done.filter((name) => !known.has(name));
    if (later.length > 0)
      throw new OpeningError(
        `${path} was written by a later release of Nest Plank (${later.join(', ')}). Use that release.`,
      );
    if (done.length < known.size) await writeBackup(path, 'migration', new Date(), (to) => copyDatabase(path, to));
  } catch (problem) {
    if (problem instanceof OpeningError) throw problem;
    throw new OpeningError(
      `${path} cannot be opened as a database: ${problem instanceof Error ? problem.message : String(problem)}. Put a backup in its place with npm run restore.`,
    );
  } finally {
    database?.close();
  }
}
