import { closeSync, openSync, readFileSync, rmSync, statSync, utimesSync, writeSync } from 'node:fs';

/** Who holds a database. */
export interface Owner {
  readonly pid: number;
  readonly since: string;
  readonly url: string;
}
/** A lock whose owner has not been heard of for this long is an old one, ms. */
const STALE_MS = 30_000;
const BEAT_MS = 5000;

/** A second server on the same database. */
export class LockedError extends Error {
  constructor(
    readonly owner: Owner,
    path: string,
  ) {
    super(
      `The database ${path} is in use by the server at ${owner.url === '' ? '(starting)' : owner.url}, process ${owner.pid}, since ${owner.since}. Use that one, or stop it first.`,
    );
  }
}

const alive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (problem) {
    return problem instanceof Error && 'code' in problem && problem.code === 'EPERM';
  }
};

function ownerOf(file: string): Owner | null {
  try {
    const owner = JSON.parse(readFileSync(file, 'utf8')) as Owner;
    const heard = Date.now() - statSync(file).mtimeMs < STALE_MS;
    return heard && owner.pid !== process.pid && alive(owner.pid) ? owner : null;
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
 * Takes a database for this process alone. What a killed server left is taken over: its process is gone, or has not been
 * heard of.
 * @throws LockedError when another server has it
 */
export function lockDatabase(path: string): Lock {
  const file = `${path}.lock`;
  const owner = ownerOf(file);
  if (owner) throw new LockedError(owner, path);
  rmSync(file, { force: true });
  const since = new Date().toISOString();
  let handle: number;
  try {
    handle = openSync(file, 'wx');
  } catch (problem) {
    const other = ownerOf(file);
    throw other ? new LockedError(other, path) : problem;
  }
  const write = (url: string): void => {
    const text = JSON.stringify({ pid: process.pid, since, url } satisfies Owner);
    writeSync(handle, text, 0);
  };
  write('');
  const beat = setInterval(() => {
    const now = new Date();
    try {
      utimesSync(file, now, now);
    } catch {
      // the folder is gone: the database says so itself
    }
  }, BEAT_MS).unref();
  return {
    tell: write,
    release: () => {
      clearInterval(beat);
      closeSync(handle);
      rmSync(file, { force: true });
    },
  };
}
