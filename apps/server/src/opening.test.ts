import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Libsql from 'libsql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { KEPT_OF_PAST } from '@nestplank/contract';
import { createApp } from './app.js';
import { backupFolder } from './backups/backup-files.js';
import { BackupsService } from './backups/backups.service.js';
import { logger } from './logger.js';
import { ProjectsService } from './projects/projects.service.js';
import { VersionsService } from './projects/versions.service.js';

logger.level = 'silent';
const root = fileURLToPath(new URL('../../..', import.meta.url));
const demo = join(root, 'demo/thimble.json');
let folder: string;
let database: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-opening-'));
  database = join(folder, 'a.sqlite');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Opens the database as the server does, does something with it, and ends in order. */
async function opened<T>(work: (app: NestExpressApplication) => Promise<T>, taking?: string): Promise<T> {
  const app = await createApp({ database, demo: taking });
  try {
    return await work(app);
  } finally {
    await app.close();
  }
}
const names = (): Promise<string[]> =>
  opened(async (app) => (await app.get(ProjectsService).list()).map(({ name }) => name).sort());
/** Says something to the database directly, as another program would. */
function say(text: string): void {
  const open = new Libsql(database);
  open.exec(text);
  open.close();
}
const told = (script: string, ...words: string[]): Promise<{ code: number; out: string; err: string }> =>
  new Promise((resolve) =>
    execFile(
      process.execPath,
      [join(root, 'apps/server/dist', script), ...words],
      { env: { ...process.env, NEST_PLANK_DB: database } },
      (problem, out, err) => resolve({ code: problem ? Number(problem.code ?? 1) : 0, out, err }),
    ),
  );

describe('a database that is opened', () => {
  it('by an older release than wrote it is refused in one line, and left as it is', async () => {
    await opened(() => Promise.resolve(), demo);
    say(`INSERT INTO migrations (timestamp, name) VALUES (9, 'Later9999999999999')`);
    const before = readFileSync(database);
    await expect(opened(() => Promise.resolve())).rejects.toThrow(
      /later release.*Later9999999999999.*Use that release/,
    );
    expect(readFileSync(database).equals(before)).toBe(true);
    const { code, err } = await told('main.js');
    expect([code, err.trim().split('\n').length]).toEqual([1, 1]);
  });
  it('before its tables are changed is kept as a backup', async () => {
    await opened(() => Promise.resolve(), demo);
    // as the release before the last left it
    say(`DROP INDEX operations_revision; ALTER TABLE projects DROP COLUMN deletedAt; ALTER TABLE operations DROP COLUMN revision;
         DELETE FROM migrations WHERE name = 'Steps1764300000000'`);
    expect(await names()).toEqual(['Thimble']);
    const kept = readdirSync(backupFolder(database)).filter((name) => name.startsWith('migration-'));
    expect(kept).toHaveLength(1);
    const copy = new Libsql(join(backupFolder(database), kept[0] ?? ''), { readonly: true });
    const columns = copy.prepare(`SELECT name FROM pragma_table_info('projects')`).all() as { name: string }[];
    expect(columns.map(({ name }) => name)).not.toContain('deletedAt');
    copy.close();
  });
  it('that is no database, or a folder, is one line that says what to do', async () => {
    writeFileSync(database, 'no database at all, but long enough to look at'.repeat(200));
    const { code, err } = await told('main.js');
    expect(code).toBe(1);
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).toMatch(/npm run restore/);
    await expect(opened(() => Promise.resolve())).rejects.toThrow(/cannot be opened as a database/);
    database = folder;
    await expect(opened(() => Promise.resolve())).rejects.toThrow(/is a folder/);
  });
  it('after a first start that broke off takes the demo in whole at the next', async () => {
    const bad = join(folder, 'demo.json');
    writeFileSync(bad, readFileSync(demo, 'utf8').slice(0, 2000));
    await expect(opened(() => Promise.resolve(), bad)).rejects.toThrow();
    expect(existsSync(database)).toBe(true);
    await opened(() => Promise.resolve(), demo);
    expect(await names()).toEqual(['Thimble']);
    // one that was emptied by its owner stays empty
    await opened(async (app) => {
      const projects = app.get(ProjectsService);
      for (const { id } of await projects.list()) await projects.remove(id);
    });
    await opened(() => Promise.resolve(), demo);
    expect(await names()).toEqual([]);
  });
  it('is whole in its one file once the server has ended in order', async () => {
    await opened(() => Promise.resolve(), demo);
    const wal = `${database}-wal`;
    expect(existsSync(wal) ? statSync(wal).size : 0).toBe(0);
    for (const ending of ['-wal', '-shm']) rmSync(`${database}${ending}`, { force: true });
    expect(await names()).toEqual(['Thimble']);
  });
});

