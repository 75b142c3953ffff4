import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DataSource } from 'typeorm';
import { databaseOptions } from './database.module.js';
import { bindable, LibsqlDatabase } from './libsql-driver.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-db-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('the driver', () => {
  it('binds what can be bound and refuses the rest', () => {
    expect([true, false, null, undefined, 3, 'a', 5n].map(bindable)).toEqual([1, 0, null, null, 3, 'a', 5n]);
    expect(bindable(new Date(Date.UTC(2026, 0, 2)))).toBe('2026-01-02T00:00:00.000Z');
    expect(bindable(new Uint8Array([1, 2]))).toEqual(Buffer.from([1, 2]));
    expect(() => bindable({})).toThrow(TypeError);
    expect(() => bindable(Symbol('x'))).toThrow(TypeError);
  });
  it('takes every kind of value in and gives it back, a lone null and bytes included', () => {
    const database = new LibsqlDatabase(join(folder, 'a.sqlite'));
    database.exec('CREATE TABLE t (a, b)');
    const insert = database.prepare('INSERT INTO t VALUES (?, ?)');
    expect(insert.reader).toBe(false);
    insert.run(null, new Uint8Array([7, 8]));
    insert.run(true, 'text');
    expect(database.prepare('INSERT INTO t (a) VALUES (?)').run(null).changes).toBe(1);
    const rows = database.prepare('SELECT a, b FROM t ORDER BY rowid').all() as { a: unknown; b: unknown }[];
    expect(rows[0]).toEqual({ a: null, b: Buffer.from([7, 8]) });
    expect(rows[1]).toEqual({ a: 1, b: 'text' });
    expect(database.prepare('SELECT a FROM t WHERE b = ?').get('text')).toEqual({ a: 1 });
    database.close();
  });
});

describe('the tables', () => {
  it('are made by migrations, with WAL and foreign keys on, and a second start changes nothing', async () => {
    const path = join(folder, 'b.sqlite');
    for (let start = 0; start < 2; start += 1) {
      const source = await new DataSource(databaseOptions(path)).initialize();
      expect(await source.query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
      expect(await source.query('PRAGMA foreign_keys')).toEqual([{ foreign_keys: 1 }]);
      expect(await source.query<unknown[]>('SELECT * FROM migrations')).toHaveLength(6);
      await expect(
        source.query(
          `INSERT INTO operations (projectId, stepId, name, payload, patches, inverse, state, at) VALUES ('nobody', 's', 'n', '{}', '[]', '[]', 'done', '')`,
        ),
      ).rejects.toThrow(/FOREIGN KEY/);
      await source.destroy();
    }
  });
});
