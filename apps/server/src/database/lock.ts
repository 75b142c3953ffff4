import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import Libsql from 'libsql';

/** Who holds a database. */
export interface Owner {
  readonly pid: number;
  readonly since: string;
  readonly url: string;
}
/** A second server on the same database. */
export class LockedError extends Error {
  constructor(
    readonly owner: Owner | null,
    path: string,
  ) {
    super(
      owner
        ? `The database ${path} is in use by the server at ${owner.url === '' ? '(starting)' : owner.url}, process ${owner.pid}, since ${owner.since}. Use that one, or stop it first.`
        : `The database ${path} is in use by another process. Use that one, or stop it first.`,
    );
  }
}

/** Who says that it holds a database; null where nobody does. */
function ownerOf(file: string): Owner | null {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Owner;
  } catch {
    return null;
  }
}

export interface Lock {
  /** Says where the server is reached, for whoever finds the lock. */
  readonly tell: (url: string) => void;
  readonly release: () => void;
}

/**
 * Takes a database for this process alone. The operating system holds the lock, on an empty file beside the database, as long
 * as the process lives, asleep or not: what a killed server left is free at once, and nothing is taken from one that only
 * slept. Who it is stands in a file beside that, for people; it holds nothing.
 * @throws LockedError when another process has it
 */
export function lockDatabase(path: string): Lock {
  const file = `${path}.lock`;
  const held = new Libsql(`${path}.held`, { timeout: 0 });
  try {
    // never read or closed by other means: that would let go of it
    held.exec('BEGIN EXCLUSIVE');
  } catch (problem) {
    held.close();
    if (problem instanceof Error && 'code' in problem && String(problem.code).startsWith('SQLITE_BUSY'))
      throw new LockedError(ownerOf(file), path);
    throw problem;
  }
  const since = new Date().toISOString();
  const write = (url: string): void =>
    writeFileSync(file, JSON.stringify({ pid: process.pid, since, url } satisfies Owner));
  write('');
  return {
    tell: write,
    release: () => {
      rmSync(file, { force: true });
      held.close();
    },
  };
}
