import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Libsql from 'libsql';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BackupsView, ProjectListItem, ProjectView, Refusal, TakenIn } from '@nestplank/contract';
import { createApp } from './app.js';
import { backupFolder } from './backups/backup-files.js';
import { logger } from './logger.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
let folder: string;
let whole: string;

/** Writes 200 bytes of nonsense over the first page of a table or an index. */
function damage(path: string, name: string): void {
  const database = new Libsql(path);
  const [size] = database.prepare('PRAGMA page_size').all() as { page_size: number }[];
  const [row] = database.prepare('SELECT rootpage FROM sqlite_master WHERE name = ?').all(name) as {
    rootpage: number;
  }[];
  database.close();
  const bytes = readFileSync(path);
  const at = ((row?.rootpage ?? 0) - 1) * (size?.page_size ?? 0);
  for (let i = 0; i < 200; i += 1) bytes[at + i] = (i * 37 + 11) & 255;
  writeFileSync(path, bytes);
}
const damaged = (name: string): string => {
  const path = join(folder, `${name}-${readdirSync(folder).length}.sqlite`);
  copyFileSync(whole, path);
  damage(path, name);
  return path;
};
async function opened<T>(path: string, work: (base: string) => Promise<T>): Promise<T> {
  const app = await createApp({ database: path, demo: join(root, 'demo') });
  await app.listen(0, '127.0.0.1');
  try {
    return await work(`${await app.getUrl()}/api`);
  } finally {
    await app.close();
  }
}
const json = async <T>(address: string): Promise<T> => (await (await fetch(address)).json()) as T;

beforeAll(async () => {
  logger.level = 'silent';
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-damaged-'));
  whole = join(folder, 'whole.sqlite');
  await opened(whole, async (base) => {
    for (const name of ['One', 'Two'])
      await fetch(`${base}/projects/wren/versions`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name }),
      });
  });
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('a database with a damaged page', () => {
  it.each([
    ['price_items', ['prices'], 3],
    ['versions', ['versions/wren'], 3],
    ['photos', [], 3],
    ['projects', ['projects/wren.json', 'projects/bulrush.json', 'projects/thimble.json'], 0],
  ] as const)(
    'in %s is opened to be read: what is whole can be saved out, what is not is named',
    async (table, lost, left) => {
      const path = damaged(table);
      const before = readFileSync(path);
      const archive = await opened(path, async (base) => {
        expect((await json<ProjectListItem[]>(`${base}/projects`)).length).toBe(left);
        expect((await fetch(`${base}/health`)).status).toBe(503);
        expect((await json<BackupsView>(`${base}/backups`)).damaged).toBe(true);
        if (left > 0) {
          const view = await json<ProjectView>(`${base}/projects/wren`);
          expect(view.project.name).toContain('Wren');
          expect(view.news.map(({ key }) => key)).toEqual(table === 'price_items' ? ['open.pricesLost'] : []);
          // nothing of it is written to
          const step = { id: crypto.randomUUID(), name: 'renameProject', payload: { name: 'New', model: '' } };
          const answer = await fetch(`${base}/projects/wren/operations`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ revision: view.revision, steps: [step] }),
          });
          expect([answer.status, ((await answer.json()) as Refusal).trouble]).toEqual([503, 'damaged']);
        }
        const out = await fetch(`${base}/everything`);
        expect(out.status).toBe(200);
        return Buffer.from(await out.arrayBuffer());
      });
      expect(readFileSync(path).equals(before)).toBe(true);
      const files = unzipSync(archive);
      const said = strFromU8(files['not-read.txt'] ?? new Uint8Array());
      for (const one of lost) expect(said).toContain(one);
      expect(Object.keys(files).filter((name) => name.startsWith('projects/'))).toHaveLength(left);
      if (left === 0) return;
      // what came out goes into another database
      await opened(join(folder, `fresh-${table}.sqlite`), async (base) => {
        const body = new FormData();
        body.append('archive', new Blob([new Uint8Array(archive)]), 'a.zip');
        const answer = await fetch(`${base}/everything`, { method: 'POST', body });
        const { ids, refused } = (await answer.json()) as TakenIn;
        expect([ids.length, refused]).toEqual([left, []]);
      });
    },
  );

  it('gives way to a backup by the command line only after the file, and what can be read of it, were kept', () => {
    const path = damaged('price_items');
    const before = readFileSync(path);
    const backup = join(folder, 'good.sqlite');
    copyFileSync(whole, backup);
    const { stdout, status } = spawnSync(process.execPath, [join(root, 'apps/server/dist/restore.js'), backup], {
      env: { ...process.env, NEST_PLANK_DB: path },
      encoding: 'utf8',
    });
    expect(status).toBe(0);
    expect(stdout).toContain('What was there was not whole');
    const kept = readdirSync(backupFolder(path)).filter((name) => name.startsWith('damaged-'));
    const file = kept.find((name) => name.endsWith('.sqlite')) ?? '';
    expect(readFileSync(join(backupFolder(path), file)).equals(before)).toBe(true);
    const zip = kept.find((name) => name.endsWith('.zip')) ?? '';
    expect(existsSync(join(backupFolder(path), zip))).toBe(true);
    const out = Object.keys(unzipSync(readFileSync(join(backupFolder(path), zip))));
    expect(out.filter((name) => name.startsWith('projects/'))).toHaveLength(3);
    expect(readFileSync(path).equals(readFileSync(backup))).toBe(true);
  });
});
