import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import Libsql from 'libsql';
import type { BackupKind, BackupView } from '@nestplank/contract';
import { troubleOf } from '../database/storage.js';
import { RefusedError } from '../refusals.js';

/** So many of each kind are kept; the oldest makes room, and that is said where they are listed. */
export const KEPT: Readonly<Record<BackupKind, number>> = { daily: 7, hand: 10, migration: 5 };

/** Kind, time, and which one it is of all that were made: a clock may be wrong, a count is not. Older ones have none. */
const NAME = /^(daily|hand|migration)-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}-\d{3})Z(?:-(\d{6,}))?\.sqlite$/;
/** Clocks of one machine differ by no more than this between two looks, ms. */
const CLOCK_MS = 60_000;

/** Backups stand in a folder beside the database. */
export const backupFolder = (database: string): string => join(dirname(database), 'backups', basename(database));

const timeOf = (written: string): string => {
  const [day = '', time = ''] = written.split('T');
  const [h = '', m = '', s = '', ms = ''] = time.split('-');
  return `${day}T${h}:${m}:${s}.${ms}Z`;
};

interface Counted {
  readonly backup: BackupView;
  readonly count: number;
}

/** The backups there are, the one that was made last first, whatever its clock said. */
export const backupsOf = (database: string, now = new Date()): BackupView[] =>
  countedOf(database, now).map(({ backup }) => backup);

function countedOf(database: string, now: Date): Counted[] {
  const folder = backupFolder(database);
  let names: string[];
  try {
    names = readdirSync(folder);
  } catch {
    return [];
  }
  return names
    .flatMap((name): Counted[] => {
      const [, kind, written, count] = NAME.exec(name) ?? [];
      if (kind === undefined || written === undefined) return [];
      const at = timeOf(written);
      const ahead = Date.parse(at) > now.getTime() + CLOCK_MS;
      const { size: bytes } = statSync(join(folder, name));
      return [{ backup: { name, kind: kind as BackupKind, at, bytes, ahead }, count: Number(count ?? 0) }];
    })
    .sort((a, b) => b.count - a.count || b.backup.at.localeCompare(a.backup.at));
}

/** Whether a file is a whole database of this application; why not, or null. */
export function backupFault(path: string): string | null {
  let database: Libsql.Database | null = null;
  try {
    database = new Libsql(path, { readonly: true });
    const [row] = database.prepare('PRAGMA integrity_check(1)').all() as { integrity_check: string }[];
    if (row?.integrity_check !== 'ok') return `It is damaged: ${row?.integrity_check ?? 'no answer'}`;
    const tables = database.prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`).all() as { name: string }[];
    const names = new Set(tables.map((table) => table.name));
    const lacking = ['projects', 'operations', 'versions', 'price_books', 'price_items'].filter(
      (name) => !names.has(name),
    );
    return lacking.length === 0 ? null : `It is no database of this application: ${lacking.join(', ')} lacking.`;
  } catch (problem) {
    return problem instanceof Error ? problem.message : 'It cannot be read.';
  } finally {
    database?.close();
  }
}

/**
 * Writes a settled copy of a database as it is at one moment, whoever writes to it meanwhile, and looks it through.
 * @returns what is wrong with the copy, or null
 */
export function copyDatabase(from: string, to: string): string | null {
  const database = new Libsql(from);
  try {
    database.exec(`VACUUM INTO '${to.replaceAll("'", "''")}'`);
  } finally {
    database.close();
  }
  return backupFault(to);
}

/**
 * Keeps a whole and settled copy of a database: a snapshot of one moment, never a copy of a file that is being written.
 * @param copy writes the snapshot to a path; what is wrong with it, or null
 * @param wanted a backup that makes no room for it, however old it is
 */
export async function writeBackup(
  database: string,
  kind: BackupKind,
  now: Date,
  copy: (path: string) => Promise<string | null> | string | null,
  wanted?: string,
): Promise<BackupView> {
  const folder = backupFolder(database);
  mkdirSync(folder, { recursive: true });
  const count = 1 + Math.max(0, ...countedOf(database, now).map(({ count }) => count));
  const name = `${kind}-${now.toISOString().replace(/[:.]/g, '-')}-${String(count).padStart(6, '0')}.sqlite`;
  const [made, final] = [join(folder, `${name}.part`), join(folder, name)];
  // what was being written when the server was killed
  for (const left of readdirSync(folder)) if (left.endsWith('.part')) rmSync(join(folder, left), { force: true });
  try {
    const fault = await copy(made);
    if (fault !== null) throw new Error(`The backup that was written is not whole. ${fault}`);
    renameSync(made, final);
  } catch (problem) {
    // what is half written takes room and is no backup
    rmSync(made, { force: true });
    throw problem;
  }
  const same = backupsOf(database).filter((backup) => backup.kind === kind);
  for (const old of same.slice(KEPT[kind])) if (old.name !== wanted) rmSync(join(folder, old.name), { force: true });
  return { name, kind, at: now.toISOString(), bytes: statSync(final).size, ahead: false };
}

/** Whether there was no room: the file itself would not find any either. */
const isFull = (problem: unknown): boolean =>
  problem instanceof RefusedError ? problem.more.trouble === 'full' : troubleOf(problem) === 'full';

/**
 * Keeps what is there before another is put in its place: as a backup where it is whole, and else as the file it is, with
 * what was not yet settled of it.
 * @returns what it is kept as
 */
export async function keepBefore(
  database: string,
  copy: (path: string) => Promise<string | null> | string | null,
  wanted?: string,
): Promise<{ readonly backup: BackupView | null; readonly kept: string }> {
  try {
    const backup = await writeBackup(database, 'hand', new Date(), copy, wanted);
    return { backup, kept: backup.name };
  } catch (problem) {
    if (isFull(problem)) throw problem;
    const kept = join(backupFolder(database), `damaged-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`);
    for (const ending of ['', '-wal'])
      if (existsSync(`${database}${ending}`)) copyFileSync(`${database}${ending}`, `${kept}${ending}`);
    return { backup: null, kept };
  }
}
