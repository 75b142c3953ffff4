import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import Libsql from 'libsql';
import { DataSource } from 'typeorm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { ProjectView, Refusal, StepsResult } from '@nestplank/contract';
import { createApp } from './app.js';
import { logger } from './logger.js';
import { LibsqlDatabase } from './database/libsql-driver.js';

const demo = readFileSync(new URL('../../../demo/thimble.json', import.meta.url), 'utf8');

/** A driver whose statements fail when they are told to, before or after SQLite has done them. */
class FailingDatabase extends LibsqlDatabase {
  /** As many pages as SQLite itself may use; null for as many as there is room for. */
  static pages: number | null = null;
  static fails: (sql: string) => 'before' | 'after' | null = () => null;

  constructor(path: string, options?: { readonly timeout?: number }) {
    super(path, options);
    if (FailingDatabase.pages !== null) this.pragma(`max_page_count = ${FailingDatabase.pages}`);
  }

  override prepare(sql: string): ReturnType<LibsqlDatabase['prepare']> {
    const statement = super.prepare(sql);
    const guarded = <T>(work: () => T): T => {
      const when = FailingDatabase.fails(sql);
      const broken = (): Error => Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
      if (when === 'before') throw broken();
      const done = work();
      if (when === 'after') throw broken();
      return done;
    };
    const run = statement.run.bind(statement);
    const all = statement.all.bind(statement);
    statement.run = (...values) => guarded(() => run(...values));
    statement.all = (...values) => guarded(() => all(...values));
    return statement;
  }
}

