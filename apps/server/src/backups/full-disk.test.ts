import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import Libsql from 'libsql';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { storageRefusal, troubleOf } from '../database/storage.js';
import { backupFolder, keepBefore, writeBackup } from './backup-files.js';

let folder: string;
let path: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-full-'));
  path = join(folder, 'test.sqlite');
  const database = new Libsql(path);
  database.exec('CREATE TABLE kept (value INTEGER)');
  database.close();
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** What a copy does on a disk that fills up: half a file, and what SQLite says of it. */
const fills = (problem: unknown) => (to: string) => {
  writeFileSync(to, 'half');
  return Promise.reject(problem as Error);
};

describe('a backup on a disk that is full', () => {
  it('leaves nothing half written, and what is there is not taken for damaged', async () => {
    // as a thread hands it on: no error any more, but its fields
    for (const problem of [{ code: 'SQLITE_FULL', rawCode: 13 }, storageRefusal('full')]) {
      await expect(writeBackup(path, 'hand', new Date(), fills(problem))).rejects.toBe(problem);
      await expect(keepBefore(path, fills(problem))).rejects.toBe(problem);
      expect(readdirSync(backupFolder(path))).toEqual([]);
    }
    // what is damaged is kept as the file it is
    const { backup, kept } = await keepBefore(path, fills({ code: 'SQLITE_CORRUPT' }));
    expect([backup, readdirSync(backupFolder(path)).length]).toEqual([null, 1]);
    expect(kept).toContain('damaged-');
  });

  it('clears away what was half written when the server was killed', async () => {
    await writeBackup(path, 'hand', new Date(), (to) => {
      writeFileSync(to, 'whole');
      return null;
    });
    writeFileSync(join(backupFolder(path), 'daily-2026-12-02T15-44-20-841Z-000002.sqlite.part'), 'half');
    const { name } = await writeBackup(path, 'hand', new Date(), (to) => {
      writeFileSync(to, 'whole');
      return null;
    });
    expect(readdirSync(backupFolder(path)).filter((file) => file.endsWith('.part'))).toEqual([]);
    expect(readdirSync(backupFolder(path))).toContain(name);
  });

  it('is known by what its thread failed with', async () => {
    const worker = new Worker(`throw Object.assign(Object.create({}), { code: 'SQLITE_FULL', rawCode: 13 })`, {
      eval: true,
    });
    const problem = await new Promise<unknown>((resolve) => worker.once('error', resolve));
    expect(troubleOf(problem)).toBe('full');
    expect([troubleOf(null), troubleOf('full'), troubleOf(new Error('another'))]).toEqual([null, null, null]);
  });
});