describe('from the command line', () => {
  it('a backup is looked through and put in place, and what was there is kept', async () => {
    const { name } = await opened((app) => app.get(BackupsService).make('hand'), demo);
    await opened(async (app) => {
      const projects = app.get(ProjectsService);
      for (const { id } of await projects.list()) await projects.remove(id);
    });
    expect((await told('restore.js')).out).toContain(name);
    const wrong = join(folder, 'wrong.sqlite');
    writeFileSync(wrong, 'no database');
    const refused = await told('restore.js', wrong);
    expect([refused.code, /is not put in place/.test(refused.err)]).toEqual([1, true]);
    expect((await told('restore.js', 'none.sqlite')).code).toBe(1);
    expect(await names()).toEqual([]);
    const { code, out } = await told('restore.js', name);
    expect(code).toBe(0);
    expect(out).toMatch(/is in place\. What was there is kept as hand-/);
    expect(await names()).toEqual(['Thimble']);
  });
  it('everything is taken out as open files, and in again', async () => {
    await opened(() => Promise.resolve(), demo);
    const file = join(folder, 'all.zip');
    expect((await told('archive.js', 'out', file)).code).toBe(0);
    expect((await told('archive.js', 'in', file)).out).toContain('Taken in: thimble-');
    expect(await names()).toEqual(['Thimble', 'Thimble']);
    for (const words of [['in', join(folder, 'none.zip')], ['sideways', file], []]) {
      const { code, err } = await told('archive.js', ...words);
      expect([code, err.trim().split('\n').length]).toEqual([1, 1]);
    }
    writeFileSync(file, 'no archive');
    expect((await told('archive.js', 'in', file)).err).toContain('not an archive');
  });
});

describe('what is kept of the past', () => {
  it('is limited as it is told: steps that can be undone, versions kept by themselves; named ones stay', async () => {
    await opened(async (app) => {
      const [projects, versions] = [app.get(ProjectsService), app.get(VersionsService)];
      await versions.keep('thimble', 'Mine');
      const steps = KEPT_OF_PAST.undo + 120;
      let revision = 0;
      for (let at = 0; at < steps; at += KEPT_OF_PAST.between) {
        const some = Array.from({ length: KEPT_OF_PAST.between }, (_, i) => ({
          id: `00000000-0000-4000-8000-${String(at + i).padStart(12, '0')}`,
          name: 'changeSettings' as const,
          payload: { changes: { hoursPerDay: 1 + ((at + i) % 9) } },
        }));
        ({ revision } = await projects.post('thimble', { revision, steps: some }));
      }
      let undone = 0;
      const together = 10;
      const undo = (from: number) => ({
        revision,
        steps: Array.from({ length: together }, (_, i) => ({
          id: `00000000-0000-4000-9000-${String(from + i).padStart(12, '0')}`,
          name: 'undo' as const,
          payload: {},
        })),
      });
      for (; undone < steps; undone += together)
        try {
          ({ revision } = await projects.post('thimble', undo(undone)));
        } catch {
          break;
        }
      // what came since the last look back can be undone besides
      expect(undone).toBeGreaterThanOrEqual(KEPT_OF_PAST.undo);
      expect(undone).toBeLessThan(KEPT_OF_PAST.undo + 2 * KEPT_OF_PAST.between);
      const kept = await versions.list('thimble');
      expect(kept.filter(({ automatic }) => automatic).length).toBeLessThanOrEqual(KEPT_OF_PAST.automatic);
      expect(kept.map(({ name }) => name)).toContain('Mine');
    }, demo);
  });
});