logger.level = process.env['LOG_LEVEL'] ?? 'silent';
let folder: string;
let path: string;
let app: NestExpressApplication;
let base: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-storage-'));
  path = join(folder, 'test.sqlite');
  FailingDatabase.fails = () => null;
  app = await createApp({ database: path, driver: FailingDatabase });
  await app.listen(0, '127.0.0.1');
  base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
});
afterEach(async () => {
  FailingDatabase.fails = () => null;
  FailingDatabase.pages = null;
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

async function call<T>(method: string, at: string, body?: unknown): Promise<{ status: number; body: T }> {
  const response = await fetch(`${base}/api/${at}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as T };
}
const importDemo = async (): Promise<string> =>
  (await call<{ id: string }>('POST', 'projects/import', { text: demo })).body.id;
const step = (budget: number) => ({ id: randomUUID(), name: 'changeSettings', payload: { changes: { budget } } });
const post = (id: string, revision: number, ...steps: unknown[]) =>
  call<StepsResult & Refusal>('POST', `projects/${id}/operations`, { revision, steps });
const view = async (id: string): Promise<ProjectView> => (await call<ProjectView>('GET', `projects/${id}`)).body;
const health = async (): Promise<string> =>
  (await call<{ status: string; trouble?: string }>('GET', 'health')).body.status;

/** What another program reads from the file: what is really kept. */
function onDisk(id: string): { revision: number; budget: number } {
  const other = new Libsql(path, { readonly: true });
  const row = other.prepare('SELECT revision, document FROM projects WHERE id = ?').get([id]) as {
    revision: number;
    document: string;
  };
  other.close();
  return {
    revision: row.revision,
    budget: (JSON.parse(row.document) as { settings: { budget: number } }).settings.budget,
  };
}

describe('a database that cannot keep anything', () => {
  it('at every statement of a save in turn: it is refused or kept, and what follows is kept on disk', async () => {
    const id = await importDemo();
    let revision = 0;
    let points = 0;
    for (const when of ['before', 'after'] as const) {
      for (let point = 1; ; point += 1) {
        let count = 0;
        let failed = '';
        FailingDatabase.fails = (sql) => {
          count += 1;
          if (count !== point) return null;
          failed = sql;
          return when;
        };
        const budget = 1000 * (point + (when === 'after' ? 500 : 0));
        const sent = step(budget);
        const answer = await post(id, revision, sent);
        FailingDatabase.fails = () => null;
        if (failed === '') {
          expect(answer.status).toBe(200);
          revision = answer.body.revision;
          break;
        }
        points += 1;
        // a statement may fail and nothing be lost by it; what is answered with success is on disk
        if (answer.status === 200) {
          expect(onDisk(id), failed).toEqual({ revision: answer.body.revision, budget });
          revision = answer.body.revision;
          continue;
        }
        expect(answer.body, failed).toMatchObject({ code: 'storage', trouble: 'full' });
        // the same step again, as a sender does who was refused: done once, whether the commit had gone through or not
        const again = await post(id, revision, sent);
        expect(again.status, failed).toBe(200);
        expect(again.body.revision, failed).toBe(revision + 1);
        expect(onDisk(id), failed).toEqual({ revision: again.body.revision, budget });
        revision = again.body.revision;
      }
    }
    expect(points).toBeGreaterThan(15);
  });

  it('when the commit fails and the rollback after it too, nothing hangs in the connection', async () => {
    const id = await importDemo();
    FailingDatabase.fails = (sql) => (/^(COMMIT|ROLLBACK)/i.test(sql) ? 'before' : null);
    for (let i = 0; i < 3; i += 1) expect((await post(id, 0, step(100 + i))).body.code).toBe('storage');
    FailingDatabase.fails = () => null;
    expect(onDisk(id).revision).toBe(0);
    expect((await post(id, 0, step(7))).status).toBe(200);
    expect(onDisk(id)).toEqual({ revision: 1, budget: 7 });
  });

  it('that is really full is told as such, by health too, and takes up its work when there is room', async () => {
    const id = await importDemo();
    const other = new Libsql(path);
    const [{ page_count: pages } = { page_count: 0 }] = other.prepare('PRAGMA page_count').all() as {
      page_count: number;
    }[];
    other.close();
    // SQLite itself says that there is no room, on every connection that is made
    const limit = async (most: number | null): Promise<void> => {
      FailingDatabase.pages = most;
      await app.get(DataSource).query(`PRAGMA max_page_count = ${most ?? 1_000_000_000}`);
    };
    await limit(pages + 1);
    let revision = 0;
    let refused = 0;
    for (let i = 0; i < 40 && refused < 3; i += 1) {
      const answer = await post(id, revision, step(i + 1));
      if (answer.status === 200) {
        revision = answer.body.revision;
        expect(onDisk(id)).toEqual({ revision, budget: i + 1 });
      } else {
        refused += 1;
        expect(answer).toMatchObject({ status: 507, body: { code: 'storage', trouble: 'full' } });
        expect(onDisk(id).revision).toBe(revision);
      }
    }
    expect(refused).toBe(3);
    expect(await health()).toBe('full');
    expect((await view(id)).revision).toBe(revision);
    await limit(null);
    expect((await post(id, revision, step(99))).status).toBe(200);
    expect(onDisk(id)).toEqual({ revision: revision + 1, budget: 99 });
    expect(await health()).toBe('ok');
  });

  it('whose file was taken away answers that nothing was kept', async () => {
    const id = await importDemo();
    renameSync(path, `${path}.away`);
    expect((await post(id, 0, step(5))).body).toMatchObject({ code: 'storage', trouble: 'gone' });
    expect(await health()).toBe('gone');
    renameSync(`${path}.away`, path);
    expect((await post(id, 0, step(6))).status).toBe(200);
    expect(onDisk(id)).toEqual({ revision: 1, budget: 6 });
  });
});

describe('steps of which the sender does not know whether they were done', () => {
  it('are known one by one, whatever revision is sent, and never done twice', async () => {
    const id = await importDemo();
    const [a, b, c] = [step(1), step(2), step(3)];
    await post(id, 0, a);
    // the answer was lost; the sender opened the project anew and has one more
    expect((await post(id, 1, a, b)).body).toMatchObject({ revision: 2, done: [{ id: a.id }, { id: b.id }] });
    // the answer was lost, and nothing was opened anew
    expect((await post(id, 1, b, c)).body).toMatchObject({ revision: 3 });
    expect((await post(id, 0, a, b, c)).body).toMatchObject({ revision: 3 });
    expect(onDisk(id)).toEqual({ revision: 3, budget: 3 });
  });
  it('behind somebody else’s change are a conflict that says which of them are done', async () => {
    const id = await importDemo();
    const [mine, theirs, next] = [step(1), step(2), step(3)];
    await post(id, 0, mine);
    await post(id, 1, theirs);
    const answer = await post(id, 0, mine, next);
    expect(answer).toMatchObject({ status: 409, body: { code: 'conflict', revision: 2, done: [mine.id] } });
    // what was sent again with nothing new in it is no conflict
    expect((await post(id, 0, mine)).status).toBe(200);
    expect((await post(id, 2, next)).body.revision).toBe(3);
  });
  it('are named when the project is opened', async () => {
    const id = await importDemo();
    const [done, open] = [step(1), step(2)];
    await post(id, 0, done);
    const { body } = await call<ProjectView>('POST', `projects/${id}/view`, { steps: [open.id, done.id] });
    expect([body.revision, body.done]).toEqual([1, [done.id]]);
  });
});
