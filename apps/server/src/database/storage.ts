import { accessSync, constants, statfsSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import type { StorageTrouble } from '@nestplank/contract';
import { RefusedError } from '../refusals.js';

/** With less room than this on the disk nothing more is promised, bytes. */
const LEAST_FREE = 4 * 1024 * 1024;

/** What SQLite's result codes mean for whoever waits; `failed` for all that have no name of their own. */
const CODES: readonly (readonly [RegExp, StorageTrouble])[] = [
  [/SQLITE_FULL|disk is full|ENOSPC/, 'full'],
  [/SQLITE_READONLY|readonly database|EROFS|EACCES/, 'read-only'],
  [/SQLITE_CORRUPT|SQLITE_NOTADB|malformed|not a database/, 'damaged'],
  [/SQLITE_CANTOPEN|unable to open database file|ENOENT/, 'gone'],
  [/SQLITE_IOERR|SQLITE_BUSY|SQLITE_LOCKED|disk I\/O error|database is locked/, 'failed'],
];

/** What kept the database from doing its work; null when the problem is none of storage. */
export function troubleOf(problem: unknown): StorageTrouble | null {
  // what a thread failed with comes over as a plain object
  const code = (source: unknown): string =>
    typeof source === 'object' && source !== null
      ? `${'code' in source ? String(source.code) : ''} ${'message' in source ? String(source.message) : ''}`
      : '';
  const inner =
    typeof problem === 'object' && problem !== null && 'driverError' in problem ? problem.driverError : null;
  const text = `${code(problem)} ${code(inner)}`;
  return CODES.find(([pattern]) => pattern.test(text))?.[1] ?? null;
}

const SAID: Readonly<Record<StorageTrouble, string>> = {
  full: 'The disk is full: nothing of this was kept. Make room; what waits is sent again by itself.',
  'read-only':
    'The database cannot be written to: nothing of this was kept. Look at the rights of its file and folder.',
  damaged:
    'The database is damaged: nothing of this was kept. It can still be read where it is whole; put a backup in its place.',
  gone: 'The database file is not where it was: nothing of this was kept. Put it back, or start the server again.',
  failed: 'The database did not take this: nothing of it was kept. It is tried again by itself.',
};
const INSUFFICIENT_STORAGE = 507;
const UNAVAILABLE = 503;

/** The refusal of something that could not be kept. */
export const storageRefusal = (trouble: StorageTrouble): RefusedError =>
  new RefusedError(trouble === 'full' ? INSUFFICIENT_STORAGE : UNAVAILABLE, 'storage', SAID[trouble], { trouble });

/** The database's file, to be known again: a file that was deleted or replaced takes nothing any more that lasts. */
export function fileMark(path: string): number | null {
  try {
    return statSync(path).ino;
  } catch {
    return null;
  }
}

/** What the file system says before anything is tried: no room, no right to write, no file. */
export function fileTrouble(path: string, mark: number | null): StorageTrouble | null {
  if (mark !== null && fileMark(path) !== mark) return 'gone';
  try {
    const { bavail, bsize } = statfsSync(dirname(path));
    if (bavail * bsize < LEAST_FREE) return 'full';
    accessSync(path, constants.W_OK);
    accessSync(dirname(path), constants.W_OK);
  } catch (problem) {
    return troubleOf(problem) ?? 'failed';
  }
  return null;
}
